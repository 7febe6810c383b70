import { type MouseEvent, memo } from "react";

interface WordWanted {
  readonly at: number;
  readonly text: string;
  /** What stands right before it. */
  readonly opens: string;
  readonly after: string;
  readonly signs: string;
  readonly wrong: boolean;
  readonly current: boolean;
  readonly behind: boolean;
  /** It stands in the line that the child sees. */
  readonly lit: boolean;
  readonly onTap: (at: number) => void;
  /** Keeps the keys of the page where they are when it is pressed. */
  readonly onMouseDown: (event: MouseEvent) => void;
}

/** One word as a target; a long text stays smooth, since only the words that changed are drawn again. */
export const Word = memo(function Word({
  at,
  text,
  opens,
  after,
  signs,
  wrong,
  current,
  behind,
  lit,
  onTap,
  onMouseDown,
}: WordWanted) {
  // What opens the next line stands there, not at the end of this one.
  const [ends = "", ...next] = after.split("\n");
  return (
    <>
      <span className="whitespace-nowrap">
        {opens}
        <button
          type="button"
          data-word={at}
          aria-current={current || undefined}
          onClick={() => onTap(at)}
          onMouseDown={onMouseDown}
          className={`relative rounded px-0.5 py-2 leading-tight touch-manipulation ${wrong ? "bg-damson-pale" : signs ? "bg-leaf-pale" : ""} ${current ? "outline-2 outline-damson" : ""} ${behind ? "text-soft" : ""} ${lit ? "underline decoration-leaf decoration-2 underline-offset-[0.35em]" : ""}`}
        >
          {text}
          {signs && (
            <span
              className="absolute -top-[0.85em] left-0 whitespace-nowrap font-sans text-[0.55em] leading-none"
              aria-hidden
            >
              {signs}
            </span>
          )}
          {signs && <span className="sr-only">, marked</span>}
        </button>
      </span>
      {ends}
      {next.length > 0 && <br />}
      {next.length > 1 && <span className="block h-3" />}
      {next.at(-1)}
    </>
  );
});
