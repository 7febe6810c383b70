import { Plus } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { beginYear, type ChildView, getSchool, lastYear, listChildren, type School, undoYear } from "#contract";
import { type ClassMove, movedUp, saysYear, type YearPlan, yearProblems } from "#core/roster";
import { plural } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault, Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** A new school year for all classes, in one step. */
export function Screen() {
  const school = useAsk(getSchool, {});
  const children = useAsk(listChildren, { query: {} });
  const year = useAsk(lastYear, {});
  const error = school.error ?? children.error ?? year.error;
  const there = school.data && children.data && year.data;
  return (
    <Page
      place="New school year"
      title="New school year"
      about="Classes move up or leave, children change class, all in one step. Teaching orders, what was taught and everything that was marked stay. It can be taken back for a day."
    >
      {error && !there && <Trouble error={error} />}
      {!there && !error && <Waiting rows={10} />}
      {there && school.data && children.data && (
        <>
          {year.data?.year?.until && <Begun year={year.data.year} until={year.data.year.until} />}
          <Plan
            // Begun or taken back, the next plan starts from what stands then.
            key={`${year.data?.year?.id} ${year.data?.year?.undoneAt}`}
            school={school.data}
            everyone={children.data.filter((one) => !one.archived)}
          />
        </>
      )}
    </Page>
  );
}

const asTime = (instant: string) =>
  new Date(instant).toLocaleString("en-GB", { weekday: "long", hour: "2-digit", minute: "2-digit" });

function Begun({ year, until }: { year: { id: string; begunAt: string }; until: string }) {
  const [busy, setBusy] = useState(false);
  const undo = async () => {
    setBusy(true);
    try {
      const { kept } = await call(undoYear, { params: { id: year.id } });
      await refreshAll();
      toast(
        kept.length === 0 ? "The school year is taken back." : `The school year is taken back. ${kept.join(" ")}`,
      );
    } catch (error) {
      toast.error(wordsOfError(error));
    }
    setBusy(false);
  };
  return (
    <div className="mb-4 flex flex-wrap items-center justify-between gap-3 rounded-md border border-line bg-leaf-pale px-4 py-3">
      <p>
        A school year was begun on {asTime(year.begunAt)}. Until {asTime(until)} it can be taken back.
      </p>
      <Button onClick={undo} working={busy}>
        Take it back
      </Button>
    </div>
  );
}

interface NewClass {
  readonly id: string;
  readonly name: string;
  readonly yearGroup: string;
  readonly orderId: string;
}

