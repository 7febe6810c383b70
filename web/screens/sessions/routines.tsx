import { ArrowDown, ArrowUp, X } from "lucide-react";
import { useRef, useState } from "react";
import { removeRoutine, saveRoutine } from "#contract";
import {
  type Doer,
  doerNames,
  doers,
  hasMarks,
  kindsOfPart,
  MOST_PARTS,
  minutesOfRoutine,
  type PartKind,
  partKinds,
  type Routine,
  type RoutinePart,
  readRoutine,
  routineAsMarkdown,
  routineFaults,
} from "#core/plans";
import { plural } from "#core/saying";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { type KnownRoutine, useRoutines } from "#web/device/routines.ts";
import { newId } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { download } from "#web/parts/download.ts";
import { Choice, TextArea, TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault, Page, Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** How sessions are held here: routines that ship, and the school's own, made from them. */
export function Screen() {
  const routines = useRoutines();
  const teaches = useIsAtLeast("teacher");
  const [chosen, setChosen] = useState<string>();
  const [draft, setDraft] = useState<KnownRoutine>();
  const file = useRef<HTMLInputElement>(null);
  const [told, setTold] = useState<string>();
  const shown = draft ?? routines.find(({ id }) => id === chosen) ?? routines[0];
  const copy = ({ routine }: KnownRoutine) => {
    const copied = { ...routine, name: `${routine.name.slice(0, 50)}, ours` };
    setDraft({ id: newId(), version: 0, routine: copied, minutes: minutesOfRoutine(copied) });
  };
  const read = async (chosenFile: File | undefined) => {
    if (!chosenFile) return;
    const found = readRoutine(await chosenFile.text());
    if ("trouble" in found) return setTold(found.trouble);
    const { routine, leftOut } = found;
    setTold(leftOut.length > 0 ? `Left out: ${leftOut.join("; ")}.` : "All of it was read.");
    setDraft({ id: newId(), version: 0, routine, minutes: minutesOfRoutine(routine) });
  };
  return (
    <Page
      place="Routines"
      title="Routines"
      about="How sessions are held: parts, their minutes, and who does what. Each group has one."
      actions={
        <>
          {teaches && (
            <>
              <input
                ref={file}
                type="file"
                aria-label="A routine as a file"
                accept=".md,.json,.txt"
                className="hidden"
                onChange={(event) => {
                  void read(event.target.files?.[0]);
                  event.target.value = "";
                }}
              />
              <Button onClick={() => file.current?.click()}>Read from a file</Button>
            </>
          )}
          <ButtonLink to="/sessions">Sessions</ButtonLink>
        </>
      }
    >
      {told && (
        <p role="status" className="mb-3 rounded-md bg-leaf-pale px-4 py-2">
          {told}
        </p>
      )}
      <div className="grid grid-cols-1 items-start gap-4 md:grid-cols-[17rem_minmax(0,1fr)]">
        <ul aria-label="Routines" className="rounded-lg border border-line bg-sheet p-1">
          {routines.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                aria-pressed={!draft && one.id === shown?.id}
                disabled={draft !== undefined}
                className="block min-h-9 w-full rounded px-2 py-1.5 text-left hover:bg-leaf-pale disabled:text-soft aria-pressed:bg-leaf-pale aria-pressed:font-semibold"
                onClick={() => setChosen(one.id)}
              >
                {one.routine.name}
                {one.version !== null && <span className="block text-xs font-normal text-soft">ours</span>}
              </button>
            </li>
          ))}
        </ul>
        {draft ? (
          <Edit
            key={draft.id}
            from={draft}
            onDone={(id) => {
              setDraft(undefined);
              setTold(undefined);
              if (id) setChosen(id);
            }}
          />
        ) : (
          shown && (
            <Shown
              one={shown}
              onCopy={teaches ? () => copy(shown) : undefined}
              onEdit={teaches && shown.version !== null ? () => setDraft(shown) : undefined}
            />
          )
        )}
      </div>
    </Page>
  );
}

