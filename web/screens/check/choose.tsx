import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { type ChildView, countCards, getSchool, listChildren, startCheck } from "#contract";
import { MOST_CARDS, type Scope } from "#core/checks";
import { call, refreshAll, useAsk, wordsOfError } from "#web/app/api.ts";
import { newId, newSeed } from "#web/app/device.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { nearDay } from "#web/parts/dates.ts";
import { TextField } from "#web/parts/field.tsx";
import { Spelling } from "#web/parts/marks.tsx";
import { Empty, Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";

/** Choose a child and what to check. */
export function Screen() {
  const [search, setSearch] = useSearchParams();
  const school = useAsk(getSchool, {});
  const children = useAsk(listChildren, {});
  const [filter, setFilter] = useState("");
  const childId = search.get("child");
  const classes = new Map(school.data?.classes.filter((one) => !one.archived).map((one) => [one.id, one.name]));
  const here = (children.data ?? []).filter((child) => !child.archived && classes.has(child.classId));
  const shown = here.filter((child) => child.name.toLowerCase().includes(filter.trim().toLowerCase()));
  const chosen = here.find((child) => child.id === childId);

  if (children.error && !children.data)
    return (
      <Page place="Check" title="Check sounds">
        <Trouble error={children.error} />
      </Page>
    );
  if (!children.data || !school.data)
    return (
      <Page place="Check" title="Check sounds">
        <Waiting />
      </Page>
    );
  return (
    <Page
      place="Check"
      title="Check sounds"
      about="The child sees one spelling at a time and says its sound. One key or one tap marks it."
    >
      {here.length === 0 ? (
        <Empty
          action={
            <ButtonLink to="/class" shape="main">
              Go to Class
            </ButtonLink>
          }
        >
          Here you check which sounds a child says at sight. It begins with a class list.
        </Empty>
      ) : (
        <div className="grid items-start gap-4 md:grid-cols-[18rem_1fr]">
          <Panel title="Child">
            <TextField
              bare
              label="Find a child"
              placeholder="Find a child"
              value={filter}
              onChange={(event) => setFilter(event.target.value)}
            />
            <ul className="mt-2 max-h-[26rem] overflow-y-auto" aria-label="Children">
              {shown.map((child) => (
                <li key={child.id}>
                  <button
                    type="button"
                    aria-pressed={child.id === childId}
                    onClick={() => setSearch({ child: child.id }, { replace: true })}
                    className={`flex w-full justify-between rounded px-2 py-1.5 text-left ${child.id === childId ? "bg-leaf-pale font-semibold" : "hover:bg-leaf-pale/60"}`}
                  >
                    {child.name}
                    <span className="text-sm font-normal text-soft">
                      {child.lastChecked ? nearDay(child.lastChecked, school.data?.today ?? "") : "not yet"}
                    </span>
                  </button>
                </li>
              ))}
              {shown.length === 0 && <li className="px-2 py-1.5 text-soft">No child has that name.</li>}
            </ul>
          </Panel>
          {chosen ? (
            <What key={chosen.id} child={chosen} className={classes.get(chosen.classId) ?? ""} />
          ) : (
            <Empty>Choose a child on the left. What to check is suggested then.</Empty>
          )}
        </div>
      )}
    </Page>
  );
}

function What({ child, className }: { child: ChildView; className: string }) {
  const navigate = useNavigate();
  const [scope, setScope] = useState<Scope>("due");
  const [steps, setSteps] = useState(3);
  const [picked, setPicked] = useState<readonly string[]>([]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { data, error } = useAsk(
    countCards,
    { params: { id: child.id }, query: { recentSteps: steps } },
    { keepPreviousData: true },
  );
  if (error && !data) return <Trouble error={error} />;
  if (!data) return <Waiting />;
  const decks: Record<Scope, readonly string[]> = { due: data.due, all: data.all, recent: data.recent, picked };
  const count = decks[scope].length;
  const minutes = Math.max(1, Math.round((count * ((data.msPerCard ?? 2500) + 1500)) / 60_000));

  const start = async () => {
    const id = newId();
    setTrouble(null);
    try {
      await call(startCheck, {
        body: {
          id,
          childId: child.id,
          scope,
          picked: [...picked],
          recentSteps: steps,
          seed: newSeed(),
          startedAt: new Date().toISOString(),
        },
      });
      void refreshAll();
      navigate(`/check/${id}`);
    } catch (problem) {
      setTrouble(wordsOfError(problem));
    }
  };
  const choices: [Scope, string, string][] = [
    ["due", "What is not secure yet", `Taught and not known to be secure, at most ${MOST_CARDS} cards`],
    ["all", "Everything taught", "The whole deck"],
    ["recent", `The last ${steps} steps`, "What was taught lately"],
    ["picked", "Picked by hand", "Choose from what is taught"],
  ];
  return (
    <Panel title={`${child.name}, ${className}`}>
      {child.note && <p className="mb-3 rounded-md bg-leaf-pale px-3 py-2">{child.note}</p>}
      {data.openCheck && (
        <div className="mb-4 flex flex-wrap items-center justify-between gap-2 rounded-md border border-damson px-3 py-2">
          A check of this child is still open.
          <ButtonLink to={`/check/${data.openCheck}`}>Go on with it</ButtonLink>
        </div>
      )}
      <fieldset className="flex flex-col gap-2">
        <legend className="mb-1 font-semibold">What to check</legend>
        {choices.map(([value, name, hint]) => (
          <label
            key={value}
            className={`flex cursor-pointer items-start gap-3 rounded-md border px-3 py-2 ${scope === value ? "border-leaf bg-leaf-pale" : "border-line"}`}
          >
            <input
              type="radio"
              name="scope"
              value={value}
              checked={scope === value}
              onChange={() => setScope(value)}
              className="mt-1 accent-leaf"
            />
            <span className="flex-1">
              {name}
              <span className="block text-sm text-soft">{hint}</span>
            </span>
            <span className="tabular-nums">{decks[value].length} cards</span>
          </label>
        ))}
      </fieldset>
      {scope === "recent" && (
        <div className="mt-3 w-40">
          <TextField
            label="Steps back"
            type="number"
            min={1}
            max={40}
            value={steps}
            onChange={(event) => setSteps(Math.min(40, Math.max(1, Number(event.target.value) || 1)))}
          />
        </div>
      )}
      {scope === "picked" && <Picker gpcs={data.all} picked={picked} onPick={setPicked} />}
      {count === 0 && scope !== "picked" && (
        <p className="mt-3 text-soft">
          {data.all.length === 0
            ? "Nothing is marked as taught in this class yet. Mark it in Class, or pick spellings by hand after that."
            : "Nothing of this is left to check: all of it is secure."}
        </p>
      )}
      {trouble && (
        <p role="alert" className="mt-3 text-damson">
          {trouble}
        </p>
      )}
      <div className="mt-4 flex items-center gap-4">
        <Button shape="main" className="min-h-11 px-5" disabled={count === 0} onClick={start}>
          Begin the check
        </Button>
        {count > 0 && (
          <p className="text-soft">
            {count} cards, about {minutes} {minutes === 1 ? "minute" : "minutes"}
            {data.msPerCard ? " at this child's pace" : ""}
          </p>
        )}
      </div>
    </Panel>
  );
}

function Picker({
  gpcs,
  picked,
  onPick,
}: {
  gpcs: readonly string[];
  picked: readonly string[];
  onPick: (picked: readonly string[]) => void;
}) {
  return (
    <fieldset className="mt-3 flex flex-wrap gap-1.5">
      <legend className="sr-only">Spellings to check</legend>
      {gpcs.map((gpc) => {
        const on = picked.includes(gpc);
        return (
          <button
            key={gpc}
            type="button"
            aria-pressed={on}
            onClick={() => onPick(on ? picked.filter((other) => other !== gpc) : [...picked, gpc])}
            className={`rounded border p-0.5 ${on ? "border-leaf bg-leaf-pale" : "border-transparent"}`}
          >
            <Spelling gpc={gpc} />
          </button>
        );
      })}
    </fieldset>
  );
}
