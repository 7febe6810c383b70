import { useRef, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import useSWR from "swr";
import {
  addressOf,
  type ChildView,
  getSitting,
  type PresetView,
  previewSitting,
  removePreset,
  type School,
  savePreset,
  startSitting,
} from "#contract";
import { kinds, type Section, sectionOf } from "#core/checks";
import { exceptionWordsUpTo, taughtUpTo } from "#core/order";
import { form, plural } from "#core/saying";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { stampNow } from "#web/device/clock.ts";
import { keep } from "#web/device/pages.ts";
import { newId, newSeed } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Fault, Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { NamePlan, savePlan } from "./name-plan.tsx";
import { SectionEditor } from "./section-editor.tsx";

interface PlanWanted {
  readonly chosen: readonly ChildView[];
  readonly school: School;
  readonly presets: readonly PresetView[];
}

/** What is checked: a plan to begin from, its parts, how long it takes, and the start. */
export function PlanEditor({ chosen, school, presets }: PlanWanted) {
  const navigate = useNavigate();
  const fitting = chosen.some((child) => child.lastChecked !== null) ? "Follow-up" : "First look";
  const first = presets.find((one) => one.name === fitting) ?? presets[0];
  const [search] = useSearchParams();
  const asked = presets.find((one) => one.id === search.get("plan"));
  const [presetId, setPresetId] = useState((asked ?? first)?.id ?? "");
  const cards = search.getAll("card");
  // A second look says which cards.
  const [own, setOwn] = useState<readonly Section[] | null>(
    cards.length > 0 ? [sectionOf("card", { scope: "picked", picked: cards })] : null,
  );
  const [naming, setNaming] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const preset = presets.find((one) => one.id === presetId) ?? first;
  const sections: readonly Section[] = own ?? preset?.sections ?? [sectionOf("card")];
  const ids = chosen.map((child) => child.id);
  const body = { childIds: ids, sections: sections };
  const preview = useSWR(["preview", JSON.stringify(body)], () => call(previewSitting, { body }), {
    keepPreviousData: true,
    revalidateOnFocus: false,
  });
  const sizes = preview.data?.children ?? [];
  const inAll = sizes.length > 0 && sizes[0]?.parts.length === sections.length ? sizes : [];
  const total = (pick: (part: { items: number; minutes: number }) => number) =>
    inAll.reduce(
      (sum, child) => sum + child.parts.reduce((all, part) => all + (part.items > 0 ? pick(part) : 0), 0),
      0,
    );
  const items = total((part) => part.items);
  const seeks = sections.some((section) => section.kind === "seek");
  const minutes = Math.max(1, Math.round(total((part) => part.minutes)));
  const ownPace = inAll.some((child) => child.parts.some((part) => part.ownPace));

  const classOf = school.classes.find((one) => one.id === chosen[0]?.classId);
  const order = school.orders.find((one) => one.id === classOf?.orderId)?.content;
  const pickable = {
    spellings: order ? taughtUpTo(order, classOf?.stepId ?? null) : [],
    words: order ? exceptionWordsUpTo(order, classOf?.stepId ?? null) : [],
  };
  const change = (at: number, section: Section) => setOwn(sections.map((one, i) => (i === at ? section : one)));
  const move = (at: number, by: -1 | 1) => {
    const next = [...sections];
    const [moved] = next.splice(at, 1);
    if (moved) next.splice(at + by, 0, moved);
    setOwn(next);
  };
  const sizeOf = (at: number): string | undefined => {
    const parts = inAll.flatMap((child) => child.parts[at] ?? []);
    if (parts.length === 0) return undefined;
    const counts = parts.map((part) => part.items);
    const [least, most] = [Math.min(...counts), Math.max(...counts)];
    const time = Math.max(...parts.map((part) => (part.items > 0 ? part.minutes : 0)));
    if (most === 0) return "nothing to ask";
    if (sections[at]?.kind === "seek") return `at most ${Math.round(time)} min`;
    return `${least === most ? most : `${least}–${most}`} ${form(most, "item", "items")} · ${time < 1 ? "½" : Math.round(time)} min`;
  };

  const name = own
    ? sections.length === 1
      ? kinds[sections[0]?.kind ?? "card"].name
      : "Check"
    : (preset?.name ?? "Check");
  const [newPlanId, setNewPlanId] = useState(newId);
  const begun = useRef<{
    of: string;
    id: string;
    startedAt: string;
    children: { childId: string; seed: number; checkIds: string[] }[];
  }>(undefined);
  const begin = async () => {
    setBusy(true);
    setTrouble(null);
    // One check for one plan and these children, however often the button is pressed until an answer comes.
    const of = JSON.stringify([name, sections, ids]);
    if (begun.current?.of !== of)
      begun.current = {
        of,
        id: newId(),
        startedAt: stampNow(),
        children: ids.map((childId) => ({ childId, seed: newSeed(), checkIds: sections.map(() => newId()) })),
      };
    const { id, startedAt, children } = begun.current;
    try {
      const sitting = await call(startSitting, {
        body: {
          id,
          name,
          sections: sections,
          children,
          startedAt,
        },
      });
      await keep(addressOf(getSitting, { id }), sitting);
      void refreshAll();
      navigate(`/check/${id}`);
    } catch (problem) {
      setTrouble(wordsOfError(problem));
      setBusy(false);
    }
  };
  const remove = async () => {
    if (!preset || preset.shipped) return;
    try {
      await call(removePreset, { params: { id: preset.id } });
      setPresetId("");
      setOwn(null);
      await refreshAll();
      const { id, name: called, purpose, sections: parts } = preset;
      toastWithUndo(`The plan “${called}” is removed.`, async () => {
        try {
          await call(savePreset, { params: { id }, body: { version: 0, name: called, purpose, sections: parts } });
          await refreshAll();
        } catch (problem) {
          toast.error(wordsOfError(problem));
        }
      });
    } catch (problem) {
      toast.error(wordsOfError(problem));
    }
  };
  const note = chosen.length === 1 ? chosen[0]?.note : "";
  return (
    <Panel
      title={
        chosen.length <= 3
          ? chosen.map((child) => child.name).join(", ")
          : `${chosen[0]?.name} and ${chosen.length - 1} others`
      }
    >
      {note && <p className="mb-3 rounded-md bg-leaf-pale px-3 py-2">{note}</p>}
      <fieldset>
        <legend className="mb-1 font-semibold">Begin from a plan</legend>
        <div className="flex flex-wrap gap-1.5">
          {presets.map((one) => (
            <button
              key={one.id}
              type="button"
              aria-pressed={preset?.id === one.id}
              title={one.purpose}
              onClick={() => {
                setPresetId(one.id);
                setOwn(null);
              }}
              className={`min-h-9 rounded-full border px-3.5 ${preset?.id === one.id ? "border-leaf bg-leaf-pale font-semibold" : "border-line bg-sheet"}`}
            >
              {one.name}
            </button>
          ))}
        </div>
        <p className="mt-1 text-sm text-soft">{own ? `Changed from “${preset?.name ?? ""}”.` : preset?.purpose}</p>
      </fieldset>
      <ol className="mt-3 flex flex-col gap-1.5" aria-label="Parts">
        {sections.map((section, at) => (
          <SectionEditor
            // biome-ignore lint/suspicious/noArrayIndexKey: two parts may be alike
            key={`${presetId} ${at}`}
            section={section}
            number={at + 1}
            of={sections.length}
            size={sizeOf(at)}
            pickable={pickable}
            onChange={(next) => change(at, next)}
            onMove={(by) => move(at, by)}
            onRemove={() => setOwn(sections.filter((_, i) => i !== at))}
          />
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap gap-1.5">
        <Button onClick={() => setOwn([...sections, sectionOf("card")])} disabled={sections.length >= 8}>
          Add a part
        </Button>
        <Button onClick={() => setNaming(true)}>Save as a plan</Button>
        {preset && !preset.shipped && (
          <Button shape="quiet" onClick={remove}>
            Remove “{preset.name}”
          </Button>
        )}
      </div>
      <Fault className="mt-3">{trouble}</Fault>
      <div className="mt-4 flex flex-wrap items-center gap-4">
        <Button
          shape="main"
          className="min-h-12 px-5"
          working={busy}
          disabled={inAll.length > 0 && items === 0}
          onClick={begin}
        >
          Begin the check
        </Button>
        {inAll.length > 0 && (
          <p className="text-soft" data-testid="size">
            {items === 0
              ? "Nothing to ask: nothing of this has been taught, or all of it is secure. "
              : `${seeks ? "at most " : ""}${plural(items, "item")}, ${seeks ? "" : "about "}${plural(minutes, "minute")}${chosen.length > 1 ? " for all" : ""}${ownPace ? " at their own pace" : ""}`}
            {items === 0 && classOf && (
              <Link to={`/class/${classOf.id}`} className="text-ink underline underline-offset-4">
                Say in {classOf.name} how far it has been taught
              </Link>
            )}
          </p>
        )}
      </div>
      <NamePlan
        open={naming}
        preset={preset}
        onClose={() => setNaming(false)}
        onSave={async (called, purpose, over) => {
          const id = over && preset && !preset.shipped ? preset.id : newPlanId;
          const saved = await savePlan({
            id,
            onto: id === preset?.id ? preset.version : 0,
            apart: newPlanId,
            plan: { name: called, purpose, sections: sections },
          });
          setNewPlanId(newId());
          await refreshAll();
          setPresetId(saved?.id ?? id);
          setOwn(null);
          setNaming(false);
        }}
      />
    </Panel>
  );
}
