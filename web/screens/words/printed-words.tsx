import type { WordVerdict } from "#core/words";
import { BracketWord } from "#web/parts/marks.tsx";
import { Picture } from "#web/parts/picture.tsx";

export type Layout = "cards" | "pictures" | "sheet";

/** Words on paper: eight large cards a page to cut out, or a sheet of columns with brackets. */
export function PrintedWords({
  title,
  words,
  layout,
  pictures,
}: {
  title: string;
  words: readonly WordVerdict[];
  layout: Layout;
  /** Pictures of words, as signs of the picture font or addresses of our own; cards have them where that is asked for. */
  pictures: Readonly<Record<string, string>>;
}) {
  if (layout !== "sheet") {
    return (
      <div className="only-print grid grid-cols-2" aria-hidden>
        {words.map((word) => (
          <p
            key={word.text}
            className="flex h-[6.4cm] break-inside-avoid flex-col items-center justify-center border border-dashed border-line font-child text-[42pt]"
          >
            {layout === "pictures" && pictures[word.text.toLowerCase()] && (
              <Picture of="" picture={pictures[word.text.toLowerCase()] ?? ""} />
            )}
            {word.text}
          </p>
        ))}
      </div>
    );
  }
  return (
    <div className="only-print" aria-hidden>
      <h1 className="mb-6 border-b border-ink pb-2">{title}</h1>
      <ul className="columns-3 text-[22pt]">
        {words.map((word) => (
          <li key={word.text} className="mb-4 break-inside-avoid">
            <BracketWord text={word.text} units={word.reading.units} unexpected={word.unexpected} />
          </li>
        ))}
      </ul>
    </div>
  );
}
