import { horizontalListSortingStrategy, SortableContext, useSortable } from "@dnd-kit/sortable";
import { GripVertical, X } from "lucide-react";
import { type CSSProperties, type FormEvent, type KeyboardEvent, useState } from "react";
import {
  addGpc,
  moveGpc,
  moveStep,
  type OrderContent,
  removeGpc,
  removeStep,
  renameStep,
  type Step,
  setExceptionWords,
} from "#core/order";
import { asIn, ipa, showGrapheme, splitGpc } from "#core/phonics";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";

interface StepWanted {
  readonly step: Step;
  readonly number: number;
  readonly order: OrderContent;
  readonly locked: boolean;
  readonly onChange: (order: OrderContent) => void;
  /** A move by key; the element with this id gets the focus back. */
  readonly onMove: (id: string, order: OrderContent) => void;
}

function useDrag(id: string, disabled: boolean) {
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({ id, disabled });
  const style: CSSProperties = {
    transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
    transition,
    ...(isDragging ? { opacity: 0.6, zIndex: 10, position: "relative" } : {}),
  };
  return { setNodeRef, style, handle: disabled ? {} : { ...attributes, ...listeners } };
}

export function StepCard({ step, number, order, locked, onChange, onMove }: StepWanted) {
  const moveStepByKey = (event: KeyboardEvent) => {
    const by = event.key === "ArrowUp" ? -1 : event.key === "ArrowDown" ? 1 : 0;
    const to = number - 1 + by;
    if (by === 0 || to < 0 || to >= order.steps.length) return;
    event.preventDefault();
    onMove(event.currentTarget.id, moveStep(order, number - 1, to));
  };
  const moveGpcByKey = (event: KeyboardEvent, gpc: string) => {
    const at = step.gpcs.indexOf(gpc);
    const sideways = event.key === "ArrowLeft" ? at - 1 : event.key === "ArrowRight" ? at + 1 : null;
    const neighbour = order.steps[number - 1 + (event.key === "ArrowUp" ? -1 : event.key === "ArrowDown" ? 1 : 0)];
    const id = event.currentTarget.id;
    if (sideways !== null && sideways >= 0 && sideways < step.gpcs.length)
      onMove(id, moveGpc(order, gpc, step.id, sideways));
    else if (sideways === null && neighbour && neighbour.id !== step.id)
      onMove(id, moveGpc(order, gpc, neighbour.id, neighbour.gpcs.length));
    else return;
    event.preventDefault();
  };
  const { setNodeRef, style, handle } = useDrag(`step|${step.id}`, locked);
  const [typed, setTyped] = useState("");
  const [problem, setProblem] = useState<string>();
  const [words, setWords] = useState(step.exceptionWords.join(" "));
  const [wordProblem, setWordProblem] = useState<string>();

  const add = (event: FormEvent) => {
    event.preventDefault();
    const edited = addGpc(order, step.id, typed);
    if (!edited.ok) return setProblem(edited.problem);
    setProblem(undefined);
    setTyped("");
    onChange(edited.order);
  };
  const setExceptions = () => {
    const edited = setExceptionWords(order, step.id, words);
    if (!edited.ok) return setWordProblem(edited.problem);
    setWordProblem(undefined);
    onChange(edited.order);
  };

  return (
    <li ref={setNodeRef} style={style} className="rounded-lg border border-line bg-sheet px-3 py-2">
      <div className="flex flex-wrap items-center gap-2">
        {!locked && (
          <button
            type="button"
            {...handle}
            id={`step-${step.id}`}
            onKeyDown={moveStepByKey}
            aria-label={`Move step ${number}, ${step.title}`}
            className="cursor-grab touch-none rounded p-1 text-soft hover:bg-leaf-pale"
          >
            <GripVertical size={16} aria-hidden />
          </button>
        )}
        <span className="w-7 text-right text-soft tabular-nums">{number}</span>
        {locked ? (
          <h2 className="min-w-44 text-base">{step.title}</h2>
        ) : (
          <div className="w-56">
            <TextField
              bare
              label={`Title of step ${number}`}
              value={step.title}
              maxLength={80}
              onChange={(event) => onChange(renameStep(order, step.id, event.target.value))}
            />
          </div>
        )}
        <SortableContext items={step.gpcs.map((gpc) => `gpc|${gpc}`)} strategy={horizontalListSortingStrategy}>
          <ul className="flex flex-1 flex-wrap gap-1" aria-label={`Spellings of step ${number}`}>
            {step.gpcs.map((gpc) => (
              <SpellingChip
                key={gpc}
                gpc={gpc}
                locked={locked}
                onRemove={() => onChange(removeGpc(order, gpc))}
                onKeyDown={(event) => moveGpcByKey(event, gpc)}
              />
            ))}
          </ul>
        </SortableContext>
        {locked && step.exceptionWords.length > 0 && (
          <span className="font-child text-soft">{step.exceptionWords.join(", ")}</span>
        )}
        {!locked && (
          <Button
            shape="quiet"
            aria-label={`Remove step ${number}, ${step.title}`}
            onClick={() => onChange(removeStep(order, step.id))}
          >
            <X size={16} aria-hidden />
          </Button>
        )}
      </div>
      {!locked && (
        <div className="mt-2 grid gap-2 pl-9 md:grid-cols-2">
          <form onSubmit={add} className="flex items-start gap-2">
            <div className="flex-1">
              <TextField
                bare
                label={`Add a spelling to step ${number}`}
                placeholder="Add ea=ee, or n+k as one"
                value={typed}
                problem={problem}
                onChange={(event) => setTyped(event.target.value)}
              />
            </div>
            <Button type="submit" disabled={typed.trim() === ""}>
              Add
            </Button>
          </form>
          <div className="flex items-start gap-2">
            <span className="pt-2 text-sm whitespace-nowrap text-soft" aria-hidden>
              Exception words
            </span>
            <div className="flex-1">
              <TextField
                bare
                label={`Exception words of step ${number}`}
                placeholder="with a space between"
                value={words}
                problem={wordProblem}
                onChange={(event) => setWords(event.target.value)}
                onBlur={setExceptions}
              />
            </div>
          </div>
        </div>
      )}
    </li>
  );
}

interface ChipWanted {
  readonly gpc: string;
  readonly locked: boolean;
  readonly onRemove: () => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
}

function SpellingChip({ gpc, locked, onRemove, onKeyDown }: ChipWanted) {
  const { setNodeRef, style, handle } = useDrag(`gpc|${gpc}`, locked);
  const { grapheme, sound } = splitGpc(gpc);
  const name = `${showGrapheme(grapheme)}${asIn(gpc)}`;
  const face = (
    <>
      <span className="font-child text-[1.05em]">{showGrapheme(grapheme)}</span>{" "}
      <span className="text-[0.8em] text-soft">{ipa(sound)}</span>
    </>
  );
  return (
    <li
      ref={setNodeRef}
      style={style}
      className="inline-flex items-center rounded border border-line bg-paper leading-tight"
      title={name}
    >
      {locked ? (
        <span className="px-1.5 py-0.5">{face}</span>
      ) : (
        <>
          <button
            type="button"
            {...handle}
            id={`gpc-${gpc}`}
            onKeyDown={onKeyDown}
            aria-label={`Move ${name}`}
            className="min-h-7 cursor-grab touch-none px-1.5"
          >
            {face}
          </button>
          <button
            type="button"
            onClick={onRemove}
            aria-label={`Remove ${name}`}
            className="inline-flex h-7 w-7 items-center justify-center text-soft hover:text-ink"
          >
            <X size={12} aria-hidden />
          </button>
        </>
      )}
    </li>
  );
}
