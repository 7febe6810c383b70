import { ChevronDown, ChevronUp, X } from "lucide-react";
import { useState } from "react";
import { kinds, type Scope, type Section, sectionOf, strategyNames } from "#core/checks";
import { type KindId, kindIds } from "#core/ledger";
import { Button } from "#web/parts/button.tsx";
import { Choice, WholeField } from "#web/parts/field.tsx";
import { Spelling } from "#web/parts/marks.tsx";
import { onScreen } from "./kinds/index.ts";
import { optionsOf, scopeNames, sectionInWords, strategyNamesShown } from "./section-words.ts";

interface SectionWanted {
  readonly section: Section;
  readonly number: number;
  readonly of: number;
  /** How many items and minutes it has, or undefined while that is counted. */
  readonly size: string | undefined;
  /** What can be picked by hand. */
  readonly pickable: { readonly spellings: readonly string[]; readonly words: readonly string[] };
  readonly onChange: (section: Section) => void;
  readonly onMove: (by: -1 | 1) => void;
  readonly onRemove: () => void;
}

const letters = [..."abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ"];

/** One part of a plan: a line that says what it holds, and its choices on demand. */
export function SectionEditor({ section, number, of, size, pickable, onChange, onMove, onRemove }: SectionWanted) {
  const [open, setOpen] = useState(false);
  const kind = kinds[section.kind];
  const small = "rounded p-1.5 hover:bg-leaf-pale disabled:opacity-30";
  return (
    <li className="rounded-lg border border-line bg-paper/60">
      <div className="flex items-start gap-2 px-3 py-2">
        <span className="mt-0.5 w-5 flex-none text-right text-soft">{number}</span>
        <div className="min-w-0 flex-1">
          <p className="font-semibold">{kind.name}</p>
          <p className="text-sm text-soft">{sectionInWords(section)}</p>
        </div>
        <p className="whitespace-nowrap pt-0.5 text-right text-sm tabular-nums">{size ?? "…"}</p>
        <div className="flex flex-none items-center">
          <Button className="mr-1" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? "Close" : "Change"}
            <span className="sr-only"> part {number}</span>
          </Button>
          <button
            type="button"
            className={small}
            disabled={number === 1}
            onClick={() => onMove(-1)}
            aria-label={`Move part ${number} up`}
          >
            <ChevronUp size={16} aria-hidden />
          </button>
          <button
            type="button"
            className={small}
            disabled={number === of}
            onClick={() => onMove(1)}
            aria-label={`Move part ${number} down`}
          >
            <ChevronDown size={16} aria-hidden />
          </button>
          <button
            type="button"
            className={small}
            disabled={of === 1}
            onClick={onRemove}
            aria-label={`Remove part ${number}`}
          >
            <X size={16} aria-hidden />
          </button>
        </div>
      </div>
      {open && <Choices section={section} pickable={pickable} onChange={onChange} />}
    </li>
  );
}

function Choices({ section, pickable, onChange }: Pick<SectionWanted, "section" | "pickable" | "onChange">) {
  const can = optionsOf(section);
  const { Choices: Own, mostLabel = "At most" } = onScreen(section.kind);
  const set = (change: Partial<Section>) => onChange({ ...section, ...change } as Section);
  const scopes: Scope[] = can.picks ? ["due", "all", "recent", "picked"] : ["due", "all", "recent"];
  return (
    <div className="grid grid-cols-2 gap-3 border-t border-line px-3 py-3 md:grid-cols-3">
      <Choice
        label="Kind"
        value={section.kind}
        onChange={(event) => onChange(sectionOf(event.target.value as KindId))}
      >
        {kindIds.map((id) => (
          <option key={id} value={id}>
            {kinds[id].name}
          </option>
        ))}
      </Choice>
      {can.scope && (
        <Choice label="What" value={section.scope} onChange={(event) => set({ scope: event.target.value as Scope })}>
          {scopes.map((scope) => (
            <option key={scope} value={scope}>
              {scopeNames[scope]}
            </option>
          ))}
        </Choice>
      )}
      {section.scope === "recent" && can.scope && (
        <WholeField
          label="Steps back"
          least={1}
          most={40}
          value={section.recentSteps}
          onSet={(recentSteps) => set({ recentSteps })}
        />
      )}
      {can.most && (
        <WholeField label={mostLabel} least={1} most={60} value={section.most} onSet={(most) => set({ most })} />
      )}
      {can.strategy && (
        <Choice
          label="In which order"
          value={section.strategy}
          onChange={(event) => set({ strategy: event.target.value as Section["strategy"] })}
        >
          {strategyNames.map((name) => (
            <option key={name} value={name}>
              {strategyNamesShown[name]}
            </option>
          ))}
        </Choice>
      )}
      {can.form && (
        <Choice
          label="How long"
          value={section.form}
          onChange={(event) => set({ form: event.target.value as Section["form"] })}
        >
          <option value="deck">until all are asked</option>
          <option value="minute">one minute</option>
        </Choice>
      )}
      {can.stop && (
        <WholeField
          label="Suggest a stop after misses in a row"
          hint="0 never"
          least={0}
          most={20}
          value={section.stopAfter}
          onSet={(stopAfter) => set({ stopAfter })}
        />
      )}
      {Own && <Own section={section} set={set} />}
      {section.scope === "picked" && can.picks && (
        <Picker
          what={can.picks}
          all={can.picks === "spellings" ? pickable.spellings : can.picks === "words" ? pickable.words : letters}
          picked={section.picked}
          onPick={(picked) => set({ picked })}
        />
      )}
    </div>
  );
}

function Picker({
  what,
  all,
  picked,
  onPick,
}: {
  what: "spellings" | "words" | "letters";
  all: readonly string[];
  picked: readonly string[];
  onPick: (picked: readonly string[]) => void;
}) {
  return (
    <fieldset className="col-span-full">
      <legend className="mb-1 text-sm font-semibold">Picked by hand ({picked.length})</legend>
      {all.length === 0 && <p className="text-soft">Choose a child whose class has been taught something.</p>}
      <div className="flex flex-wrap gap-1.5">
        {all.map((item) => {
          const on = picked.includes(item);
          return (
            <button
              key={item}
              type="button"
              aria-pressed={on}
              onClick={() => onPick(on ? picked.filter((other) => other !== item) : [...picked, item])}
              className={`min-w-8 rounded border p-0.5 ${on ? "border-leaf bg-leaf-pale" : "border-transparent"}`}
            >
              {what === "spellings" ? <Spelling gpc={item} /> : <span className="font-child px-1">{item}</span>}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}
