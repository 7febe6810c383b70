import { useId, useState } from "react";
import { getSchool } from "#contract";
import { type HoursRead, type Lesson, mondayOf } from "#core/groups";
import { plural } from "#core/saying";
import { useAsk, wordsOfError } from "#web/device/api.ts";
import { toast } from "#web/parts/toast.tsx";
import { useWeekWorker } from "./use-week.ts";

/** Weeks that a calendar file is looked at. */
const WEEKS = 4;

/** Hours from a file: a table of day, from, to, what, or a calendar. What could not be read is told; the rest is drawn. */
export function ReadHours({ what, onRead }: { what: string; onRead: (lessons: readonly Lesson[]) => unknown }) {
  const worker = useWeekWorker();
  const school = useAsk(getSchool, {});
  const field = useId();
  const [told, setTold] = useState<HoursRead>();
  const read = async (file: File | undefined) => {
    if (!file || !school.data) return;
    try {
      const { timeZone, today } = school.data;
      const found = await worker().readHours(await file.text(), {
        zone: timeZone,
        from: mondayOf(today),
        weeks: WEEKS,
      });
      setTold(found);
      if (found.lessons.length > 0) await onRead(found.lessons);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <div className="mt-3 border-t border-line pt-3">
      <label htmlFor={field} className="text-sm font-semibold">
        {what}, as a file
      </label>
      <input
        id={field}
        type="file"
        accept=".csv,.txt,.tsv,.ics,text/csv,text/calendar"
        className="mt-1 block text-sm"
        onChange={(event) => {
          void read(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      <p className="mt-1 text-sm text-soft">
        A table with day, from, to and what, or a calendar file (.ics). Of a calendar counts what is in at least two
        of the next four weeks.
      </p>
      {told && (
        <div role="status" className="mt-2 text-sm">
          <p>{plural(told.lessons.length, "time")} read.</p>
          {told.leftOut.length > 0 && (
            <ul className="mt-1 list-disc pl-5 text-soft">
              {told.leftOut.slice(0, 20).map((one) => (
                <li key={one}>{one}</li>
              ))}
            </ul>
          )}
        </div>
      )}
    </div>
  );
}
