import { useState } from "react";
import { type AnswerBody, type Evidence, saveAnswers } from "#contract";
import { asJudged } from "#core/ledger";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { stampNow, todayHere } from "#web/device/clock.ts";
import { newId, useMarker } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import type { GapRow } from "./view.ts";

/**
 * The teacher knows better: that a spelling is known, or that it is not. It goes into the log as evidence with her name, and
 * can be taken back like a mark.
 */
export function Judge({ row, gpc, told }: { row: GapRow; gpc: string; told: Evidence }) {
  const [marker] = useMarker();
  const [busy, setBusy] = useState(false);
  const send = async (entry: object) => {
    const mark = {
      id: newId(),
      childId: row.id,
      markedAt: stampNow(),
      day: todayHere(),
      markedBy: marker.trim() || "Teacher",
      ...entry,
    } as AnswerBody;
    const { fates } = await call(saveAnswers, { body: { answers: [mark] } });
    const says = fates[0]?.says;
    if (says) throw new Error(says);
    await refreshAll();
    return mark.id;
  };
  const judge = async (knows: boolean) => {
    setBusy(true);
    try {
      const outcome = knows ? "right" : "none";
      const id = await send({ ...asJudged("card"), item: gpc, ms: null, pass: 1, tags: [], outcome });
      toastWithUndo(
        knows ? "Kept: you know that it is known." : "Kept: you know that it is not known yet.",
        async () => {
          try {
            await send({ outcome: "void", voids: id });
          } catch (error) {
            toast.error(wordsOfError(error));
          }
        },
      );
    } catch (error) {
      toast.error(`${wordsOfError(error)} Nothing was kept.`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="mb-4 rounded-md border border-line px-3 py-2">
      <p className="mb-2 text-sm text-soft">
        You know better? It counts as evidence under your name, until an answer goes against it, and wears off in some
        weeks.
      </p>
      <div className="flex flex-wrap gap-2">
        {told.judged !== true && (
          <Button disabled={busy} onClick={() => void judge(true)}>
            I know it is known
          </Button>
        )}
        {told.judged !== false && (
          <Button disabled={busy} onClick={() => void judge(false)}>
            I know it is not
          </Button>
        )}
      </div>
    </div>
  );
}
