import { useState } from "react";
import { useNavigate } from "react-router";
import { copySession, getOtherNeeds, listGroups, type SessionView, saveRoutine } from "#contract";
import { focusName, routineOf, targetsOf } from "#core/plans";
import { call, refreshAll, useAsk, useAskSliced, wordsOfError } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { useRoutines } from "#web/device/routines.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { sharedNeeds } from "#web/parts/other-needs.ts";
import { RoutineChoice } from "#web/parts/routine-choice.tsx";
import { SpellingOptions } from "#web/parts/spelling-row.tsx";
import { AboutChoice, aboutOf } from "#web/parts/teaches.tsx";
import { toast } from "#web/parts/toast.tsx";

/** The same plan on another day, for whoever is in the group now. */
export function CopySheet({ session, onClose }: { session: SessionView; onClose: () => void }) {
  const navigate = useNavigate();
  const [id] = useState(newId);
  const [day, setDay] = useState(todayHere());
  const [trouble, setTrouble] = useState<string | null>(null);
  const copy = async () => {
    try {
      await call(copySession, { params: { id: session.id }, body: { id, heldOn: day } });
      void refreshAll();
      onClose();
      navigate(`/sessions/${id}`);
      toast("Copied. Words that someone new in the group cannot read yet are marked in it.");
    } catch (error) {
      setTrouble(wordsOfError(error));
    }
  };
  return (
    <Sheet open onClose={onClose} title="Copy this session">
      <div className="flex flex-col gap-3">
        <TextField
          label="On"
          type="date"
          value={day}
          hint={`For whoever is in ${session.groupName} now. The plan can be changed there.`}
          problem={trouble ?? undefined}
          onChange={(event) => setDay(event.target.value)}
        />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button shape="main" disabled={!day} onClick={copy}>
            Copy to this day
          </Button>
        </div>
      </div>
    </Sheet>
  );
}

/** What a session is filled anew for. */
export interface Replan {
  readonly target: string;
  readonly second: string | null;
  readonly focus: readonly string[] | null;
  /** Undefined for the group's own. */
  readonly routine: string | undefined;
}

interface PlanSheetWanted {
  readonly session: SessionView;
  readonly onClose: () => void;
  readonly onReplan: (wanted: Replan) => Promise<boolean>;
  readonly onDay: (day: string) => Promise<boolean>;
  readonly onRemove: () => void;
  /** Keeps its parts as a routine. */
  readonly onKeep: () => void;
}

/** Its day, what it teaches, and how it is held. */
export function PlanSheet({ session, onClose, onReplan, onDay, onRemove, onKeep }: PlanSheetWanted) {
  const [day, setDay] = useState(session.heldOn);
  const [target, setTarget] = useState(session.plan.target);
  const [second, setSecond] = useState(session.plan.second ?? "");
  const options = [...new Set([...targetsOf(session.plan), ...session.targets])];
  const [focus, setFocus] = useState<readonly string[] | null>(session.plan.focus ?? null);
  const others = useAskSliced(getOtherNeeds, { query: {} });
  const abouts = aboutOf(others.data ? sharedNeeds(others.data, new Set(session.members.map(({ id }) => id))) : []);
  const planned = session.plan.focus;
  const isListed = !planned || abouts.some(({ ids }) => ids.join() === planned.join());
  const about = isListed ? abouts : [...abouts, { name: focusName(planned), ids: planned }];
  const groups = useAsk(listGroups, {});
  const [routine, setRoutine] = useState<string>();
  const routines = useRoutines();
  const usual = groups.data?.find(({ id }) => id === session.groupId)?.routine;
  const run = async (work: Promise<boolean>) => {
    if (await work) onClose();
  };
  return (
    <Sheet open onClose={onClose} title="Change day or target">
      <div className="flex flex-col gap-4">
        <div className="flex items-end gap-2">
          <div className="flex-1">
            <TextField label="Day" type="date" value={day} onChange={(event) => setDay(event.target.value)} />
          </div>
          <Button disabled={!day || day === session.heldOn} onClick={() => void run(onDay(day))}>
            Move to this day
          </Button>
        </div>
        <AboutChoice options={about} value={focus} onSet={setFocus} />
        <div className="flex items-end gap-2">
          <div className={focus ? "hidden" : "flex-1"}>
            <Choice label="Teach" value={target} onChange={(event) => setTarget(event.target.value)}>
              <SpellingOptions gpcs={options} />
            </Choice>
          </div>
          <div className={focus ? "hidden" : "flex-1"}>
            <Choice label="and" value={second} onChange={(event) => setSecond(event.target.value)}>
              <option value="">nothing else</option>
              <SpellingOptions gpcs={options.filter((gpc) => gpc !== target)} />
            </Choice>
          </div>
          <Button
            onClick={() =>
              void run(
                onReplan({
                  ...{ target, focus, routine },
                  second: second && second !== target ? second : null,
                }),
              )
            }
          >
            Fill anew
          </Button>
        </div>
        <RoutineChoice
          routines={usual === undefined ? [] : routines}
          label="Held as"
          value={routine ?? usual ?? ""}
          onSet={setRoutine}
        />
        <p className="text-sm text-soft">
          Filling anew takes other words and a new sentence; what you edited in this plan goes.
        </p>
        <div className="flex justify-between border-t border-line pt-3">
          <span className="flex gap-2">
            <Button onClick={onRemove}>Remove this session</Button>
            <Button onClick={onKeep}>Keep its parts as a routine</Button>
          </span>
          <Button onClick={onClose}>Close</Button>
        </div>
      </div>
    </Sheet>
  );
}

/** The parts of a session become a routine of the school's own, for other sessions. */
export function KeepSheet({ session, onClose }: { session: SessionView; onClose: () => void }) {
  const [name, setName] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  const [id] = useState(newId);
  const keep = async () => {
    try {
      const routine = routineOf(session.plan, name.trim());
      await call(saveRoutine, {
        params: { id },
        body: { version: 0, routine: { ...routine, parts: [...routine.parts] } },
      });
      void refreshAll();
      onClose();
      toast(`“${name.trim()}” is kept. It stands under Sessions, Routines, and can be chosen for any group.`);
    } catch (error) {
      setTrouble(wordsOfError(error));
    }
  };
  return (
    <Sheet open onClose={onClose} title="Keep its parts as a routine">
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <TextField
          label="Name"
          autoFocus
          maxLength={60}
          value={name}
          hint="Parts, minutes and who does them. Words are chosen anew for each session."
          problem={trouble ?? undefined}
          onChange={(event) => setName(event.target.value)}
        />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" shape="main" disabled={name.trim() === ""}>
            Keep it
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
