import type { Week } from "#contract";
import { type Cost, type WishName, wishNames } from "#core/groups";
import { plural } from "#core/saying";
import { Choice } from "#web/parts/field.tsx";

const wishes: Readonly<Record<WishName, string>> = {
  adult: "One adult for a group",
  time: "A group at the same time of the day",
  morning: "Mornings",
  apart: "Not on two days running",
  turns: "Lessons missed in turn",
};
const steps = [
  { value: 0, says: "does not matter" },
  { value: 1, says: "a little" },
  { value: 2, says: "matters" },
  { value: 4, says: "matters much" },
  { value: 10, says: "above all else" },
];

/** How far wishes are kept, in a sentence. */
export function wishesInWords(times: Cost["times"]): string {
  const says: Readonly<Record<WishName, (count: number) => string>> = {
    adult: (count) => `${plural(count, "change")} of the adult within a group`,
    time: (count) => `${plural(count, "change")} of the time of day`,
    morning: (count) => `${plural(count, "session")} after noon`,
    apart: (count) => `${plural(count, "time")} two days running`,
    turns: (count) => `${plural(count, "time")} a child misses a lesson again`,
  };
  const missed = wishNames.filter((name) => times[name] > 0).map((name) => says[name](times[name]));
  return missed.length === 0 ? "Every wish is kept." : `${missed.join(", ")}.`;
}

/** What is wished for, and how much each wish counts. */
export function Wishes({
  weights,
  times,
  onSet,
}: {
  weights: Week["weights"];
  times: Cost["times"];
  onSet: (weights: Week["weights"]) => void;
}) {
  return (
    <details className="rounded-md border border-line px-3 py-1.5">
      <summary className="cursor-pointer">
        <span className="font-semibold">What counts</span>{" "}
        <span className="text-sm text-soft">rules are kept before any wish</span>
      </summary>
      <div className="mt-2 grid gap-3 pb-2 sm:grid-cols-2 lg:grid-cols-5">
        {wishNames.map((name) => (
          <Choice
            key={name}
            label={wishes[name]}
            hint={times[name] === 0 ? "kept" : `not kept ${plural(times[name], "time")}`}
            value={weights[name]}
            onChange={(event) => onSet({ ...weights, [name]: Number(event.target.value) })}
          >
            {steps.some(({ value }) => value === weights[name]) || (
              <option value={weights[name]}>{weights[name]}</option>
            )}
            {steps.map(({ value, says }) => (
              <option key={value} value={value}>
                {says}
              </option>
            ))}
          </Choice>
        ))}
      </div>
    </details>
  );
}
