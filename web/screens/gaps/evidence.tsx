import { type Evidence, evidence, type MapOf } from "#contract";
import type { State } from "#core/mastery";
import { findCorrespondence } from "#core/phonics";
import { shortDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Chart } from "#web/parts/chart.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { LeafMark } from "#web/parts/marks.tsx";
import { Trouble, Waiting } from "#web/parts/page.tsx";
import { Judge } from "./judge.tsx";
import { columnName, type GapRow } from "./view.ts";

type Piece = Evidence["pieces"][number];
const percent = (share: number) => Math.round(share * 100);

/** Why one cell is what it is: the chance, what moved it most, how it went over time, and every answer behind it. */
export function EvidenceSheet({
  row,
  gpc,
  of,
  onClose,
}: {
  row: GapRow | undefined;
  gpc: string | undefined;
  of: MapOf;
  onClose: () => void;
}) {
  const { data, error } = useAsk(
    evidence,
    row && gpc ? { params: { id: row.id }, query: { gpc, of: of === "reading" ? undefined : of } } : null,
  );
  if (!row || !gpc) return null;
  const keyword = findCorrespondence(gpc)?.keyword;
  return (
    <Sheet
      open
      onClose={onClose}
      place="side"
      title={`${row.name}: ${columnName(gpc).name}${of === "spelling" ? ", written" : ""}`}
    >
      {keyword && (
        <p className="mb-3 text-soft">
          as in <span className="font-child">{keyword}</span>
        </p>
      )}
      {error && <Trouble error={error} />}
      {!data && !error && <Waiting rows={4} />}
      {data && (
        <>
          <p className="mb-1 flex items-center gap-2 text-lg font-semibold">
            <LeafMark state={data.state as State} chance={data.chance} /> {data.state}
          </p>
          <p className="mb-3">{data.why}</p>
          {of === "reading" && <Judge row={row} gpc={gpc} told={data} />}
          <MovedMost told={data} />
          <OverTime told={data} of={of} />
          <h3 className="mb-1 text-sm font-semibold text-soft">Every answer that spoke of it</h3>
          {data.pieces.length === 0 && <p className="text-soft">No answer yet.</p>}
          <ol className="flex flex-col divide-y divide-line" aria-label="Answers, newest first">
            {together(data.pieces).map((piece) => (
              <li key={piece.id} className="py-1.5">
                <span className="flex justify-between gap-3">
                  <span>{piece.says}</span>
                  <Change piece={piece} />
                </span>
                <span className="block text-sm text-soft">
                  {shortDay(piece.day, todayHere())}, marked by {piece.by}
                  {piece.ms !== null && `, ${(piece.ms / 1000).toFixed(1)} s`}
                </span>
              </li>
            ))}
            {data.takenBack.map((answer) => (
              <li key={answer.id} className="py-1.5 text-soft">
                <span className="line-through">a card</span>
                <span className="block text-sm">
                  {shortDay(answer.day, todayHere())}, marked by {answer.markedBy}, taken back
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

const inText = / in a text$/;
/** So many words of a text are named. */
const NAMED = 4;

/** The words that were read right in one text stand in one line: each says little. */
function together(pieces: readonly Piece[]): readonly Piece[] {
  const lines: Piece[][] = [];
  for (const piece of pieces) {
    const last = lines.at(-1);
    const isSame = last?.[0] && piece.readingId !== null && last[0].readingId === piece.readingId;
    if (isSame && piece.right && last[0]?.right) last.push(piece);
    else lines.push([piece]);
  }
  return lines.flatMap((line) => {
    const [newest, oldest] = [line[0], line.at(-1)];
    if (!newest || !oldest || line.length === 1) return newest ?? [];
    const words = [...new Set(line.map(({ says }) => says.replace(inText, "").replace(/^.* in /, "")))];
    const named = words.slice(0, NAMED).join(", ");
    const says = `read right ${line.length} times in a text: ${named}${words.length > NAMED ? " …" : ""}`;
    return { ...newest, before: oldest.before, says };
  });
}

/** From how much to how much an answer moved the chance. */
function Change({ piece: { before, after } }: { piece: Piece }) {
  return (
    <span className="flex-none text-sm tabular-nums text-soft">
      {percent(before)}% → {percent(after)}%
    </span>
  );
}

/** The few answers that say most, where there are more. */
function MovedMost({ told: { moved, pieces } }: { told: Evidence }) {
  const most = moved.flatMap((id) => pieces.find((piece) => piece.id === id) ?? []);
  if (pieces.length <= most.length) return null;
  return (
    <>
      <h3 className="mb-1 text-sm font-semibold text-soft">What moved it most</h3>
      <ul className="mb-4 flex flex-col gap-1">
        {most.map((piece) => (
          <li key={piece.id} className="flex justify-between gap-3">
            <span>
              {shortDay(piece.day, todayHere())}: {piece.says}
            </span>
            <Change piece={piece} />
          </li>
        ))}
      </ul>
    </>
  );
}

/** The chance after each day on which something spoke of it, and today. */
function OverTime({ told: { pieces, chance, low, high }, of }: { told: Evidence; of: MapOf }) {
  const today = todayHere();
  const byDay = new Map([...pieces].reverse().map((piece) => [piece.day, piece]));
  if (byDay.size < 2) return null;
  const days = [...byDay.values()].filter((piece) => piece.day < today);
  const says = (day: string) => pieces.filter((piece) => piece.day === day).map((piece) => piece.says);
  return (
    <div className="mb-4">
      <Chart
        label={`The chance over time, from ${percent(days[0]?.after ?? chance)}% to ${percent(chance)}% today`}
        places={[...days.map((piece) => shortDay(piece.day, today).replace(/^\w+ /, "")), "today"]}
        series={[
          {
            name: of === "reading" ? "Said at sight" : of === "spelling" ? "Written right" : "Blended right",
            values: [...days.map((piece) => percent(piece.after)), percent(chance)],
            axis: "right",
            as: "line",
          },
        ]}
        band={{
          low: [...days.map((piece) => percent(piece.low)), percent(low)],
          high: [...days.map((piece) => percent(piece.high)), percent(high)],
        }}
        notes={[...days.map((piece) => says(piece.day).join("\n")), says(today).join("\n") || null]}
      />
    </div>
  );
}
