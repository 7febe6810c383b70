import type { Week } from "#contract";
import { Choice, WholeField } from "#web/parts/field.tsx";
import { Panel } from "#web/parts/page.tsx";
import type { PartOfWeek } from "./use-week.ts";
import { useWeek } from "./use-week.ts";

const namings: Readonly<Record<Week["names"], string>> = {
  none: "no child is named",
  initials: "initials",
  names: "names as they stand here",
};

/** How often and how long each group meets, and how children are called in calendars that leave the school. */
export function TheGroups({ week, change }: PartOfWeek) {
  const { wantedWith } = useWeek();
  const wanted = wantedWith();
  return (
    <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
      <Panel title="Sessions of each group">
        {wanted?.groups.length === 0 && <p className="text-soft">There is no group with children in it yet.</p>}
        <ul className="flex flex-col divide-y divide-line">
          {wanted?.groups.map(({ id, name, sessions, minutes }) => {
            const put = (what: { sessions?: number; minutes?: number }) =>
              void change((now) => ({
                ...now,
                groups: [...now.groups.filter((one) => one.id !== id), { id, sessions, minutes, ...what }],
              }));
            return (
              <li key={id} className="flex flex-wrap items-center gap-3 py-1.5">
                <span className="min-w-40 flex-1 font-semibold">{name}</span>
                <div className="w-20">
                  <WholeField
                    bare
                    label={`Sessions a week of ${name}`}
                    least={0}
                    most={10}
                    value={sessions}
                    onSet={(count) => put({ sessions: count })}
                  />
                </div>
                <span className="text-sm text-soft">a week, each</span>
                <div className="w-20">
                  <WholeField
                    bare
                    label={`Minutes of a session of ${name}`}
                    least={5}
                    most={90}
                    value={minutes}
                    onSet={(length) => put({ minutes: length })}
                  />
                </div>
                <span className="text-sm text-soft">minutes</span>
              </li>
            );
          })}
        </ul>
      </Panel>
      <Panel title="In calendars outside">
        <Choice
          label="How children are called"
          hint="In calendar files and under private addresses."
          value={week.names}
          onChange={(event) => void change((now) => ({ ...now, names: event.target.value as Week["names"] }))}
        >
          {Object.entries(namings).map(([value, says]) => (
            <option key={value} value={value}>
              {says}
            </option>
          ))}
        </Choice>
      </Panel>
    </div>
  );
}
