import { useId, useState } from "react";
import { wordsOfError } from "#web/device/api.ts";
import { toast } from "#web/parts/toast.tsx";

/** What came of a file, in a sentence, and what was left out of it. */
export interface FileTold {
  readonly says: string;
  readonly leftOut: readonly string[];
}

/** Lines that are told of what was left out. */
const MOST_TOLD = 20;

/** A table or a calendar file that someone brings. What could not be read is told; the rest is taken. */
export function ReadFile({
  label,
  hint,
  onRead,
}: {
  label: string;
  hint: string;
  /** Undefined where nothing can be said yet. */
  onRead: (text: string) => Promise<FileTold | undefined>;
}) {
  const field = useId();
  const [told, setTold] = useState<FileTold>();
  const read = async (file: File | undefined) => {
    if (!file) return;
    try {
      setTold(await onRead(await file.text()));
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <div className="mt-3 border-t border-line pt-3">
      <label htmlFor={field} className="text-sm font-semibold">
        {label}
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
      <p className="mt-1 text-sm text-soft">{hint}</p>
      {told && (
        <div role="status" className="mt-2 text-sm">
          <p>{told.says}</p>
          {told.leftOut.length > 0 && (
            <ul className="mt-1 list-disc pl-5 text-soft">
              {told.leftOut.slice(0, MOST_TOLD).map((one) => (
                <li key={one}>{one}</li>
              ))}
            </ul>
          )}
        </div>
      )}
    </div>
  );
}
