import { getGroupsOn } from "#contract";
import { targetsIn } from "#core/groups";
import { shortDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { Trouble, Waiting } from "#web/parts/page.tsx";
import { TargetMarks } from "#web/parts/target-marks.tsx";

/** The groups as they were at the end of a day, and why they were made so. */
export function GroupsThen({ day, today }: { day: string; today: string }) {
  const { data, error } = useAsk(getGroupsOn, { params: { day } });
  if (error && !data) return <Trouble error={error} />;
  if (!data) return <Waiting rows={4} />;
  if (data.groups.length === 0) return <p className="text-soft">On {shortDay(day, today)} there was no group.</p>;
  return (
    <ul className="grid gap-3 md:grid-cols-2" aria-label={`Groups on ${shortDay(day, today)}`}>
      {data.groups.map((group) => (
        <li key={group.id} className="rounded-lg border border-line bg-sheet p-4">
          <h2>{group.name}</h2>
          <p className="mt-0.5">{group.members.map(({ name }) => name || "archived").join(", ")}</p>
          <p className="mt-2">
            <TargetMarks targets={targetsIn(group)} none="no target" />
          </p>
          <p className="mt-1 text-sm text-soft">
            Since {shortDay(group.since, today)}. {group.why}
          </p>
        </li>
      ))}
    </ul>
  );
}
