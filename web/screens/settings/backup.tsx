import { backupFile, type School } from "#contract";
import { shortDay } from "#core/saying";
import { dayOfInstant } from "#web/device/clock.ts";
import { Panel } from "#web/parts/page.tsx";

/** Days after which a backup is old. */
const OLD_DAYS = 14;

/** When the school was last backed up, and a file of all of it to keep elsewhere. */
export function BackupPanel({ school }: { school: School }) {
  const made = school.backedUpAt;
  const days =
    made === null ? null : Math.floor((Date.parse(school.today) - Date.parse(dayOfInstant(made))) / 86_400_000);
  return (
    <Panel title="Backup">
      <p className="mb-1">
        {made === null
          ? "No backup has been made yet."
          : `The last backup was made on ${shortDay(dayOfInstant(made), school.today)}.`}
        {days !== null && days > OLD_DAYS && ` That is ${days} days ago: what came since is on this machine alone.`}
      </p>
      <p className="mb-3 text-sm text-soft">
        One file with everything of the school. It names children: keep it where the school keeps such things, and not
        on this machine's disk. The command <code>npm run restore</code> puts it back. Children who were erased stay
        in files that were made before.
      </p>
      <a
        href={backupFile.path}
        download
        className="inline-flex min-h-9 items-center rounded-md border border-line bg-sheet px-3 hover:bg-leaf-pale"
      >
        Download a backup
      </a>
    </Panel>
  );
}
