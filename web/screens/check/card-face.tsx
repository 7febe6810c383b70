import { showGrapheme } from "#core/phonics";

/** A spelling as the child reads it: huge, in Andika, at least 200 px. */
export function CardFace({ grapheme, size }: { grapheme: string; size: string }) {
  return (
    <p
      data-testid="card"
      className="font-child select-none whitespace-nowrap text-center leading-none text-ink"
      style={{ fontSize: `max(200px, ${size})` }}
    >
      {showGrapheme(grapheme)}
    </p>
  );
}
