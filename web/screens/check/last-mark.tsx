import { useState } from "react";
import { kinds, type Setup, type Told } from "#core/checks";
import { type GivenAnswer, heardIn, isRight } from "#core/ledger";
import { showGrapheme } from "#core/phonics";
import type { SchoolWords } from "#web/device/lexicon.ts";
import { Button } from "#web/parts/button.tsx";
import { BracketWord } from "#web/parts/marks.tsx";

interface LastWanted {
  readonly answer: GivenAnswer;
  readonly setup: Setup;
  readonly ground: SchoolWords | undefined;
  /** A person names the parts that failed. */
  readonly onOverrule: (units: readonly number[]) => void;
}

/** What was marked last and which part of it failed, with a way to say that it was another one. */
export function LastMark({ answer, setup, ground, onOverrule }: LastWanted) {
  const [naming, setNaming] = useState(false);
  const kind = kinds[answer.kind];
  const told = ground ? kind.tell(answer, { ...ground, setup }) : undefined;
  const heard = heardIn(answer);
  const says = told?.says.join(" ") ?? "";
  const canName = told !== undefined && told.units.length > 0 && "heard" in answer;
  return (
    <div className="flex min-h-12 flex-wrap items-center justify-center gap-x-3 gap-y-1 text-center text-sm">
      <p>
        <span className="text-soft">Before: </span>
        <span className="font-child">{kind.show(answer.item)}</span>
        {heard !== null && <> – “{kind.showHeard(heard)}”</>}
        {says ? (
          <span className="text-soft"> · {says}</span>
        ) : isRight(answer.outcome) ? (
          <Right answer={answer} />
        ) : null}
      </p>
      {canName && !naming && (
        <Button
          shape="quiet"
          className="underline decoration-line underline-offset-4"
          onClick={() => setNaming(true)}
        >
          Another part failed
        </Button>
      )}
      {told && naming && (
        <NameParts
          told={told}
          text={kind.show(answer.item)}
          onKeep={(units) => {
            setNaming(false);
            onOverrule(units);
          }}
          onBack={() => setNaming(false)}
        />
      )}
    </div>
  );
}

function Right({ answer }: { answer: GivenAnswer }) {
  const slow = answer.outcome === "slow" && answer.ms !== null ? `, slow (${(answer.ms / 1000).toFixed(1)} s)` : "";
  return <span className="text-soft"> · right{slow}</span>;
}

/** The word in its parts; those that failed are pressed. */
function NameParts({
  told,
  text,
  onKeep,
  onBack,
}: {
  told: Told;
  text: string;
  onKeep: (units: readonly number[]) => void;
  onBack: () => void;
}) {
  const [failed, setFailed] = useState<readonly number[]>(told.failed);
  const toggle = (at: number) =>
    setFailed((before) => (before.includes(at) ? before.filter((one) => one !== at) : [...before, at].sort()));
  return (
    <fieldset className="flex flex-wrap items-center justify-center gap-1.5">
      <legend className="sr-only">Which parts of {text} failed</legend>
      <BracketWord text={text} units={told.units} />
      {told.units.map((unit, at) => (
        <button
          // biome-ignore lint/suspicious/noArrayIndexKey: a word may have the same unit twice
          key={at}
          type="button"
          aria-pressed={failed.includes(at)}
          onClick={() => toggle(at)}
          className={`font-child min-h-9 min-w-9 rounded border px-2 ${failed.includes(at) ? "border-damson bg-damson-pale" : "border-line bg-sheet"}`}
        >
          {showGrapheme(unit.grapheme)}
        </button>
      ))}
      <Button shape="main" onClick={() => onKeep(failed)}>
        Save
      </Button>
      <Button onClick={onBack}>Back</Button>
    </fieldset>
  );
}
