import { Printer, X } from "lucide-react";
import { useEffect, useState } from "react";
import { showGrapheme } from "#core/phonics";
import { plural } from "#core/saying";
import {
  judgeWord,
  type KnownBy,
  type Lexicon,
  meaningFor,
  showMeaning,
  type TaughtReader,
  type WordVerdict,
} from "#core/words";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { BracketWord } from "#web/parts/marks.tsx";
import { loadPictures } from "#web/parts/pictures.ts";
import { IntoSession } from "./into-session.tsx";
import { ListActions } from "./list-actions.tsx";
import { type Layout, PrintedWords } from "./printed-words.tsx";

const none = {};

interface WordListWanted {
  /** What the list is, for the file's name and the head of the sheet: `Words with ea`. */
  readonly title: string;
  /** The list as it was made; a new one replaces what was edited. */
  readonly words: readonly string[];
  readonly reader: TaughtReader;
  /** Up to which age its readers know words; what is beyond it is named. */
  readonly age?: KnownBy;
  readonly meanings?: Readonly<Record<string, string>>;
  /** Pictures of words, for cards. */
  readonly pictures?: Readonly<Record<string, string>>;
  /** Words made up on purpose are not told that they are missing in the word list. */
  readonly madeUp?: boolean;
}

/** A list of words with live checks, to edit, copy, print, save and take into a session. */
export function WordList({
  title,
  words,
  reader,
  age = 12,
  meanings = {},
  pictures = none,
  madeUp = false,
}: WordListWanted) {
  const [list, setList] = useState(words);
  const [made, setMade] = useState(words);
  const [typed, setTyped] = useState("");
  const [printing, setPrinting] = useState<Layout | null>(null);
  const [session, setSession] = useState(false);
  if (made !== words) {
    setMade(words);
    setList(words);
  }
  useEffect(() => {
    if (!printing) return;
    const signs = printing === "pictures" ? list.flatMap((word) => pictures[word.toLowerCase()] ?? []) : [];
    // Without its font a picture would come in the colours of the device.
    void loadPictures(signs).then(() => {
      window.print();
      setPrinting(null);
    });
  }, [printing, list, pictures]);
  const verdicts = list.map((word) => judgeWord(word, reader));
  const add = () => {
    const fresh = typed.split(/[\s,;]+/).filter((word) => /\p{L}/u.test(word) && !list.includes(word));
    setList([...list, ...fresh]);
    setTyped("");
  };
  return (
    <section aria-label={title} className="rounded-lg border border-line bg-sheet">
      <ul
        className="no-print flex flex-wrap gap-x-3 gap-y-2 px-4 py-4 text-2xl"
        aria-label={`${title}: ${plural(list.length, "word")}`}
      >
        {verdicts.map((verdict, at) => (
          <li key={verdict.text} className="group flex items-center">
            <span className={verdict.verdict === "not yet" ? "rounded bg-damson-pale px-1" : ""}>
              <BracketWord text={verdict.text} units={verdict.reading.units} unexpected={verdict.unexpected} />
            </span>
            <button
              type="button"
              aria-label={`Take out ${verdict.text}`}
              className="rounded p-1 text-soft opacity-60 hover:bg-leaf-pale hover:opacity-100 focus-visible:opacity-100"
              onClick={() => setList(list.filter((_, i) => i !== at))}
            >
              <X size={14} aria-hidden />
            </button>
          </li>
        ))}
        {list.length === 0 && <li className="text-base text-soft">No words yet.</li>}
      </ul>
      <Remarks verdicts={verdicts} madeUp={madeUp} late={lateIn(list, { lexicon: reader.lexicon, age, meanings })} />
      <div className="no-print flex flex-wrap items-end gap-2 border-t border-line px-4 py-3">
        <form
          className="flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            add();
          }}
        >
          <TextField
            bare
            label="Add words"
            placeholder="Add words"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          <Button type="submit" disabled={!/\p{L}/u.test(typed)}>
            Add
          </Button>
        </form>
        <span className="grow" />
        <ListActions title={title} lines={list} rows={asRows(verdicts)} json={{ words: asRecords(verdicts) }}>
          <Button disabled={list.length === 0} onClick={() => setPrinting("cards")}>
            <Printer size={15} aria-hidden /> Cards
          </Button>
          {list.some((word) => pictures[word.toLowerCase()]) && (
            <Button onClick={() => setPrinting("pictures")}>
              <Printer size={15} aria-hidden /> Cards with pictures
            </Button>
          )}
          <Button disabled={list.length === 0} onClick={() => setPrinting("sheet")}>
            <Printer size={15} aria-hidden /> Sheet
          </Button>
        </ListActions>
        <Button shape="main" disabled={list.length === 0} onClick={() => setSession(true)}>
          Put into a session
        </Button>
      </div>
      {printing && <PrintedWords title={title} words={verdicts} layout={printing} pictures={pictures} />}
      {session && <IntoSession words={list} onClose={() => setSession(false)} />}
    </section>
  );
}

