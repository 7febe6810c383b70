import { memo, useCallback, useEffect, useRef, useState } from "react";
import type { TeachMark, TeachOutcome } from "#core/plans";
import { keepKeys } from "#web/device/keys.tsx";
import { Button } from "#web/parts/button.tsx";
import type { TaughtSession } from "./use-teach.ts";

/** More children stand in two columns on a tablet held upright. */
const MOST_IN_A_ROW = 6;

const outcomeSays: Readonly<Record<TeachOutcome, string>> = {
  got: "got it",
  help: "with help",
  notYet: "not yet",
};

interface MarksWanted {
  readonly members: TaughtSession["members"];
  readonly here: readonly string[];
  /** Whose turn it is; null is everyone's. */
  readonly childId: string | null;
  /** Marks on what is asked now. */
  readonly marks: readonly TeachMark[];
  readonly disabled: boolean;
  readonly onMark: (childId: string, outcome: TeachOutcome) => void;
  readonly onHere: (childId: string, here: boolean) => void;
}

/** The children, each with three marks in the same place; whose turn it is stands out. */
export function ChildMarks({ members, here, childId, marks, disabled, onMark, onHere }: MarksWanted) {
  const list = useRef<HTMLUListElement>(null);
  const latest = useRef({ onMark, onHere });
  latest.current = { onMark, onHere };
  const mark = useCallback((id: string, outcome: TeachOutcome) => latest.current.onMark(id, outcome), []);
  const came = useCallback((id: string, isHere: boolean) => latest.current.onHere(id, isHere), []);
  // Where the list scrolls, whose turn it is comes into sight; the page stays.
  // biome-ignore lint/correctness/useExhaustiveDependencies: at each turn
  useEffect(() => {
    const frame = list.current?.parentElement;
    const turn = list.current?.querySelector<HTMLElement>('[aria-current="true"]');
    if (frame && turn && frame.scrollHeight > frame.clientHeight) frame.scrollTop = turn.offsetTop - 8;
  }, [childId]);
  return (
    <ul
      ref={list}
      aria-label="Children"
      className={`flex flex-col gap-1 ${members.length > MOST_IN_A_ROW ? "sm:max-lg:grid sm:max-lg:grid-cols-2" : ""}`}
    >
      {members.map(({ id, name }) => (
        <Row
          key={id}
          {...{ id, name, disabled }}
          isHere={here.includes(id)}
          isTurn={childId === id}
          isAsked={childId === null || childId === id}
          outcome={marks.find((one) => one.childId === id)?.outcome}
          onMark={mark}
          onHere={came}
        />
      ))}
    </ul>
  );
}

interface RowWanted extends Pick<MarksWanted, "disabled" | "onMark" | "onHere"> {
  readonly id: string;
  readonly name: string;
  readonly isHere: boolean;
  readonly isTurn: boolean;
  readonly isAsked: boolean;
  readonly outcome: TeachOutcome | undefined;
}

/** A child with its marks; drawn again only when something of it changed, since a mark is to be seen at once. */
const Row = memo(function Row({
  id,
  name,
  isHere,
  isTurn,
  isAsked,
  outcome: given,
  disabled,
  onMark,
  onHere,
}: RowWanted) {
  return (
    <li
      aria-current={isTurn ? "true" : undefined}
      className={`flex min-h-12 items-center gap-2 rounded-md border px-2 ${isTurn ? "border-leaf bg-leaf-pale" : "border-transparent"}`}
    >
      <label className="flex min-h-11 min-w-0 flex-1 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 shrink-0 accent-leaf"
          checked={isHere}
          aria-label={`${name} is here`}
          onChange={(event) => onHere(id, event.target.checked)}
        />
        <span className={`truncate ${isHere ? (isAsked ? "font-semibold" : "") : "text-soft"}`}>{name}</span>
      </label>
      {isHere &&
        (["got", "help", "notYet"] as const).map((outcome) => (
          <button
            key={outcome}
            type="button"
            disabled={disabled}
            aria-pressed={given === outcome}
            aria-label={`${name}: ${outcomeSays[outcome]}`}
            onMouseDown={keepKeys}
            onClick={() => onMark(id, outcome)}
            className="min-h-11 min-w-[4.25rem] rounded-md border border-line bg-sheet px-1.5 text-sm sm:min-w-[4.75rem] lg:min-w-20 hover:border-ink disabled:text-soft aria-pressed:border-leaf aria-pressed:bg-leaf aria-pressed:text-sheet"
          >
            {outcomeSays[outcome]}
          </button>
        ))}
    </li>
  );
});

/** What was said instead, for the last that was missed; when there is time. */
export function SaidInstead({ name, item, onSaid }: { name: string; item: string; onSaid: (said: string) => void }) {
  const [said, setSaid] = useState("");
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (said.trim()) onSaid(said.trim());
      }}
    >
      <label className="flex min-w-0 flex-1 items-center gap-2 text-sm">
        <span className="text-soft">
          {name} said for {item}
        </span>
        <input
          value={said}
          maxLength={40}
          autoComplete="off"
          onChange={(event) => setSaid(event.target.value)}
          className="min-h-10 min-w-0 flex-1 rounded-md border border-line bg-sheet px-2"
        />
      </label>
      <Button type="submit" disabled={said.trim() === ""}>
        Keep
      </Button>
    </form>
  );
}
