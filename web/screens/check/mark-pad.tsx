import { type FormEvent, useRef, useState } from "react";
import type { Likely, OneOf, Pad, PadMark, TagChoice } from "#core/checks";
import { isRight, type Outcome, type PlainOutcome, type Tag } from "#core/ledger";
import { useKeys } from "#web/device/keys.tsx";
import { useHand } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { HoldButton } from "./hold.tsx";

export interface Marking {
  /** The item that it is for, where that is not the card's own. */
  readonly item?: string | undefined;
  readonly outcome: Outcome;
  readonly heard: string | null;
  readonly tags: readonly Tag[];
  /** What became of the card's other sounds, in the order in which they were said; those not said come last. */
  readonly rest?: readonly { readonly item: string; readonly outcome: PlainOutcome }[];
}

/** Keys of the likely answers and of what may be seen beside an answer. */
const likelyKeys = ["q", "w", "e", "r", "t", "y", "a", "s", "d"];
const tagKeys = ["z", "x", "c", "f", "g", "h"];

interface PadWanted {
  readonly pad: Pad;
  readonly likely: readonly Likely[];
  /** What is ticked with such a card: sounds that were said, ways that were written. */
  readonly eachTitle: string;
  /** Several answers that are asked for with this card; none where it has one. */
  readonly all: readonly OneOf[];
  /** What the likely answers are: said, written, pointed to. */
  readonly likelyTitle: string;
  /** The likely answers are on the child's side already and need no place here. */
  readonly onFace: boolean;
  readonly tags: readonly TagChoice[];
  readonly onMark: (marking: Marking) => void;
}

/** One key or one large target for each mark, always in the same place; on an upright tablet at the thumb. */
export function MarkPad({ pad, likely, all, eachTitle, likelyTitle, onFace, tags, onMark }: PadWanted) {
  const [typing, setTyping] = useState<PadMark | null>(null);
  const [seen, setSeen] = useState<readonly Tag[]>([]);
  const [hand] = useHand();
  const [said, setSaid] = useState<readonly string[]>([]);
  const mark = (outcome: Outcome, heard: string | null = null, item?: string) =>
    onMark({ item, outcome, heard, tags: seen, ...(all.length > 0 ? ofEach(all, said, outcome) : {}) });
  const say = (item: string) =>
    setSaid((before) => (before.includes(item) ? before.filter((one) => one !== item) : [...before, item]));
  const press = (place: PadMark) => (place.typed ? setTyping(place) : mark(place.outcome));
  const toggle = (tag: Tag) =>
    setSeen((before) => (before.includes(tag) ? before.filter((one) => one !== tag) : [...before, tag]));
  const marks = pad.map((place, at) => ({ ...place, key: String(at + 1) }));
  const others = likely.map((one, at) => ({ ...one, key: likelyKeys[at] ?? "" }));

  useKeys([
    { key: " ", does: pad[0].name, run: () => press(pad[0]) },
    ...marks.map((place) => ({ key: place.key, does: place.name, run: () => press(place) })),
    ...marks.flatMap(({ key, held }) =>
      held ? [{ key: `shift+${key}`, does: held.name, run: () => press(held) }] : [],
    ),
    ...others.map(({ key, heard, shows, outcome, item }) => ({
      key,
      does: `${likelyTitle}: ${shows}`,
      run: () => mark(outcome, outcome === "right" ? null : heard, item),
    })),
    ...all.map(({ item, shows }, at) => ({ key: tagKeys[at] ?? "", does: `Said ${shows}`, run: () => say(item) })),
    ...tags.map(({ tag, name }, at) => ({
      key: tagKeys[all.length + at] ?? "",
      does: name,
      run: () => toggle(tag),
    })),
  ]);

  if (typing)
    return <Typing what={typing} onKeep={(heard) => mark(typing.outcome, heard)} onBack={() => setTyping(null)} />;
  return (
    <div className="flex flex-col gap-2">
      {all.length > 0 && (
        <fieldset
          className={`flex flex-wrap items-center gap-2 ${hand === "left" ? "" : "justify-end lg:justify-start"}`}
        >
          <legend className="sr-only">{eachTitle}</legend>
          <span className="text-sm text-soft" aria-hidden>
            {said.length === 0 ? "All of these, or tick which:" : "These came:"}
          </span>
          {all.map(({ item, shows, hint }, at) => (
            <button
              key={item}
              type="button"
              aria-pressed={said.includes(item)}
              onClick={() => say(item)}
              className={`min-h-12 rounded-full border px-4 ${said.includes(item) ? "border-leaf bg-leaf-pale font-semibold" : "border-line bg-sheet"}`}
            >
              <span className="font-child">{shows}</span> <span className="text-sm text-soft">{hint}</span>{" "}
              <kbd className="text-xs text-soft">{tagKeys[at]?.toUpperCase()}</kbd>
            </button>
          ))}
        </fieldset>
      )}
      {tags.length > 0 && (
        <fieldset className={`flex flex-wrap gap-2 ${hand === "left" ? "" : "justify-end lg:justify-start"}`}>
          <legend className="sr-only">Seen beside the answer</legend>
          {tags.map(({ tag, name }, at) => (
            <button
              key={tag}
              type="button"
              aria-pressed={seen.includes(tag)}
              onClick={() => toggle(tag)}
              className={`min-h-12 rounded-full border px-4 ${seen.includes(tag) ? "border-damson bg-damson-pale font-semibold" : "border-line bg-sheet"}`}
            >
              {name} <kbd className="text-xs text-soft">{tagKeys[all.length + at]?.toUpperCase()}</kbd>
            </button>
          ))}
        </fieldset>
      )}
      <div className={`flex gap-2 lg:flex-col ${hand === "left" ? "flex-row-reverse" : ""}`}>
        {!onFace && others.length > 0 && (
          <fieldset
            className={`flex flex-col justify-end max-lg:w-80 ${hand === "left" ? "max-lg:mr-auto" : "max-lg:ml-auto"}`}
          >
            <legend className="sr-only">{likelyTitle}</legend>
            <p className="mb-1 text-sm text-soft" aria-hidden>
              {likelyTitle}
            </p>
            <div className="grid grid-cols-2 gap-2 lg:grid-cols-6">
              {others.map(({ heard, shows, hint, key, outcome, item }) => (
                <button
                  key={heard}
                  type="button"
                  onClick={() => mark(outcome, outcome === "right" ? null : heard, item)}
                  aria-label={`${likelyTitle}: ${shows}`}
                  className="flex min-h-16 touch-manipulation select-none flex-col items-center justify-center rounded-lg border border-line bg-sheet px-1 text-center leading-tight hover:border-damson lg:min-h-12"
                >
                  <span className="font-child">{shows}</span>
                  <span className="text-xs text-soft">
                    {hint} <kbd>{key.toUpperCase()}</kbd>
                  </span>
                </button>
              ))}
            </div>
          </fieldset>
        )}
        <fieldset
          className={`grid flex-none grid-cols-1 gap-2 max-lg:w-56 lg:w-auto lg:grid-cols-5 ${onFace || others.length === 0 ? (hand === "left" ? "max-lg:mr-auto" : "max-lg:ml-auto") : ""}`}
        >
          <legend className="sr-only">Mark</legend>
          {marks.map((place, at) => (
            <HoldButton
              key={place.key}
              onPress={() => press(place)}
              onHold={place.held ? () => press(place.held as PadMark) : undefined}
              className={`flex min-h-16 flex-col items-center justify-center rounded-xl border px-1 text-center leading-tight lg:min-h-20 ${at === 0 ? "border-leaf bg-leaf font-semibold text-on-leaf" : "border-line bg-sheet hover:border-soft"}`}
            >
              {place.name}
              <span className={`text-xs ${at === 0 ? "" : "text-soft"}`}>
                {place.hint ? `${place.hint} · ` : ""}
                <kbd>{place.key}</kbd>
              </span>
              {place.held && (
                <span className={`text-xs ${at === 0 ? "" : "text-soft"}`}>hold: {lower(place.held.name)}</span>
              )}
            </HoldButton>
          ))}
        </fieldset>
      </div>
    </div>
  );
}

