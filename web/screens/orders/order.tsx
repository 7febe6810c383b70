import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { SortableContext, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { useEffect, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { addOrder, editOrder, getSchool, type OrderView, removeOrder } from "#contract";
import { addStep, allGpcs, moveGpc, moveStep, type OrderContent, orderProblems } from "#core/order";
import { showGrapheme, splitGpc } from "#core/phonics";
import { plural } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { newId } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { TextArea, TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault, Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { spokenDrag } from "#web/parts/spoken-drag.ts";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { PointsCard } from "./points-card.tsx";
import { StepCard } from "./step-card.tsx";
import { UnitsCard } from "./units-card.tsx";

export function Screen() {
  const { orderId } = useParams();
  const { data, error } = useAsk(getSchool, {});
  const order = data?.orders.find((one) => one.id === orderId);
  if (error && !data)
    return (
      <Page place="Teaching order" title="Teaching order">
        <Trouble error={error} />
      </Page>
    );
  if (!data)
    return (
      <Page place="Teaching order" title="Teaching order">
        <Waiting rows={10} />
      </Page>
    );
  if (!order) {
    return (
      <Page place="Teaching order" title="This order is not here any more">
        <ButtonLink to="/orders">Go to Teaching orders</ButtonLink>
      </Page>
    );
  }
  return <Editor key={order.id} order={order} />;
}

/** The wire's arrays are mutable, core's are not. */
/** What an id of a drag stands for. */
function calledIn(order: OrderContent, id: string): string {
  const [kind, what = ""] = id.split("|");
  if (kind === "step") return order.steps.find((step) => step.id === what)?.title ?? "the step";
  return showGrapheme(splitGpc(what).grapheme);
}

/** Edits a draft. What others save meanwhile is taken over only while nothing was changed here. */
function Editor({ order }: { order: OrderView }) {
  const [base, setBase] = useState(order);
  const [draft, setDraft] = useState<OrderContent>(order.content);
  const [busy, setBusy] = useState(false);
  const lead = useIsAtLeast("lead");
  const locked = order.shipped || !lead;
  const navigate = useNavigate();
  const changed = draft !== base.content;
  if (!changed && order.version > base.version) {
    setBase(order);
    setDraft(order.content);
  }
  const problems = orderProblems(draft);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));

  useUnsaved(changed);

  const copied = useRef<{ said: string; id: string }>(undefined);
  const run = async (write: () => Promise<unknown>, said?: string) => {
    setBusy(true);
    try {
      await write();
      await refreshAll();
      if (said) toast(said);
      return true;
    } catch (error) {
      toast.error(wordsOfError(error));
      return false;
    } finally {
      setBusy(false);
    }
  };
  const save = async () => {
    let saved: OrderView | undefined;
    const write = async () => {
      saved = await saveOver({
        content: { content: draft },
        onto: base.version,
        send: (mine, version) => call(editOrder, { params: { id: order.id }, body: { ...mine, version } }),
        says: ({ content }) => ({
          Name: content.name,
          "What kind": content.kind,
          Why: content.why,
          Steps: content.steps
            .map(({ title, gpcs, exceptionWords }) =>
              [
                title,
                gpcs.map((gpc) => showGrapheme(splitGpc(gpc).grapheme)).join(" "),
                exceptionWords.join(" "),
              ].join(": "),
            )
            .join("\n"),
        }),
        both: {
          says: "Keep mine as a copy",
          keep: ({ content }) => {
            const name = `${content.name}, our copy`.slice(0, 80);
            return call(addOrder, { body: { id: newId(), content: { ...content, name } } });
          },
        },
      });
      const here = saved?.id === order.id ? saved : null;
      // Theirs comes with the next look at the order.
      setBase(here ?? { ...base, version: 0, content: base.content });
      setDraft(here?.content ?? base.content);
    };
    if (!(await run(write)) || !saved) return;
    toast("Saved. Checks and gaps follow this order now.");
    // A copy of its own is gone to once the list has it.
    if (saved.id !== order.id) navigate(`/orders/${saved.id}`);
  };
  const copy = async () => {
    const content = { ...draft, name: `${draft.name}, our copy`.slice(0, 80) };
    // A copy that is asked for again because the answer was slow is the same copy.
    const said = JSON.stringify(content);
    if (copied.current?.said !== said) copied.current = { said, id: newId() };
    const { id } = copied.current;
    if (await run(() => call(addOrder, { body: { id, content } }), "This copy is yours to edit."))
      navigate(`/orders/${id}`);
  };
  const remove = async () => {
    if (!(await run(() => call(removeOrder, { params: { id: order.id } })))) return;
    navigate("/orders");
    toastWithUndo(`${base.content.name} is removed.`, async () => {
      try {
        await call(addOrder, { body: { id: order.id, content: base.content } });
        await refreshAll();
      } catch (error) {
        toast.error(wordsOfError(error));
      }
    });
  };

  const refocus = useRef<string | null>(null);
  useEffect(() => {
    if (!refocus.current) return;
    document.getElementById(refocus.current)?.focus();
    refocus.current = null;
  });
  /** A move made by an arrow key keeps the focus on what was moved. */
  const moveByKey = (id: string, next: OrderContent) => {
    refocus.current = id;
    setDraft(next);
  };

  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const [kind, what = ""] = String(active.id).split("|");
    const [overKind, overWhat = ""] = String(over.id).split("|");
    const stepAt = (id: string) => draft.steps.findIndex((step) => step.id === id);
    const stepHolding = (gpc: string) => draft.steps.find((step) => step.gpcs.includes(gpc));
    const toStep = overKind === "gpc" ? stepHolding(overWhat)?.id : overWhat;
    if (toStep === undefined) return;
    if (kind === "step") setDraft(moveStep(draft, stepAt(what), stepAt(toStep)));
    else
      setDraft(
        moveGpc(draft, what, toStep, overKind === "gpc" ? (stepHolding(overWhat)?.gpcs.indexOf(overWhat) ?? 0) : 999),
      );
  };

  return (
    <Page
      place="Teaching order"
      title={draft.name || "Without a name"}
      about={`${plural(allGpcs(draft).length, "spelling")} in ${plural(draft.steps.length, "step")}. ${!lead ? "The lead of your school changes it." : order.shipped ? "It ships with the tool and stays as it is; copy it to change it." : "Drag steps and spellings, or focus one and move it with the arrow keys."}`}
      actions={
        !lead ? undefined : order.shipped ? (
          <Button shape="main" onClick={copy} disabled={busy}>
            Copy and edit
          </Button>
        ) : (
          <>
            {changed && <Button onClick={() => setDraft(base.content)}>Discard changes</Button>}
            <Button onClick={copy} disabled={busy}>
              Copy
            </Button>
            <Button
              onClick={remove}
              disabled={busy || order.usedBy.length > 0}
              title={order.usedBy.length > 0 ? "A class uses it" : undefined}
            >
              Remove
            </Button>
            <Button shape="main" onClick={save} disabled={!changed || busy || problems.length > 0}>
              {changed ? "Save changes" : "Saved"}
            </Button>
          </>
        )
      }
    >
      {!locked && (
        <div className="mb-4 grid gap-3 md:grid-cols-2">
          <TextField
            label="Name"
            maxLength={80}
            value={draft.name}
            onChange={(event) => setDraft({ ...draft, name: event.target.value })}
          />
          <TextField
            label="Kind"
            maxLength={200}
            value={draft.kind}
            onChange={(event) => setDraft({ ...draft, kind: event.target.value })}
          />
          <div className="md:col-span-2">
            <TextArea
              label="Who prefers it, and why"
              rows={2}
              maxLength={400}
              value={draft.why}
              onChange={(event) => setDraft({ ...draft, why: event.target.value })}
            />
          </div>
        </div>
      )}
      <Fault className="mb-3">{problems[0]}</Fault>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={dropped}
        accessibility={spokenDrag({
          what: (id) => calledIn(draft, id),
          where: (id) => calledIn(draft, id),
          how: "Press the arrow keys to move it.",
        })}
      >
        <SortableContext items={draft.steps.map((step) => `step|${step.id}`)} strategy={verticalListSortingStrategy}>
          <ol className="flex flex-col gap-2">
            {draft.steps.map((step, at) => (
              <StepCard
                key={step.id}
                step={step}
                number={at + 1}
                order={draft}
                locked={locked}
                onChange={setDraft}
                onMove={moveByKey}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {!locked && (
        <Button className="mt-3" onClick={() => setDraft(addStep(draft, `s${Date.now().toString(36)}`))}>
          Add a step
        </Button>
      )}
      <UnitsCard order={draft} locked={locked} />
      <PointsCard order={draft} locked={locked} onChange={setDraft} />
    </Page>
  );
}
