import { type FormEvent, useRef, useState } from "react";
import { isSentence, kinds, outcomeOfWriting } from "#core/checks";
import { type GivenAnswer, heardIn, inCheck } from "#core/ledger";
import { keyOf } from "#core/words";
import { useKeys } from "#web/device/keys.tsx";
import { type SchoolWords, useLexicon } from "#web/device/lexicon.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Waiting } from "#web/parts/page.tsx";
import type { DeskWanted } from "./at-desk.ts";
import { type SittingLog, useStamp } from "./log.ts";
import { NoteSheet } from "./note-sheet.tsx";
import { useSettled } from "./settled.ts";
import { StopSheet } from "./stop-sheet.tsx";

/** Words and a sentence are read out; afterwards what the child wrote is typed in, and each unit is looked at. */
export function WritingDesk(wanted: DeskWanted & { readonly log: SittingLog }) {
  const { check, child, answers, ended, next, log, onDone, onStop, onGoOn } = wanted;
  const kind = kinds[check.kind];
  const { ground } = useLexicon();
  const stamp = useStamp(child.id);
  const [sheet, setSheet] = useState<"note" | "stop" | null>(null);
  const latest = new Map(answers.map((answer) => [answer.item, answer]));
  const fields = useRef(new Map<string, HTMLInputElement>());
  /** What stands for each item, also before the screen has followed. */
  const standing = useRef(new Map<string, string>());
  useKeys([{ key: "n", does: "Write a note", run: () => setSheet("note") }]);
  if (!ground) return <Waiting />;

  const keep = (item: string, text: string, reversed: boolean) => {
    const before = standing.current.get(item) ?? latest.get(item)?.id;
    if (before) log.put({ ...stamp(), outcome: "void", voids: before });
    const found = outcomeOfWriting(item, text, ground);
    const tags: GivenAnswer["tags"] = reversed ? ["reversed"] : [];
    const given = { ...stamp(), ...inCheck(check.kind, check.id), item, ms: null, pass: 1, tags: [...tags] };
    standing.current.set(item, given.id);
    if (found === "right" || found === "none")
      log.put({ ...given, outcome: found === "right" && reversed ? "reversed" : found });
    else log.put({ ...given, outcome: found, heard: text.trim(), units: null });
  };
  const goTo = (at: number) => {
    const item = check.items[at];
    if (item !== undefined) fields.current.get(item)?.focus();
    else fields.current.get(check.items[at - 1] ?? "")?.blur();
  };
  return (
    <div className="flex flex-1 flex-col">
      <p className="mt-2 text-soft">
        Read each out once, say it in a sentence, read it again. Then type what the child wrote, as it was written.
      </p>
      <ol className="mt-3 flex flex-col gap-2">
        {check.items.map((item, at) => (
          <Row
            key={item}
            item={item}
            number={at + 1}
            answer={latest.get(item)}
            ground={ground}
            expects={kind.prompt(item, wanted.sitting.settings, wanted.check.setup).expects}
            setup={check.setup}
            fieldRef={(field) => {
              if (field) fields.current.set(item, field);
            }}
            onKeep={(text, reversed, enter) => {
              keep(item, text, reversed);
              if (enter) goTo(at + 1);
            }}
          />
        ))}
      </ol>
      <div className="mt-4 mb-2 flex flex-wrap gap-1.5">
        <Button className="min-h-12" onClick={() => setSheet("note")}>
          Note <kbd className="text-xs text-soft">N</kbd>
        </Button>
        <Button className="min-h-12" onClick={() => setSheet("stop")} disabled={ended}>
          Stop here
        </Button>
        {ended ? (
          <>
            <Button className="min-h-12" onClick={onGoOn}>
              Go on with it
            </Button>
            <ButtonLink to={`/check/${wanted.sitting.id}/result?child=${child.id}`} shape="main" className="min-h-12">
              See what it says
            </ButtonLink>
          </>
        ) : (
          <Button className="min-h-12" shape="main" onClick={onDone} disabled={latest.size === 0}>
            {next}
          </Button>
        )}
      </div>
      <NoteSheet
        open={sheet === "note"}
        about={child.name}
        onClose={() => setSheet(null)}
        onKeep={(text) =>
          log.put({ ...stamp(), outcome: "note", source: { kind: "check", checkId: check.id }, item: null, text })
        }
      />
      <StopSheet
        open={sheet === "stop"}
        name={child.name}
        onClose={() => setSheet(null)}
        onStop={(why, all) => {
          setSheet(null);
          onStop(why, all);
        }}
      />
    </div>
  );
}

