import { showGrapheme, splitGpc } from "#core/phonics";
import type { OpenedFor } from "./learners.ts";

/** Why these targets: the common words that each would open for those who need it. */
export function Opens({ opened }: { opened: readonly OpenedFor[] }) {
  if (opened.length === 0) return null;
  return (
    <div className="mb-2 text-sm text-soft">
      <p>Common words it would open for who needs it:</p>
      {opened.map(({ gpc, words, examples }) => (
        <p key={gpc} className="truncate">
          <span className="font-child text-ink">{showGrapheme(splitGpc(gpc).grapheme)}</span> about {words}
          {examples.length > 0 && (
            <>
              : <span className="font-child">{examples.join(", ")}</span>
            </>
          )}
        </p>
      ))}
    </div>
  );
}
