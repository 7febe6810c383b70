import { Choice } from "./field.tsx";
import { Spelling } from "./marks.tsx";
import type { SharedNeed } from "./other-needs.ts";

/** What a session teaches: one spelling or two, or what it is about in place of them. */
export function Teaches({
  target,
  second,
  about,
}: {
  target: string;
  second?: string | null | undefined;
  about: string | null;
}) {
  if (about) return <span>{about}</span>;
  return (
    <>
      <Spelling gpc={target} /> {second && <Spelling gpc={second} />}
    </>
  );
}

/** What a session can be about that is no spelling. */
export interface About {
  readonly name: string;
  readonly ids: readonly string[];
}

/** Needs that one session takes up together. */
const MOST = 6;

/** What sessions of children with these needs can be about: each by itself, and the whole words that they miss as one. */
export function aboutOf(needs: readonly SharedNeed[]): readonly About[] {
  const words = needs.filter(({ kind }) => kind === "word").flatMap(({ ids }) => ids);
  const others = needs.filter(({ kind }) => kind !== "word");
  return [
    ...others.map(({ name, ids }) => ({ name, ids: ids.slice(0, MOST) })),
    ...(words.length > 0 ? [{ name: "exception words that they miss", ids: words.slice(0, MOST) }] : []),
  ];
}

/** Chooses what a session is about in place of a spelling; null is a spelling. */
export function AboutChoice({
  options,
  value,
  onSet,
}: {
  options: readonly About[];
  value: readonly string[] | null;
  onSet: (ids: readonly string[] | null) => void;
}) {
  const key = (ids: readonly string[]) => ids.join("|");
  return (
    <Choice
      label="About"
      // Its place is there before what these children need has come: nothing jumps under a finger.
      disabled={options.length === 0}
      value={value ? key(value) : ""}
      onChange={(event) => onSet(options.find(({ ids }) => key(ids) === event.target.value)?.ids ?? null)}
    >
      <option value="">a spelling</option>
      {options.map(({ name, ids }) => (
        <option key={key(ids)} value={key(ids)}>
          {name}
        </option>
      ))}
    </Choice>
  );
}