function Shown({
  one,
  onCopy,
  onEdit,
}: {
  one: KnownRoutine;
  onCopy: (() => void) | undefined;
  onEdit: (() => void) | undefined;
}) {
  const { routine, minutes, id } = one;
  const file = routine.name.toLowerCase().replaceAll(/[^a-z0-9]+/g, "-");
  const remove = async () => {
    try {
      await call(removeRoutine, { params: { id } });
      await refreshAll();
      toast(`${routine.name} is removed. Groups that had it go by the usual routine.`);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <Panel
      title={routine.name}
      actions={
        <span className="flex flex-wrap gap-2">
          {onEdit && <Button onClick={onEdit}>Change</Button>}
          {onCopy && <Button onClick={onCopy}>Copy and change</Button>}
        </span>
      }
    >
      <p className="mb-2 text-soft">
        {routine.about} {plural(minutes, "minute")} in {plural(routine.parts.length, "part")}.
      </p>
      <ol className="flex flex-col divide-y divide-line">
        {routine.parts.map(({ kind, minutes: its, who, how, marks }, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a kind may come twice
          <li key={`${kind} ${at}`} className="flex gap-3 py-1.5">
            <span className="w-14 text-right tabular-nums">{its} min</span>
            <span>
              <strong>{kindsOfPart[kind].title}</strong>{" "}
              <span className="text-sm text-soft">
                {doerNames[who]}
                {marks === undefined ? "" : marks ? ", with marks" : ", without marks"}
              </span>
              <span className="block text-sm text-soft">{how || kindsOfPart[kind].about}</span>
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-3 flex flex-wrap gap-2">
        <Button onClick={() => download(`${file}.md`, "text/markdown", routineAsMarkdown(routine))}>
          Keep as Markdown
        </Button>
        <Button onClick={() => download(`${file}.json`, "application/json", JSON.stringify(routine, null, 2))}>
          Keep as JSON
        </Button>
        {onEdit && (
          <Button shape="quiet" onClick={remove}>
            Remove
          </Button>
        )}
      </p>
    </Panel>
  );
}

/** A routine as it is being changed: nothing is kept until it is saved. */
function Edit({ from, onDone }: { from: KnownRoutine; onDone: (id?: string) => void }) {
  const [routine, setRoutine] = useState<Routine>(from.routine);
  const [trouble, setTrouble] = useState<string>();
  useUnsaved(JSON.stringify(routine) !== JSON.stringify(from.routine));
  const put = (change: Partial<Routine>) => setRoutine({ ...routine, ...change });
  const putPart = (at: number, change: Partial<RoutinePart>) =>
    put({ parts: routine.parts.map((one, place) => (place === at ? { ...one, ...change } : one)) });
  const move = (at: number, by: -1 | 1) => {
    const parts = [...routine.parts];
    const [one] = parts.splice(at, 1);
    if (one) parts.splice(at + by, 0, one);
    put({ parts });
  };
  const [fault] = routineFaults(routine);
  const save = async () => {
    if (fault) return setTrouble(fault);
    try {
      await saveOver({
        content: routine as { name: string; about: string; parts: RoutinePart[] },
        onto: from.version ?? 0,
        send: (content, version) =>
          call(saveRoutine, { params: { id: from.id }, body: { version, routine: content } }),
        says: ({ name, about, parts }) => ({
          Name: name,
          "For what": about,
          Parts: parts.map(({ kind, minutes }) => `${kindsOfPart[kind].title} ${minutes} min`).join(", "),
        }),
      });
      await refreshAll();
      onDone(from.id);
    } catch (error) {
      setTrouble(wordsOfError(error));
    }
  };
  return (
    <Panel title={from.version === 0 ? "A new routine" : from.routine.name}>
      <div className="flex flex-col gap-3">
        <TextField
          label="Name"
          maxLength={60}
          value={routine.name}
          onChange={(event) => put({ name: event.target.value })}
        />
        <TextField
          label="For what"
          maxLength={200}
          value={routine.about}
          onChange={(event) => put({ about: event.target.value })}
        />
        <ol aria-label="Parts" className="flex flex-col divide-y divide-line">
          {routine.parts.map((one, at) => (
            <PartLine
              // biome-ignore lint/suspicious/noArrayIndexKey: a kind may come twice, and a line has nothing of its own
              key={at}
              part={one}
              at={at}
              last={at === routine.parts.length - 1}
              onPut={(change) => putPart(at, change)}
              onMove={(by) => move(at, by)}
              onRemove={() => put({ parts: routine.parts.filter((_, place) => place !== at) })}
            />
          ))}
        </ol>
        <div className="w-60">
          <Choice
            label="Add a part"
            value=""
            disabled={routine.parts.length >= MOST_PARTS}
            onChange={(event) => {
              const kind = event.target.value as PartKind;
              const { minutes, who } = kindsOfPart[kind];
              put({ parts: [...routine.parts, { kind, minutes, who, how: "" }] });
            }}
          >
            <option value="" disabled>
              choose
            </option>
            {partKinds.map((kind) => (
              <option key={kind} value={kind}>
                {kindsOfPart[kind].title}
              </option>
            ))}
          </Choice>
        </div>
        <p role="status">{plural(minutesOfRoutine(routine), "minute")} in all.</p>
        <Fault>{trouble ?? fault}</Fault>
        <div className="flex gap-2">
          <Button shape="main" disabled={fault !== undefined} onClick={save}>
            Save
          </Button>
          <Button onClick={() => onDone()}>Leave as it was</Button>
        </div>
      </div>
    </Panel>
  );
}

function PartLine({
  part,
  at,
  last,
  onPut,
  onMove,
  onRemove,
}: {
  part: RoutinePart;
  at: number;
  last: boolean;
  onPut: (change: Partial<RoutinePart>) => void;
  onMove: (by: -1 | 1) => void;
  onRemove: () => void;
}) {
  const { title, about } = kindsOfPart[part.kind];
  const called = `part ${at + 1}, ${title}`;
  return (
    <li className="flex flex-col gap-1.5 py-2">
      <div className="flex flex-wrap items-center gap-2">
        <strong className="min-w-28 flex-1">{title}</strong>
        <div className="w-16">
          <TextField
            bare
            label={`Minutes of ${called}`}
            type="number"
            min={0}
            max={60}
            value={part.minutes}
            onChange={(event) =>
              onPut({ minutes: Math.max(0, Math.min(60, Math.round(Number(event.target.value)) || 0)) })
            }
          />
        </div>
        <div className="w-40">
          <Choice
            bare
            label={`Who does ${called}`}
            value={part.who}
            onChange={(event) => onPut({ who: event.target.value as Doer })}
          >
            {doers.map((who) => (
              <option key={who} value={who}>
                {doerNames[who]}
              </option>
            ))}
          </Choice>
        </div>
        <Button
          shape="quiet"
          className="px-1.5"
          disabled={at === 0}
          aria-label={`Move ${called} up`}
          onClick={() => onMove(-1)}
        >
          <ArrowUp size={16} aria-hidden />
        </Button>
        <Button
          shape="quiet"
          className="px-1.5"
          disabled={last}
          aria-label={`Move ${called} down`}
          onClick={() => onMove(1)}
        >
          <ArrowDown size={16} aria-hidden />
        </Button>
        <Button shape="quiet" className="px-1.5" aria-label={`Remove ${called}`} onClick={onRemove}>
          <X size={16} aria-hidden />
        </Button>
      </div>
      {kindsOfPart[part.kind].items === "words" && (
        <label className="flex min-h-8 items-center gap-2 text-sm">
          <input
            type="checkbox"
            className="size-4 accent-leaf"
            checked={hasMarks(part)}
            aria-label={`Marks under sounds: ${called}`}
            onChange={(event) => onPut({ marks: event.target.checked })}
          />
          marks under the sounds
        </label>
      )}
      <TextArea
        bare
        rows={1}
        maxLength={400}
        label={`In your own words: ${called}`}
        placeholder={about}
        value={part.how}
        onChange={(event) => onPut({ how: event.target.value })}
      />
    </li>
  );
}
