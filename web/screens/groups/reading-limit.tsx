import { type GroupView, setGroupReads } from "#contract";
import type { ReadingLimit as Limit } from "#core/plans";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { Choice } from "#web/parts/field.tsx";
import { toast } from "#web/parts/toast.tsx";

const says: Readonly<Record<Limit, string>> = {
  all: "everyone can read",
  allButOne: "all but one can read",
  most: "most can read",
};

/** What a group is given to read: what all of it can, or what some need help with; a plan says who, and with what. */
export function ReadingLimit({ group }: { group: Pick<GroupView, "id" | "reads"> }) {
  const set = async (reads: Limit) => {
    try {
      await call(setGroupReads, { params: { id: group.id }, body: { reads } });
      await refreshAll();
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <div className="mt-3 w-64">
      <Choice
        label="Sessions have words that"
        value={group.reads}
        hint={group.reads === "all" ? undefined : "A plan says who needs help with which words."}
        onChange={(event) => void set(event.target.value as Limit)}
      >
        {(Object.keys(says) as Limit[]).map((limit) => (
          <option key={limit} value={limit}>
            {says[limit]}
          </option>
        ))}
      </Choice>
    </div>
  );
}