interface RowWanted {
  readonly item: string;
  readonly number: number;
  readonly answer: GivenAnswer | undefined;
  readonly ground: SchoolWords;
  readonly expects: string;
  readonly setup: DeskWanted["check"]["setup"];
  readonly fieldRef: (field: HTMLInputElement | null) => void;
  readonly onKeep: (text: string, reversed: boolean, enter: boolean) => void;
}

function writtenIn(answer: GivenAnswer | undefined): string {
  if (!answer || answer.outcome === "none") return "";
  return heardIn(answer) ?? answer.item;
}

function Row({ item, number, answer, ground, expects, setup, fieldRef, onKeep }: RowWanted) {
  const [text, setText] = useState(() => writtenIn(answer));
  const [focused, setFocused] = useState(false);
  /** What was kept last, so that leaving the field after Enter keeps nothing twice. */
  const kept = useRef(answer ? text : null);
  const reversed = answer?.tags.includes("reversed") ?? false;
  const keep = (turned: boolean, enter: boolean) => {
    kept.current = text;
    onKeep(text, turned, enter);
  };
  const told = answer ? kinds[answer.kind].tell(answer, { ...ground, setup }) : undefined;
  // A second press of Enter, meant for the row above, would say of this one that nothing was written.
  const { moves, isSettled } = useSettled<HTMLLIElement>(focused ? item : null);
  const enter = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim() === "" && !isSettled()) return;
    keep(reversed, true);
  };
  const carrier = isSentence(item) ? undefined : ground.carriers.get(keyOf(item));
  const says = !answer ? "" : answer.outcome === "right" ? "Right to the letter." : (told?.says.join(" ") ?? "");
  return (
    <li
      ref={moves}
      onFocus={() => setFocused(true)}
      onBlur={() => setFocused(false)}
      className="rounded-lg border border-line bg-sheet px-3 py-2"
    >
      <form onSubmit={enter} className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="w-6 text-right text-soft">{number}</span>
        <span
          className={`font-child ${isSentence(item) ? "basis-full text-xl sm:basis-auto sm:flex-1" : "w-36 text-2xl"}`}
        >
          {item} {expects && <span className="text-sm text-soft">({expects})</span>}
        </span>
        {carrier && <span className="basis-full pl-9 text-sm text-soft">In a sentence: {carrier}</span>}
        <input
          ref={fieldRef}
          aria-label={`What was written for ${item}`}
          value={text}
          maxLength={160}
          autoCapitalize="off"
          autoComplete="off"
          autoCorrect="off"
          spellCheck={false}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => text.trim() !== (kept.current ?? "").trim() && keep(reversed, false)}
          className={`font-child min-h-12 rounded-md border border-line bg-paper px-2.5 text-xl ${isSentence(item) ? "w-full" : "w-48"}`}
        />
        <button
          type="button"
          aria-pressed={reversed}
          onClick={() => keep(!reversed, false)}
          className={`min-h-9 rounded-full border px-3 text-sm ${reversed ? "border-damson bg-damson-pale font-semibold" : "border-line"}`}
        >
          A letter turned round
        </button>
        <button type="submit" className="sr-only">
          Save
        </button>
        <span className="min-w-48 flex-1 text-sm text-soft" aria-live="polite">
          {says}
        </span>
      </form>
    </li>
  );
}
