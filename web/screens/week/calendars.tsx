import { useState } from "react";
import { addressOf, calendarFile, endFeed, listFeeds, makeFeed } from "#contract";
import { shortDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { toast } from "#web/parts/toast.tsx";

/** One week for calendars outside: a file to keep, and a private address that keeps itself up to date. */
export function Calendars({ whose, name }: { whose: string; name: string }) {
  const [open, setOpen] = useState(false);
  const [made, setMade] = useState("");
  const feeds = useAsk(listFeeds, open ? {} : null);
  const mine = feeds.data?.filter((one) => one.whose === whose) ?? [];
  const doing = async (work: () => Promise<unknown>) => {
    try {
      await work();
      await refreshAll();
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const file = addressOf({ ...calendarFile, method: "GET", answer: calendarFile.params }, { whose });
  return (
    <>
      <Button onClick={() => setOpen(true)}>Calendar …</Button>
      <Sheet
        open={open}
        title={`Calendar of ${name}`}
        onClose={() => {
          setOpen(false);
          setMade("");
        }}
      >
        <p className="mb-3">
          <a href={file} download="week.ics" className="underline underline-offset-4">
            Keep it as a calendar file
          </a>{" "}
          <span className="text-soft">as it is today.</span>
        </p>
        <p className="mb-2">
          A calendar program can also read it under a private address, and follows each change. Whoever has the
          address sees this one week: groups, times, adults and rooms, and children only as far as the settings of the
          week say.
        </p>
        {made ? (
          <div className="mb-3 rounded-md border border-leaf bg-leaf-pale p-3">
            <p className="mb-1 font-semibold">This is shown once. Copy it now.</p>
            <input
              readOnly
              aria-label="Private address"
              value={made}
              className="w-full rounded-md border border-line bg-sheet px-2 py-1.5 text-sm"
              onFocus={(event) => event.target.select()}
            />
            <Button
              className="mt-2"
              onClick={async () => {
                await navigator.clipboard?.writeText(made);
                toast("Copied.");
              }}
            >
              Copy
            </Button>
          </div>
        ) : (
          <Button
            shape="main"
            onClick={() =>
              doing(async () => {
                const { token } = await call(makeFeed, { body: { id: newId(), whose } });
                setMade(`${location.origin}/api/calendar/${token}.ics`);
              })
            }
          >
            Make a private address
          </Button>
        )}
        {mine.length > 0 && (
          <ul className="mt-3 flex flex-col divide-y divide-line">
            {mine.map(({ id, madeAt }) => (
              <li key={id} className="flex items-center justify-between py-1.5">
                <span>An address made {shortDay(dayOfInstant(madeAt), "")}</span>
                <Button onClick={() => doing(() => call(endFeed, { params: { id } }))}>End it</Button>
              </li>
            ))}
          </ul>
        )}
      </Sheet>
    </>
  );
}
