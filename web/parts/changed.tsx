import type { Changes } from "#contract";
import { readSkill } from "#core/mastery";
import { plural } from "#core/saying";
import { LeafMark, Spelling } from "./marks.tsx";
import { Panel } from "./page.tsx";

type Change = Changes["changes"][number];
const MOST = 12;

interface ChangedWanted {
  /** Undefined as long as it is not worked out. */
  readonly data: Changes | undefined;
  /** What changed it, in a word: `check`, `reading`. */
  readonly what: string;
  /** What is said meanwhile. */
  readonly meanwhile?: string;
}

/** What some answers changed on the map: what stood there without them, and what stands there now. */
export function Changed({ data, what, meanwhile = "…" }: ChangedWanted) {
  return (
    <Panel title="What changed on the map">
      <ChangeList {...{ data, what, meanwhile }} columns="sm:grid-cols-2 lg:grid-cols-3" />
    </Panel>
  );
}

/** The same by itself, in as many columns as there is room for. */
export function ChangeList({
  data,
  what,
  meanwhile = "…",
  columns = "",
}: ChangedWanted & { readonly columns?: string }) {
  return (
    <>
      {!data ? (
        <p className="text-soft">{meanwhile}</p>
      ) : data.changes.length === 0 ? (
        <p>Nothing: what was marked fits with what was believed before.</p>
      ) : (
        <>
          <ul className={`grid gap-x-8 gap-y-1.5 ${columns}`}>
            {data.changes.slice(0, MOST).map((change) => (
              <li key={change.skill} className="flex min-h-8 items-center gap-2">
                <Thing skill={change.skill} />
                <Stood {...change.before} />
                <span className="text-soft">
                  <span aria-hidden>→</span>
                  <span className="sr-only">, now </span>
                </span>
                <Stood {...change.after} />
              </li>
            ))}
          </ul>
          <p className="mt-3 text-sm text-soft">
            {data.changes.length > MOST && `${data.changes.length - MOST} more moved. `}
            This {what} spoke of {plural(data.skills, "skill")}; the others stand as they did.
          </p>
        </>
      )}
    </>
  );
}

/** What the skill is about: a spelling read or written, or a word as a whole. */
function Thing({ skill }: { skill: string }) {
  const { verb, thing } = readSkill(skill);
  const writes = verb === "spell" || verb === "write";
  return (
    <span className="min-w-16">
      {verb === "say" || verb === "spell" ? <Spelling gpc={thing} /> : <span className="font-child">{thing}</span>}
      {writes && <span className="text-sm text-soft"> written</span>}
    </span>
  );
}

function Stood({ chance, state }: Change["before"]) {
  return (
    <span className="flex items-center gap-1 text-sm whitespace-nowrap">
      {state && <LeafMark state={state} chance={chance} />}
      {state ? `${state}, ` : ""}
      {Math.round(chance * 100)}%
    </span>
  );
}
