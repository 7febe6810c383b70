import { ArrowDown, ArrowUp, Pencil, RefreshCw, X } from "lucide-react";
import { useState } from "react";
import type { PlanBody } from "#contract";
import { correspondences, type Gpc, showGrapheme } from "#core/phonics";
import { hasMarks, kindsOfPart, readOf } from "#core/plans";
import { judgeText, judgeWord, type TaughtReader, type WordVerdict } from "#core/words";
import { Button } from "#web/parts/button.tsx";
import { TextArea, TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { BracketWord, Spelling } from "#web/parts/marks.tsx";
import { Fault } from "#web/parts/page.tsx";
import { SpellingRow } from "#web/parts/spelling-row.tsx";
import { TextItem } from "./text-item.tsx";

type Part = PlanBody["parts"][number];

interface PartWanted {
  readonly part: Part;
  /** What it is called among the parts of its session. */
  readonly name: string;
  /** A child by its id, where each has cards of its own. */
  readonly nameOf: (id: string) => string;
  /** Missing until the lexicon has arrived; nothing is judged till then. */
  readonly reader: TaughtReader | undefined;
  readonly onChange: (part: Part) => Promise<boolean>;
  /** Fills it with others; missing where there is nothing to choose. */
  readonly onOthers?: (() => Promise<unknown>) | undefined;
  /** Gives it another place in the session; missing at its ends. */
  readonly onEarlier?: (() => void) | undefined;
  readonly onLater?: (() => void) | undefined;
  /** Missing where it is the only one. */
  readonly onRemove?: (() => void) | undefined;
}

const everySpelling: readonly Gpc[] = correspondences
  .map((entry) => entry.gpc)
  .sort((one, other) => one.localeCompare(other));
type What = (typeof kindsOfPart)[Part["kind"]]["items"];
/** Of words no one judges those that are none, and those that are only heard. */
function whatOf(kind: Part["kind"]): What {
  return kind === "madeUp" ? "spoken" : kindsOfPart[kind].items;
}

/** One part of the plan: read it, or edit its minutes and its lines. */
export function PartEditor({
  part,
  name,
  nameOf,
  reader,
  onChange,
  onOthers,
  onEarlier,
  onLater,
  onRemove,
}: PartWanted) {
  const [editing, setEditing] = useState(false);
  return (
    <section className="border-b border-line px-4 py-3 last:border-b-0" aria-label={name}>
      <header className="flex items-baseline justify-between gap-3">
        <h2 className="text-base">
          {kindsOfPart[part.kind].title} <span className="font-normal text-soft">{part.minutes} min</span>
        </h2>
        {!editing && onOthers && (
          <Button shape="quiet" className="-my-1 ml-auto" aria-label={`Others for ${name}`} onClick={onOthers}>
            <RefreshCw size={14} aria-hidden /> Others
          </Button>
        )}
        {!editing && (
          <Button shape="quiet" className="-my-1" aria-label={`Edit ${name}`} onClick={() => setEditing(true)}>
            <Pencil size={14} aria-hidden /> Edit
          </Button>
        )}
      </header>
      <p className="text-soft">{part.how}</p>
      {editing ? (
        <Editing {...{ part, reader, onChange, onEarlier, onLater, onRemove }} onClose={() => setEditing(false)} />
      ) : (
        <Items part={part} nameOf={nameOf} reader={reader} />
      )}
    </section>
  );
}

function Items({ part, nameOf, reader }: Pick<PartWanted, "part" | "nameOf" | "reader">) {
  const what = whatOf(part.kind);
  if (part.items.length === 0) return <p className="mt-1 text-soft">Nothing here yet.</p>;
  if (part.each && part.each.length > 0)
    return (
      <ul className="mt-1.5 flex flex-col gap-1">
        {part.each.map(({ childId, items }) => (
          <li key={childId} className="flex flex-wrap items-center gap-1.5">
            <span className="w-20 truncate text-sm">{nameOf(childId)}</span>
            {items.map((gpc) => (
              <Spelling key={gpc} gpc={gpc} />
            ))}
          </li>
        ))}
      </ul>
    );
  if (what === "spellings") {
    return (
      <p className="mt-1.5 flex flex-wrap gap-1.5">
        {part.items.map((gpc) => (
          <Spelling key={gpc} gpc={gpc} />
        ))}
      </p>
    );
  }
  if (part.kind === "exceptionWords")
    return (
      <p className="mt-1 flex flex-wrap gap-x-6 gap-y-1 font-child text-xl">
        {part.items.map((word) => (
          <ExceptionWord key={word} word={word} reader={reader} />
        ))}
      </p>
    );
  if (what === "spoken")
    return (
      <p className="mt-1 flex flex-wrap gap-x-6 gap-y-1 font-child text-xl">
        {part.items.map((item) => (
          <span key={item}>{item}</span>
        ))}
      </p>
    );
  if (part.kind === "text") return part.items.map((title) => <TextItem key={title} title={title} />);
  if (what === "lines") {
    return (
      <div className="mt-1">
        {part.items.map((sentence) => (
          <div key={sentence}>
            <p className="font-child text-xl">{sentence}</p>
            {reader && <Verdicts verdicts={judgeText(readOf(part.kind, sentence), reader)} />}
          </div>
        ))}
      </div>
    );
  }
  const verdicts = reader ? part.items.map((word) => judgeWord(word, reader)) : [];
  return (
    <div className="mt-1">
      <p className="flex flex-wrap gap-x-6 gap-y-1 text-xl">
        {!reader &&
          part.items.map((word) => (
            <span key={word} className="font-child">
              {word}
            </span>
          ))}
        {reader &&
          !hasMarks(part) &&
          part.items.map((word, at) => (
            <span
              key={word}
              className={`font-child ${verdicts[at]?.verdict === "not yet" ? "rounded bg-damson-pale px-1" : ""}`}
            >
              {word}
            </span>
          ))}
        {(hasMarks(part) ? verdicts : []).map((verdict) => (
          <span key={verdict.text} className={verdict.verdict === "not yet" ? "rounded bg-damson-pale px-1" : ""}>
            <BracketWord text={verdict.text} units={verdict.reading.units} unexpected={verdict.unexpected} />
          </span>
        ))}
      </p>
      <Verdicts verdicts={verdicts} />
    </div>
  );
}

/** An exception word with a wavy bracket under what these children would not expect. */
function ExceptionWord({ word, reader }: { word: string; reader: TaughtReader | undefined }) {
  const read = reader && judgeWord(word, reader);
  return read ? (
    <BracketWord text={word} units={read.reading.units} unexpected={read.unexpected} />
  ) : (
    <span>{word}</span>
  );
}

/** What stands in the way of which word, and which words no one has split yet. */
function Verdicts({ verdicts }: { verdicts: readonly WordVerdict[] }) {
  const broken = verdicts.filter((verdict) => verdict.verdict === "not yet");
  const guessed = verdicts.filter((verdict) => verdict.source === "rules" && verdict.verdict !== "not yet");
  if (broken.length === 0 && guessed.length === 0) return null;
  return (
    <ul className="mt-1 text-sm">
      {broken.map((verdict) => (
        <li key={verdict.text} className="text-damson">
          “{verdict.text}” has{" "}
          {verdict.unexpected.map((at) => showGrapheme(verdict.reading.units[at]?.grapheme ?? "")).join(", ")}, which
          not all of them can read
        </li>
      ))}
      {guessed.length > 0 && (
        <li className="text-soft">
          Not in the word list, split by rule, worth a look: {guessed.map((verdict) => verdict.text).join(", ")}
        </li>
      )}
    </ul>
  );
}

function Editing({
  part,
  reader,
  onClose,
  onChange,
  onEarlier,
  onLater,
  onRemove,
}: Pick<PartWanted, "part" | "reader" | "onChange" | "onEarlier" | "onLater" | "onRemove"> & {
  onClose: () => void;
}) {
  const { title } = kindsOfPart[part.kind];
  const [marks, setMarks] = useState(hasMarks(part));
  const [minutes, setMinutes] = useState(String(part.minutes));
  const what = whatOf(part.kind);
  const byLine = what === "lines" || part.kind === "hear";
  const first = part.items.join(byLine ? "\n" : " ");
  const [text, setText] = useState(first);
  const spelled = what === "spellings";
  const [gpcs, setGpcs] = useState<readonly Gpc[]>(part.items);
  const changed = spelled ? gpcs.join() !== part.items.join() : text !== first;
  const written = [
    ...new Set(
      byLine
        ? text
            .split("\n")
            .map((line) => line.trim())
            .filter(Boolean)
        : text.split(/[\s,;]+/).filter(Boolean),
    ),
  ];
  const isDirty = changed || marks !== hasMarks(part) || minutes !== String(part.minutes);
  useUnsaved(isDirty);
  const items = spelled ? gpcs : written;
  const problem = items.some((item) => item.length > 200)
    ? "At most 200 characters a line."
    : items.length > 40
      ? "At most 40 entries."
      : undefined;
  const save = async () => {
    const whole = Math.max(0, Math.min(60, Math.round(Number(minutes)) || 0));
    // Cards that were changed by hand are for all of them.
    const { each, ...others } = part;
    const kept = each && !changed ? { each } : {};
    const marked = marks === hasMarks(part) ? {} : { marks };
    if (await onChange({ ...others, ...kept, ...marked, minutes: whole, items: [...items] })) onClose();
  };
  const verdicts =
    spelled || what === "spoken" || part.kind === "exceptionWords" || !reader
      ? []
      : byLine
        ? items.flatMap((line) => judgeText(readOf(part.kind, line), reader))
        : items.map((word) => judgeWord(word, reader));
  return (
    <div className="mt-2 flex flex-col gap-2">
      {spelled ? (
        <div role="group" aria-label="Spellings of this part">
          <SpellingRow
            gpcs={gpcs}
            options={[...everySpelling, ...(reader?.lexicon.ownUnits ?? [])]}
            label={`Add a spelling to ${kindsOfPart[part.kind].title}`}
            outOf="this part"
            onChange={setGpcs}
          />
          <Fault>{problem}</Fault>
        </div>
      ) : (
        <TextArea
          label={
            part.kind === "sentence" ? "Sentences, one a line" : byLine ? "One a line" : "Words, with a space between"
          }
          rows={2}
          autoFocus
          value={text}
          problem={problem}
          onChange={(event) => setText(event.target.value)}
          className="font-child"
        />
      )}
      <Verdicts verdicts={verdicts} />
      <div className="flex items-end gap-2">
        <div className="w-24">
          <TextField
            label="Minutes"
            type="number"
            min={0}
            max={60}
            value={minutes}
            onChange={(event) => setMinutes(event.target.value)}
          />
        </div>
        <Button shape="main" disabled={problem !== undefined} onClick={save}>
          Save
        </Button>
        <Button onClick={onClose}>Leave as it was</Button>
        {kindsOfPart[part.kind].items === "words" && part.kind !== "madeUp" && (
          <label className="flex min-h-9 items-center gap-2 text-sm">
            <input
              type="checkbox"
              className="size-4 accent-leaf"
              checked={marks}
              onChange={(event) => setMarks(event.target.checked)}
            />
            marks under the sounds
          </label>
        )}
        <span className="ml-auto flex">
          <Button
            shape="quiet"
            className="px-1.5"
            disabled={isDirty || !onEarlier}
            aria-label={`${title} earlier`}
            onClick={onEarlier}
          >
            <ArrowUp size={16} aria-hidden />
          </Button>
          <Button
            shape="quiet"
            className="px-1.5"
            disabled={isDirty || !onLater}
            aria-label={`${title} later`}
            onClick={onLater}
          >
            <ArrowDown size={16} aria-hidden />
          </Button>
          <Button
            shape="quiet"
            className="px-1.5"
            disabled={isDirty || !onRemove}
            aria-label={`Take ${title} out`}
            onClick={onRemove}
          >
            <X size={16} aria-hidden />
          </Button>
        </span>
      </div>
    </div>
  );
}
