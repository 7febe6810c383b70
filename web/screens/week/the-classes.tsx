import { useState } from "react";
import { getSchool } from "#contract";
import { useAsk } from "#web/device/api.ts";
import { Button } from "#web/parts/button.tsx";
import { Choice, TextField, Tick } from "#web/parts/field.tsx";
import { Panel } from "#web/parts/page.tsx";
import { copyDay, lessonAt, lessonNames, lessonsIn, paintLessons, withLessons } from "./hours-kinds.ts";
import { PaintedWeek } from "./paint.tsx";
import { Brushes, NoTimes, Picked } from "./picked.tsx";
import { ReadHours } from "./read-hours.tsx";
import type { PartOfWeek } from "./use-week.ts";

const NOTHING = "nothing";

/** What classes have when, and what must not be missed. */
export function TheClasses({ week, change }: PartOfWeek) {
  const school = useAsk(getSchool, {});
  const classes = (school.data?.classes ?? []).filter(({ archived }) => !archived);
  const [picked, setPicked] = useState<string>();
  const [own, setOwn] = useState<readonly string[]>([]);
  const names = [...new Set([...lessonNames(week), ...own])];
  const [brush, setBrush] = useState("");
  const [fresh, setFresh] = useState("");
  const one = classes.find(({ id }) => id === picked) ?? classes[0];
  if (!one) return <p className="text-soft">There is no class yet.</p>;
  const now = brush || names[0] || NOTHING;
  const what = now === NOTHING ? "" : now;
  return (
    <div className="flex flex-col gap-4">
      <Picked label="Classes" list={classes} chosen={one.id} onChoose={setPicked}>
        <Panel title={`What ${one.name} has`}>
          {week.slots.length === 0 ? (
            <NoTimes />
          ) : (
            <>
              <Brushes values={[...names, NOTHING]} brush={now} onChoose={setBrush} />
              <form
                className="mb-2 flex items-end gap-2"
                onSubmit={(event) => {
                  event.preventDefault();
                  const name = fresh.trim();
                  if (name === "") return;
                  setOwn([...own, name]);
                  setBrush(name);
                  setFresh("");
                }}
              >
                <div className="w-44">
                  <TextField
                    label="Another lesson"
                    maxLength={40}
                    value={fresh}
                    onChange={(event) => setFresh(event.target.value)}
                  />
                </div>
                <Button type="submit">Draw with it</Button>
              </form>
              <PaintedWeek
                label={`Lessons of ${one.name}`}
                slots={week.slots}
                valueAt={(slot) => lessonAt(lessonsIn(week, one.id), slot)}
                toneOf={(value) => (value === "" ? "plain" : "on")}
                brush={what}
                cleared=""
                onPaint={(slots, value) =>
                  change((all) => withLessons(all, one.id, paintLessons(lessonsIn(all, one.id), slots, value)))
                }
                onCopyDay={(from, to) =>
                  change((all) => withLessons(all, one.id, copyDay(lessonsIn(all, one.id), from, to)))
                }
              />
              <ReadHours
                what="The class's timetable"
                onRead={(lessons) =>
                  change((all) =>
                    withLessons(
                      all,
                      one.id,
                      lessons.reduce(
                        (list, lesson) => paintLessons(list, [{ ...lesson, id: "" }], lesson.what || "Lesson"),
                        lessonsIn(all, one.id),
                      ),
                    ),
                  )
                }
              />
            </>
          )}
        </Panel>
      </Picked>
      <Rules week={week} change={change} names={names} />
    </div>
  );
}

/** What holds for each lesson, in all classes. */
function Rules({ week, change, names }: PartOfWeek & { names: readonly string[] }) {
  const ruleOf = (what: string) => week.lessons.find((one) => one.what === what) ?? { what, must: false, most: null };
  const put = (rule: ReturnType<typeof ruleOf>) =>
    void change((now) => ({ ...now, lessons: [...now.lessons.filter(({ what }) => what !== rule.what), rule] }));
  return (
    <Panel title="What may be missed">
      {names.length === 0 && <p className="text-soft">No lesson has a name yet.</p>}
      <ul className="grid gap-x-8 gap-y-1 sm:grid-cols-2">
        {names.map((what) => {
          const rule = ruleOf(what);
          return (
            <li key={what} className="flex flex-wrap items-center gap-x-3">
              <span className="w-32 truncate font-semibold">{what}</span>
              <Tick checked={rule.must} onChange={(must) => put({ ...rule, must })}>
                must not be missed
              </Tick>
              {!rule.must && (
                <div className="w-44">
                  <Choice
                    bare
                    label={`How often a child may miss ${what}`}
                    value={rule.most ?? ""}
                    onChange={(event) =>
                      put({ ...rule, most: event.target.value === "" ? null : Number(event.target.value) })
                    }
                  >
                    <option value="">as often as need be</option>
                    <option value="1">once a week</option>
                    <option value="2">twice a week</option>
                    <option value="3">three times a week</option>
                  </Choice>
                </div>
              )}
            </li>
          );
        })}
      </ul>
    </Panel>
  );
}