interface Late {
  readonly text: string;
  readonly knownBy: KnownBy;
  readonly meaning: string | undefined;
}

/** Words that children of an age do not know when they hear them, as far as anyone said. */
function lateIn(
  list: readonly string[],
  { lexicon, age, meanings }: { lexicon: Lexicon; age: KnownBy; meanings: Readonly<Record<string, string>> },
): readonly Late[] {
  return list.flatMap((text) => {
    const [word] = lexicon.find(text);
    if (!word || word.knownBy <= age) return [];
    const found = meaningFor(text, { lexicon, meanings });
    return [{ text, knownBy: word.knownBy, meaning: found && showMeaning(text, found) }];
  });
}

interface RemarksWanted {
  readonly verdicts: readonly WordVerdict[];
  readonly madeUp: boolean;
  readonly late: readonly Late[];
}

function Remarks({ verdicts, madeUp, late }: RemarksWanted) {
  const broken = verdicts.filter((verdict) => verdict.verdict === "not yet");
  const guessed = madeUp
    ? []
    : verdicts.filter((verdict) => verdict.source === "rules" && verdict.verdict !== "not yet");
  if (broken.length + guessed.length + late.length === 0) return null;
  return (
    <ul className="no-print px-4 pb-3 text-sm">
      {broken.slice(0, 6).map((verdict) => (
        <li key={verdict.text} className="text-damson">
          “{verdict.text}” has{" "}
          {verdict.unexpected.map((at) => showGrapheme(verdict.reading.units[at]?.grapheme ?? "")).join(", ")}, which
          cannot be read yet
        </li>
      ))}
      {broken.length > 6 && (
        <li className="text-damson">and {broken.length - 6} more words that cannot be read yet</li>
      )}
      {late.length > 0 && (
        <li className="text-damson">
          Say what it means, these children may not know it:{" "}
          {late
            .map(
              ({ text, knownBy, meaning }) =>
                `${text} (${meaning ?? (knownBy === 12 ? "known later" : `known by ${knownBy}`)})`,
            )
            .join("; ")}
        </li>
      )}
      {guessed.length > 0 && (
        <li className="text-soft">
          Not in the word list, split by rule, worth a look: {guessed.map((verdict) => verdict.text).join(", ")}
        </li>
      )}
    </ul>
  );
}

function asRows(verdicts: readonly WordVerdict[]) {
  return verdicts.map(({ text, reading }) => ({
    word: text,
    units: reading.units.map((unit) => unit.gpc).join(" "),
    syllables: reading.syllables.length,
    shape: reading.shape,
  }));
}

function asRecords(verdicts: readonly WordVerdict[]) {
  return verdicts.map(({ text, reading }) => ({
    word: text,
    units: reading.units.map(({ gpc, at }) => ({ gpc, at })),
    syllables: reading.syllables,
    shape: reading.shape,
  }));
}
