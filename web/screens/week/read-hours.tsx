import { getSchool } from "#contract";
import { type Lesson, mondayOf } from "#core/groups";
import { plural } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { ReadFile } from "./read-file.tsx";
import { useWeekOffPage } from "./use-week.ts";

/** Weeks that a calendar file is looked at. */
const WEEKS = 4;

/** Hours from a file: a table of day, from, to, what, or a calendar. */
export function ReadHours({ what, onRead }: { what: string; onRead: (lessons: readonly Lesson[]) => unknown }) {
  const offPage = useWeekOffPage();
  const school = useAsk(getSchool, {});
  return (
    <ReadFile
      label={`${what}, as a file`}
      hint="A table with day, from, to and what, or a calendar file (.ics). Of a calendar counts what is in at least two of the next four weeks."
      onRead={async (text) => {
        if (!school.data) return undefined;
        const { timeZone, today } = school.data;
        const found = await offPage.ask((worker) =>
          worker.readHours(text, { zone: timeZone, from: mondayOf(today), weeks: WEEKS }),
        );
        if (found.lessons.length > 0) await onRead(found.lessons);
        return { says: `${plural(found.lessons.length, "time")} read.`, leftOut: found.leftOut };
      }}
    />
  );
}
