import { evidence } from "#contract";
import { isGiven } from "#core/ledger";
import type { State } from "#core/mastery";
import { findCorrespondence, ipa, plainSound, showGrapheme, splitGpc } from "#core/phonics";
import { shortDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { LeafMark } from "#web/parts/marks.tsx";
import { Trouble, Waiting } from "#web/parts/page.tsx";
import type { GapRow } from "./view.ts";

const words: Record<string, string> = {
  right: "right at once",
  slow: "right, slow",
  ownWay: "right, in their own way",
  wrong: "wrong",
  none: "no answer",
};

/** Every answer behind one cell, with its date and who marked it. */
export function EvidenceSheet({
  row,
  gpc,
  onClose,
}: {
  row: GapRow | undefined;
  gpc: string | undefined;
  onClose: () => void;
}) {
  const { data, error } = useAsk(evidence, row && gpc ? { params: { id: row.id }, query: { gpc } } : null);
  if (!row || !gpc) return null;
  const { grapheme, sound } = splitGpc(gpc);
  return (
    <Sheet open onClose={onClose} place="side" title={`${row.name}: ${showGrapheme(grapheme)} ${ipa(sound)}`}>
      <p className="mb-3 text-soft">
        as in <span className="font-child">{findCorrespondence(gpc)?.keyword}</span>
      </p>
      {error && <Trouble error={error} />}
      {!data && !error && <Waiting rows={4} />}
      {data && (
        <>
          <p className="mb-1 flex items-center gap-2 text-lg font-semibold">
            <LeafMark state={data.state as State} /> {data.state}
          </p>
          <p className="mb-4">{data.why}</p>
          {data.answers.length === 0 && <p className="text-soft">No answer yet.</p>}
          <ol className="flex flex-col divide-y divide-line" aria-label="Answers, newest first">
            {data.answers.map(({ answer, voided }) => (
              <li key={answer.id} className={`py-1.5 ${voided ? "text-soft line-through" : ""}`}>
                <span className="font-semibold">{words[answer.outcome]}</span>
                {answer.outcome === "wrong" && answer.heard && <>, said “{plainSound(answer.heard)}”</>}
                <span className="block text-sm text-soft">
                  {shortDay(answer.day, todayHere())}, marked by {answer.markedBy}
                  {isGiven(answer) && answer.ms !== null && `, ${(answer.ms / 1000).toFixed(1)} s`}
                  {isGiven(answer) && answer.pass > 1 && `, round ${answer.pass}`}
                  {isGiven(answer) && answer.source.kind === "session" && ", in a session"}
                  {voided && ", taken back"}
                </span>
              </li>
            ))}
          </ol>
          <div className="mt-4 flex gap-2">
            <ButtonLink to={`/check?child=${row.id}`}>Check this child</ButtonLink>
            <ButtonLink to={`/child/${row.id}`}>All about this child</ButtonLink>
          </div>
        </>
      )}
    </Sheet>
  );
}
