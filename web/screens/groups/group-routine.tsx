import { Link } from "react-router";
import { type GroupView, setGroupRoutine } from "#contract";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { useRoutines } from "#web/device/routines.ts";
import { RoutineChoice } from "#web/parts/routine-choice.tsx";
import { toast } from "#web/parts/toast.tsx";

/** How the sessions of a group are held. Those that are planned stay as they are. */
export function GroupRoutine({ group }: { group: Pick<GroupView, "id" | "routine"> }) {
  const routines = useRoutines();
  const set = async (routine: string) => {
    try {
      await call(setGroupRoutine, { params: { id: group.id }, body: { routine } });
      await refreshAll();
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <div className="mt-3 w-64">
      <RoutineChoice
        label="Sessions are held as"
        routines={routines}
        value={group.routine}
        onSet={(id) => void set(id)}
      />
      <p className="mt-1 text-sm">
        <Link to="/sessions/routines" className="underline decoration-line underline-offset-4 hover:decoration-ink">
          Look at the routines
        </Link>
      </p>
    </div>
  );
}