/**
 * What became of each sound of a card that asks for all of them: right where nothing was ticked, else what was ticked; the
 * others were not said. What was said first comes first.
 */
function ofEach(
  all: readonly OneOf[],
  said: readonly string[],
  outcome: Outcome,
): Pick<Marking, "item" | "rest"> & { readonly outcome: Outcome } {
  const right = isRight(outcome);
  const came = right ? (said.length > 0 ? said : all.map(({ item }) => item)) : said;
  const plain: PlainOutcome = outcome === "slow" || outcome === "ownWay" ? outcome : "right";
  const missing = all.flatMap(({ item }) => (came.includes(item) ? [] : [{ item, outcome: "none" as const }]));
  const inOrder = [...came.map((item) => ({ item, outcome: plain })), ...missing];
  // Something else was said: it is the card's own sound that went wrong, whatever else was ticked.
  if (!right) return { item: all[0]?.item, outcome, rest: inOrder.filter(({ item }) => item !== all[0]?.item) };
  const [first, ...rest] = inOrder;
  return { item: first?.item, outcome: first?.outcome ?? outcome, rest };
}

function lower(name: string): string {
  return name.slice(0, 1).toLowerCase() + name.slice(1);
}

function Typing({
  what,
  onKeep,
  onBack,
}: {
  what: PadMark;
  onKeep: (heard: string | null) => void;
  onBack: () => void;
}) {
  const typed = useRef<HTMLInputElement>(null);
  const keep = (event: FormEvent) => {
    event.preventDefault();
    onKeep(typed.current?.value.trim() || null);
  };
  return (
    <form onSubmit={keep} className="mx-auto flex w-full max-w-2xl flex-wrap items-start gap-2 pb-4">
      <div className="min-w-64 flex-1">
        <TextField
          label="What was said or written"
          autoFocus
          autoCapitalize="off"
          autoComplete="off"
          spellCheck={false}
          maxLength={60}
          ref={typed}
          onKeyDown={(event) => event.key === "Escape" && onBack()}
          hint="In plain letters. Enter keeps the mark, also when this is empty; Escape goes back."
        />
      </div>
      <Button type="submit" shape="main" className="mt-[1.6rem]">
        Save as “{lower(what.name)}”
      </Button>
      <Button className="mt-[1.6rem]" onClick={onBack}>
        Back
      </Button>
    </form>
  );
}
