import { useState } from "react";
import type { z } from "zod";
import { findModel, getSchool, type OwnModel, setModel } from "#contract";
import { LEAST_TO_REFIT } from "#core/mastery";
import { plural, shortDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { todayHere } from "#web/device/clock.ts";
import { Button } from "#web/parts/button.tsx";
import { Panel } from "#web/parts/page.tsx";
import { type Column, Table } from "#web/parts/table.tsx";
import { toast } from "#web/parts/toast.tsx";

type Found = z.infer<typeof findModel.answer>;
type Change = Found["changes"][number];

/**
 * The numbers that the model goes by: those that ship, or the school's own, found from its answers. Nothing changes until the
 * lead has seen both side by side, and it can be taken back.
 */
export function OwnNumbers({ own, answers }: { own: OwnModel | null; answers: number }) {
  const school = useAsk(getSchool, {});
  const [found, setFound] = useState<Found | null>(null);
  const [busy, setBusy] = useState(false);
  const look = async () => {
    setBusy(true);
    try {
      setFound(await call(findModel, {}));
    } catch (error) {
      toast.error(wordsOfError(error));
    } finally {
      setBusy(false);
    }
  };
  const keep = async (model: OwnModel | null) => {
    if (!school.data) return;
    setBusy(true);
    try {
      await saveOver({
        content: { model },
        onto: school.data.version,
        send: (content, version) => call(setModel, { body: { ...content, version } }),
        says: (one) => ({ "The model goes by": one.model ? "numbers of the school's own" : "what ships" }),
      });
      setFound(null);
      await refreshAll();
      toast(model ? "Kept. All maps go by them from now on." : "The model goes by what ships again.");
    } catch (error) {
      toast.error(wordsOfError(error));
    } finally {
      setBusy(false);
    }
  };
  const enough = answers >= LEAST_TO_REFIT;
  return (
    <Panel title="Numbers of this school's own">
      <p className="max-w-prose">
        {own
          ? `The model goes by numbers that were found on ${shortDay(own.foundOn, todayHere())} from ${plural(own.answers, "answer")} of ${plural(own.children, "child", "children")} of this school.`
          : "The model goes by the numbers that ship: how hard a spelling is, how fast it fades, how often a child slips."}{" "}
        {enough
          ? "They can be looked for in this school's own answers. Nothing changes until you have seen both and agree."
          : `From ${LEAST_TO_REFIT} answers to cards on they can be looked for in the school's own; there are ${answers}.`}
      </p>
      <p className="mt-3 flex flex-wrap gap-2">
        <Button disabled={busy || !enough || found !== null} onClick={() => void look()}>
          {busy && !found ? "Looking, a minute at most …" : own ? "Look again" : "Look for numbers of our own"}
        </Button>
        {own && (
          <Button disabled={busy} onClick={() => void keep(null)}>
            Go by what ships again
          </Button>
        )}
      </p>
      {found && (
        <Proposal found={found} busy={busy} onKeep={() => void keep(modelOf(found))} onLeave={() => setFound(null)} />
      )}
    </Panel>
  );
}

function modelOf({ changes: _, ...model }: Found): OwnModel {
  return model;
}

const columns: readonly Column<Change>[] = [
  { title: "Number", names: true, show: ({ means }) => means },
  { title: "Now", figures: true, show: ({ from }) => from },
  { title: "Found", figures: true, show: ({ to }) => to },
];

/** Now and found side by side, on answers that were kept aside. */
function Proposal({
  found,
  busy,
  onKeep,
  onLeave,
}: {
  found: Found;
  busy: boolean;
  onKeep: () => void;
  onLeave: () => void;
}) {
  const { asNow, asFound, changes, answers } = found;
  const better = asFound.logLoss < asNow.logLoss && changes.length > 0;
  return (
    <div className="mt-4" role="status">
      <p className="mb-2 font-semibold">
        {changes.length === 0
          ? "Nothing better was found: the numbers stay as they are."
          : better
            ? `On answers that were kept aside, what was found is less surprised: ${asFound.logLoss.toFixed(3)}, where it is ${asNow.logLoss.toFixed(3)} now; error ${asFound.brier.toFixed(3)} and ${asNow.brier.toFixed(3)}.`
            : `On answers that were kept aside, what was found is no better (${asFound.logLoss.toFixed(3)}, now ${asNow.logLoss.toFixed(3)}). Leave it as it is.`}
      </p>
      {changes.length > 0 && (
        <details>
          <summary className="cursor-pointer py-1">{plural(changes.length, "number")} would be other</summary>
          <Table label="Numbers that would be other" rows={changes} rowKey={({ name }) => name} columns={columns} />
        </details>
      )}
      <p className="mt-3 flex flex-wrap items-center gap-2">
        {better && (
          <Button shape="main" disabled={busy} onClick={onKeep}>
            Go by these
          </Button>
        )}
        <Button onClick={onLeave}>Leave it as it is</Button>
        <span className="text-sm text-soft">
          Fitted to two children of three, {plural(answers, "answer")} in all.
        </span>
      </p>
    </div>
  );
}
