import { X } from "lucide-react";
import type { ReactNode } from "react";
import type { Grouping } from "#contract";
import { plural } from "#core/saying";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { groupsFor } from "./ways.ts";

interface PartWanted {
  readonly grouping: Grouping;
  readonly onChange: (grouping: Grouping) => void;
}

function clamp(text: string, least: number, most: number): number {
  return Math.max(least, Math.min(most, Math.round(Number(text)) || least));
}

/** A part of how groups are made: what it is set to in a line, the rest when it is opened. */
export function Fold({ title, now, children }: { title: string; now: string; children: ReactNode }) {
  return (
    <details className="rounded-md border border-line px-3 py-1.5">
      <summary className="cursor-pointer">
        <span className="font-semibold">{title}</span> <span className="text-sm text-soft">{now}</span>
      </summary>
      <div className="mt-2 pb-1">{children}</div>
    </details>
  );
}

/** A whole number in a narrow field. */
export function NumberField({
  label,
  value,
  least,
  most,
  onChange,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  onChange: (value: number) => void;
}) {
  return (
    <div className="w-20">
      <TextField
        label={label}
        type="number"
        min={least}
        max={most}
        value={value}
        onChange={(event) => onChange(clamp(event.target.value, least, most))}
      />
    </div>
  );
}

/** Who takes groups, and how many sessions a week each can hold. */
export function Adults({ grouping, onChange }: PartWanted) {
  const { adults, sessionsAWeek } = grouping;
  const put = (id: string, change: Partial<Grouping["adults"][number]>) =>
    onChange({ ...grouping, adults: adults.map((one) => (one.id === id ? { ...one, ...change } : one)) });
  const all = groupsFor(grouping);
  const now =
    all === undefined
      ? "not told: as many groups as it takes"
      : `${plural(adults.length, "adult")}, ${plural(all, "group")}`;
  return (
    <Fold title="Adults" now={now}>
      <div className="mb-2 flex items-end gap-3">
        <NumberField
          label="Sessions"
          value={sessionsAWeek}
          least={1}
          most={10}
          onChange={(value) => onChange({ ...grouping, sessionsAWeek: value })}
        />
        <p className="pb-2 text-sm text-soft">
          a week for each group. An adult takes as many groups as fit their week.
        </p>
      </div>
      <ul className="flex flex-col gap-1.5">
        {adults.map(({ id, name, sessions }, at) => (
          <li key={id} className="flex items-end gap-2">
            <div className="w-44">
              <TextField
                label={at === 0 ? "Name" : `Name of adult ${at + 1}`}
                bare={at > 0}
                maxLength={60}
                value={name}
                onChange={(event) => put(id, { name: event.target.value })}
              />
            </div>
            <div className="w-24">
              <TextField
                label={at === 0 ? "A week" : `Sessions a week of adult ${at + 1}`}
                bare={at > 0}
                type="number"
                min={0}
                max={60}
                value={sessions}
                onChange={(event) => put(id, { sessions: clamp(event.target.value, 0, 60) })}
              />
            </div>
            <Button
              shape="quiet"
              aria-label={`Remove ${name || `adult ${at + 1}`}`}
              onClick={() => onChange({ ...grouping, adults: adults.filter((one) => one.id !== id) })}
            >
              <X size={16} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
      <Button
        className="mt-2"
        onClick={() =>
          onChange({
            ...grouping,
            adults: [...adults, { id: newId(), name: `Adult ${adults.length + 1}`, sessions: 4 }],
          })
        }
      >
        Add an adult
      </Button>
    </Fold>
  );
}

const staying = [
  { value: 0, says: "does not matter" },
  { value: 0.25, says: "matters a little" },
  { value: 0.75, says: "matters" },
  { value: 1.5, says: "matters most" },
];

/** Which children may share a group, and whether they stay with those they are with. */
export function WhoWithWhom({ grouping, onChange }: PartWanted) {
  const { withinClasses, yearsApart, stay } = grouping;
  const now = [
    withinClasses ? "one class to a group" : "across classes",
    yearsApart === null ? undefined : `years at most ${yearsApart} apart`,
    `staying together ${staying.find(({ value }) => value === stay)?.says ?? "matters"}`,
  ];
  return (
    <Fold title="Who with whom" now={now.filter(Boolean).join(", ")}>
      <div className="flex flex-wrap items-end gap-3">
        <label className="flex min-h-9 items-center gap-1.5">
          <input
            type="checkbox"
            className="size-4 accent-leaf"
            checked={withinClasses}
            onChange={(event) => onChange({ ...grouping, withinClasses: event.target.checked })}
          />{" "}
          One class to a group
        </label>
        <div className="w-44">
          <Choice
            label="Year groups in one"
            value={yearsApart ?? ""}
            onChange={(event) =>
              onChange({ ...grouping, yearsApart: event.target.value === "" ? null : Number(event.target.value) })
            }
          >
            <option value="">any</option>
            <option value={0}>the same</option>
            <option value={1}>at most 1 apart</option>
            <option value={2}>at most 2 apart</option>
          </Choice>
        </div>
        <div className="w-44">
          <Choice
            label="Staying together"
            value={stay}
            onChange={(event) => onChange({ ...grouping, stay: Number(event.target.value) })}
          >
            {staying.map(({ value, says }) => (
              <option key={value} value={value}>
                {says}
              </option>
            ))}
          </Choice>
        </div>
      </div>
    </Fold>
  );
}

const parts = [
  { part: "words", short: "words", label: "Common words it opens", why: "met again and again, whatever is read" },
  {
    part: "texts",
    short: "texts",
    label: "Texts of the shelf it opens",
    why: "few, and each is a book to take home",
  },
  {
    part: "next",
    short: "what comes next",
    label: "What the class is taught next needs it",
    why: "it can be met again when it is there",
  },
  {
    part: "fades",
    short: "what fades",
    label: "How soon it will be lost",
    why: "what of its chance goes in four weeks; counts nothing at first, since a revisit holds it",
  },
  {
    part: "mixed",
    short: "what is mixed up",
    label: "A mix-up that it would settle",
    why: "it spoils words that would come right otherwise",
  },
] as const;

/** What counts for what is worth teaching: the order of what is proposed follows each slider at once. */
export function WhatCounts({ grouping, first, onChange }: PartWanted & { first: readonly string[] }) {
  const { weights } = grouping;
  return (
    <Fold title="What counts" now={parts.map(({ part, short }) => `${short} ${weights[part]}`).join(", ")}>
      <div className="grid gap-2 md:grid-cols-3">
        {parts.map(({ part, label, why }) => (
          <label key={part} className="text-sm">
            <span className="font-semibold">{label}</span>
            <span className="flex items-center gap-2">
              <input
                type="range"
                min={0}
                max={10}
                value={weights[part]}
                className="w-full accent-leaf"
                onChange={(event) =>
                  onChange({ ...grouping, weights: { ...weights, [part]: Number(event.target.value) } })
                }
              />
              <span className="w-5 text-right tabular-nums">{weights[part]}</span>
            </span>
            <span className="text-soft">{why}</span>
          </label>
        ))}
      </div>
      {first.length > 0 && (
        <p className="mt-2 text-sm" role="status">
          Worth most to these children now: {first.join("; ")}.
        </p>
      )}
    </Fold>
  );
}
