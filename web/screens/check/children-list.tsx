import { useState } from "react";
import type { ChildView, ClassView, GroupView } from "#contract";
import { nearDay, plural } from "#core/saying";
import { Choice, TextField } from "#web/parts/field.tsx";
import { Panel } from "#web/parts/page.tsx";

interface ListWanted {
  readonly all: readonly ChildView[];
  readonly classes: readonly ClassView[];
  readonly groups: readonly GroupView[];
  readonly today: string;
  /** In the order in which they were chosen: the order of the queue. */
  readonly chosen: readonly string[];
  readonly onChoose: (chosen: readonly string[]) => void;
}

/** Who is checked: one child, or several in a row; a group or a class at once, without those who are absent. */
export function ChildrenList({ all, classes, groups, today, chosen, onChoose }: ListWanted) {
  const [filter, setFilter] = useState("");
  const wanted = filter.trim().toLowerCase();
  const shown = all.filter((child) => child.name.toLowerCase().includes(wanted));
  const toggle = (id: string) => onChoose(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  const together = (value: string) => {
    const group = groups.find((one) => one.id === value);
    const ids = group
      ? group.members.map((member) => member.childId)
      : all.filter((child) => child.classId === value).map((child) => child.id);
    onChoose(ids.filter((id) => all.some((child) => child.id === id && child.absentOn !== today)));
  };
  return (
    <Panel
      title={chosen.length === 0 ? "Who" : `Who: ${plural(chosen.length, "child", "children in a row")}`}
      actions={
        chosen.length > 0 && (
          <button type="button" className="text-sm underline underline-offset-4" onClick={() => onChoose([])}>
            None
          </button>
        )
      }
    >
      <div className="flex flex-col gap-2">
        <TextField
          bare
          label="Find a child"
          placeholder="Find a child"
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
        />
        <Choice
          bare
          label="Take a group or a class"
          value=""
          onChange={(event) => event.target.value && together(event.target.value)}
        >
          <option value="">Take a group or a class …</option>
          {groups.map((group) => (
            <option key={group.id} value={group.id}>
              {group.name} ({group.members.length})
            </option>
          ))}
          {classes.map((one) => (
            <option key={one.id} value={one.id}>
              Class {one.name} ({one.children})
            </option>
          ))}
        </Choice>
      </div>
      <div className="mt-2 max-h-[30rem] overflow-y-auto">
        {classes.map((one) => {
          const here = shown.filter((child) => child.classId === one.id);
          if (here.length === 0) return null;
          return (
            <fieldset key={one.id} className="mb-2">
              <legend className="px-2 text-sm text-soft">{one.name}</legend>
              {here.map((child) => (
                <label
                  key={child.id}
                  className={`flex cursor-pointer items-center gap-2 rounded px-2 py-1.5 ${chosen.includes(child.id) ? "bg-leaf-pale font-semibold" : "hover:bg-leaf-pale/60"}`}
                >
                  <input
                    type="checkbox"
                    checked={chosen.includes(child.id)}
                    onChange={() => toggle(child.id)}
                    className="accent-leaf"
                  />
                  <span className="flex-1">{child.name}</span>
                  <span className="text-sm font-normal text-soft">
                    {child.absentOn === today
                      ? "absent today"
                      : child.lastChecked
                        ? nearDay(child.lastChecked, today)
                        : "not yet"}
                  </span>
                </label>
              ))}
            </fieldset>
          );
        })}
        {shown.length === 0 && <p className="px-2 py-1.5 text-soft">No child has that name.</p>}
      </div>
    </Panel>
  );
}
