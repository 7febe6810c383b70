import { showGrapheme, splitGpc } from "#core/phonics";
import { kindsOfPart } from "#core/plans";
import { listed } from "#core/saying";
import { keepKeys } from "#web/device/keys.tsx";
import { Button } from "#web/parts/button.tsx";
import { ChildMarks, SaidInstead } from "./marks.tsx";
import type { Desk } from "./use-desk.ts";
import type { TaughtSession, Teaching } from "./use-teach.ts";

interface SideWanted {
  readonly session: TaughtSession;
  readonly desk: Desk;
  readonly teaching: Teaching;
  readonly nameOf: (id: string) => string;
}

/** The children and their marks; under them what comes up now and then, so that the marks stay where they are. */
export function Side({ session, desk, teaching, nameOf }: SideWanted) {
  const { state, act, undo } = teaching;
  const { part, turn, runs, offer } = desk;
  const cardsOnly = state.begun ? state.here.filter((id) => !state.asked.includes(id)) : [];
  const missed = state.marks.findLast((one) => one.outcome === "notYet" && one.part === state.part && !one.said);
  return (
    // On a phone the marks stay under the thumb, whatever stands above.
    <section
      aria-label="Marks"
      className="rounded-lg border border-line bg-sheet p-2 max-sm:sticky max-sm:bottom-0 max-sm:z-10 max-sm:max-h-[30dvh] max-sm:overflow-y-auto max-sm:shadow-md"
    >
      <ChildMarks
        members={session.members}
        here={state.here}
        childId={runs && turn ? turn.childId : null}
        marks={desk.marks}
        disabled={!runs || !turn}
        onMark={desk.mark}
        onHere={(childId, here) => act({ do: "here", childId, here })}
      />
      {state.begun && state.here.length === 1 && session.members.length > 1 && (
        <p role="status" className="mt-1 px-1 text-sm text-soft">
          Only {nameOf(state.here[0] ?? "")} is here: what all would answer together counts as an answer alone.
        </p>
      )}
      {cardsOnly.length > 0 && (
        <p role="status" className="mt-1 px-1 text-sm text-soft">
          {listed(cardsOnly.map(nameOf))} {cardsOnly.length === 1 ? "has" : "have"} it at sight: asked in the cards
          alone.
        </p>
      )}
      <div className="mt-2 flex min-h-11 items-center gap-2 border-t border-line pt-2">
        <Button onMouseDown={keepKeys} disabled={!undo} onClick={() => undo?.()}>
          Undo <kbd className="text-xs text-soft">U</kbd>
        </Button>
        <Button onMouseDown={keepKeys} disabled={!state.begun} onClick={desk.pause}>
          {state.begun && state.since === null ? "Go on" : "Pause"} <kbd className="text-xs text-soft">P</kbd>
        </Button>
      </div>
      {missed && (
        <div className="mt-2">
          <SaidInstead
            key={missed.id}
            name={nameOf(missed.childId)}
            item={
              kindsOfPart[part?.kind ?? "teach"].items === "spellings"
                ? showGrapheme(splitGpc(missed.item).grapheme)
                : missed.item
            }
            onSaid={(said) => act({ do: "said", of: missed.id, said })}
          />
        </div>
      )}
      {offer && (
        <div role="status" className="mt-2 rounded-md bg-leaf-pale px-3 py-2">
          {offer === "smaller"
            ? "Two of them stumble. A smaller step: an easier word, with marks under its sounds."
            : "All of them have it. A harder one?"}
          <span className="mt-1 flex gap-2">
            <Button onClick={() => desk.answer(true)}>
              {offer === "smaller" ? "Take the smaller step" : "Take a harder one"}
            </Button>
            <Button shape="quiet" onClick={() => desk.answer(false)}>
              Go on as planned
            </Button>
          </span>
        </div>
      )}
    </section>
  );
}