function Plan({ school, everyone }: { school: School; everyone: readonly ChildView[] }) {
  const navigate = useNavigate();
  const here = school.classes.filter((one) => !one.archived);
  const [id] = useState(newId);
  const [classes, setClasses] = useState<readonly ClassMove[]>(() => movedUp(here));
  const [added, setAdded] = useState<readonly NewClass[]>([]);
  const [own, setOwn] = useState<ReadonlyMap<string, string | null>>(new Map());
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();
  const [touched, setTouched] = useState(false);
  const saved = useUnsaved(touched);

  const plan: YearPlan & { readonly added: readonly NewClass[] } = {
    classes,
    added,
    children: everyone.flatMap((child) => {
      const to = own.get(child.id);
      return to === undefined ? [] : [{ id: child.id, from: child.classId, to }];
    }),
  };
  const problems = yearProblems(plan, { classes: here, children: everyone });
  const problemOf = (of: string) => problems.find((one) => one.id === of)?.says;
  const open = [...classes.filter((one) => !one.leaves), ...added];

  const change = (of: string, what: Partial<ClassMove>) => {
    setTouched(true);
    setClasses(classes.map((one) => (one.id === of ? { ...one, ...what } : one)));
  };
  const changeNew = (of: string, what: Partial<NewClass>) => {
    setTouched(true);
    setAdded(added.map((one) => (one.id === of ? { ...one, ...what } : one)));
  };
  const send = (child: ChildView, value: string) => {
    setTouched(true);
    const next = new Map(own);
    if (value === WITH_CLASS) next.delete(child.id);
    else next.set(child.id, value === LEAVES ? null : value);
    setOwn(next);
  };
  const begin = async () => {
    setBusy(true);
    setProblem(undefined);
    try {
      await call(beginYear, {
        body: { id, classes: [...classes], added: [...added], children: [...plan.children] },
      });
      saved();
      await refreshAll();
      toast("The new school year has begun. It can be taken back here for a day.");
      setAsking(false);
      navigate("/class");
    } catch (error) {
      setProblem(wordsOfError(error));
      await refreshAll();
    }
    setBusy(false);
  };

  if (here.length === 0) return <p>There is no class yet. Add the first one on Class.</p>;
  return (
    <div className="flex flex-col gap-4">
      <Panel title="Classes">
        <ul className="flex flex-col divide-y divide-line">
          {here.map((one, at) => {
            const move = classes[at] as ClassMove;
            return (
              <li key={one.id} className="grid grid-cols-1 items-start gap-3 py-3 sm:grid-cols-[1fr_1.2fr_1fr_1.2fr]">
                <p className="pt-1">
                  <span className="font-semibold">{one.name}</span>
                  <span className="block text-sm text-soft">
                    {[one.yearGroup, plural(one.children, "child", "children")].filter(Boolean).join(", ")}
                  </span>
                </p>
                <TextField
                  label={`Name of ${one.name} next year`}
                  value={move.name}
                  maxLength={60}
                  disabled={move.leaves}
                  problem={problemOf(one.id)}
                  onChange={(event) => change(one.id, { name: event.target.value })}
                />
                <TextField
                  label="Year group"
                  value={move.yearGroup}
                  maxLength={30}
                  disabled={move.leaves}
                  onChange={(event) => change(one.id, { yearGroup: event.target.value })}
                />
                <Choice
                  label={`What becomes of ${one.name}`}
                  value={move.leaves ? LEAVES : "on"}
                  onChange={(event) => change(one.id, { leaves: event.target.value === LEAVES })}
                >
                  <option value="on">goes on</option>
                  <option value={LEAVES}>leaves the school</option>
                </Choice>
              </li>
            );
          })}
          {added.map((one) => (
            <li key={one.id} className="grid grid-cols-1 items-start gap-3 py-3 sm:grid-cols-[1fr_1.2fr_1fr_1.2fr]">
              <p className="pt-1">
                <span className="font-semibold">New class</span>
                <Button shape="quiet" onClick={() => setAdded(added.filter(({ id: of }) => of !== one.id))}>
                  Take out
                </Button>
              </p>
              <TextField
                label="Name of the new class"
                autoFocus
                value={one.name}
                maxLength={60}
                problem={problemOf(one.id)}
                onChange={(event) => changeNew(one.id, { name: event.target.value })}
              />
              <TextField
                label="Year group"
                value={one.yearGroup}
                maxLength={30}
                onChange={(event) => changeNew(one.id, { yearGroup: event.target.value })}
              />
              <Choice
                label="Teaching order"
                value={one.orderId}
                onChange={(event) => changeNew(one.id, { orderId: event.target.value })}
              >
                {school.orders.map((order) => (
                  <option key={order.id} value={order.id}>
                    {order.content.name}
                  </option>
                ))}
              </Choice>
            </li>
          ))}
        </ul>
        <Button
          shape="quiet"
          onClick={() =>
            setAdded([...added, { id: newId(), name: "", yearGroup: "", orderId: school.orders[0]?.id ?? "" }])
          }
        >
          <Plus size={16} aria-hidden /> Add a new class
        </Button>
      </Panel>
      <Panel title="Children who do not go with their class">
        <p className="mb-2 text-sm text-soft">
          Open a class and choose for a child. A child in another class is asked what that class has been taught.
        </p>
        {here.map((one, at) => (
          <ClassChildren
            key={one.id}
            name={one.name}
            leaves={classes[at]?.leaves ?? false}
            whom={everyone.filter((child) => child.classId === one.id)}
            own={own}
            open={open}
            problemOf={problemOf}
            onChoose={send}
          />
        ))}
      </Panel>
      <div className="flex flex-wrap items-center justify-between gap-3">
        <p aria-live="polite">
          {problems.length === 0
            ? saysYear(plan, everyone)
            : `${plural(problems.length, "place")} above ${problems.length === 1 ? "needs" : "need"} another choice.`}
        </p>
        <Button shape="main" disabled={problems.length > 0} onClick={() => setAsking(true)}>
          Begin the new school year …
        </Button>
      </div>
      <Sheet open={asking} onClose={() => setAsking(false)} title="Begin the new school year">
        <p className="mb-2">{saysYear(plan, everyone)}</p>
        <p className="mb-3 text-soft">
          Who leaves is archived: their records stay until you erase them, and Settings say when that is due. For a
          day all of it can be taken back on this page.
        </p>
        <Fault className="mb-3">{problem}</Fault>
        <div className="flex justify-end gap-2">
          <Button onClick={() => setAsking(false)}>Cancel</Button>
          <Button shape="main" onClick={begin} working={busy}>
            Begin the new school year
          </Button>
        </div>
      </Sheet>
    </div>
  );
}

const WITH_CLASS = "with the class";
const LEAVES = "leaves";

interface ClassChildrenWanted {
  readonly name: string;
  readonly leaves: boolean;
  readonly whom: readonly ChildView[];
  readonly own: ReadonlyMap<string, string | null>;
  readonly open: readonly { readonly id: string; readonly name: string }[];
  readonly problemOf: (id: string) => string | undefined;
  readonly onChoose: (child: ChildView, value: string) => void;
}

function ClassChildren({ name, leaves, whom, own, open, problemOf, onChoose }: ClassChildrenWanted) {
  const wrong = whom.some((child) => problemOf(child.id));
  const [shown, setShown] = useState(false);
  const moved = whom.filter((child) => own.has(child.id)).length;
  return (
    <details
      open={shown || wrong}
      onToggle={(event) => setShown(event.currentTarget.open)}
      className="border-t border-line py-2"
    >
      <summary className="cursor-pointer py-1">
        {name} <span className="text-soft">{plural(whom.length, "child", "children")}</span>
        {moved > 0 && <span className="ml-2 text-leaf-dark">{moved} by themselves</span>}
      </summary>
      {(shown || wrong) && (
        <ul className="grid grid-cols-1 gap-3 py-2 sm:grid-cols-2 lg:grid-cols-3">
          {whom.map((child) => {
            const to = own.get(child.id);
            return (
              <li key={child.id}>
                <Choice
                  label={child.name}
                  value={to === undefined ? WITH_CLASS : (to ?? LEAVES)}
                  problem={problemOf(child.id)}
                  onChange={(event) => onChoose(child, event.target.value)}
                >
                  <option value={WITH_CLASS}>{leaves ? "leaves with the class" : "goes with the class"}</option>
                  {open
                    .filter((one) => one.id !== child.classId || own.has(child.id) || wrong)
                    .map((one) => (
                      <option key={one.id} value={one.id}>
                        into {one.name || "the new class"}
                      </option>
                    ))}
                  <option value={LEAVES}>leaves the school</option>
                </Choice>
              </li>
            );
          })}
        </ul>
      )}
    </details>
  );
}
