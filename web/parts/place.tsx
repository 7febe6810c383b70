import { useState } from "react";
import type { OrderView, PlaceView } from "#contract";
import { nearDay } from "#core/saying";
import { Button } from "./button.tsx";
import { Choice, TextField } from "./field.tsx";
import { Panel } from "./page.tsx";
import { toast } from "./toast.tsx";

/** A place in an order as it is chosen; null goes along with the class. */
export interface ChosenPlace {
  readonly orderId: string | null;
  readonly stepId: string | null;
  readonly again: boolean;
  readonly since: string;
}

interface PlaceWanted {
  readonly place: PlaceView;
  readonly orders: readonly OrderView[];
  readonly today: string;
  /** Whose place it is, in a word: child, group. */
  readonly who: "child" | "group";
  /** Of the class, for a child that goes along with it. */
  readonly className: string;
  /** @returns what stood against it, or null when it is kept */
  readonly onSave: (place: ChosenPlace) => Promise<string | null>;
}

/** Where a child or a group is in the teaching order, and whose place that is; a place of its own is given and ended here. */
export function PlacePanel({ place, orders, today, who, className, onSave }: PlaceWanted) {
  const [open, setOpen] = useState(false);
  const save = async (chosen: ChosenPlace) => {
    const problem = await onSave(chosen);
    if (problem !== null) return toast.error(problem);
    setOpen(false);
    toast("Kept. Checks, lists, texts and the map follow it.");
  };
  const order = orders.find((one) => one.id === place.orderId);
  const steps = order?.content.steps ?? [];
  const at = steps.findIndex((step) => step.id === place.stepId);
  const own = place.of === who;
  const where = at >= 0 ? `step ${at + 1} of ${steps.length}, ${steps[at]?.title}` : "nothing marked as taught yet";
  return (
    <Panel title="Place in the order">
      <p>
        {place.of === "class"
          ? who === "group"
            ? "Each child goes along with its class, or has a place of its own."
            : `With ${className}: ${where}.`
          : place.of === "group" && who === "child"
            ? `With the group “${place.groupName}”: ${where}.`
            : `A place of its own: ${where}${place.again ? ", a second time through" : ""}.`}
        {order && place.of !== "class" && (
          <span className="text-soft">
            {" "}
            {order.content.name}
            {place.since && `, ${nearDay(place.since, today)}`}.
          </span>
        )}
      </p>
      {open ? (
        <Choose {...{ place, orders, today, who }} onSave={save} onBack={() => setOpen(false)} />
      ) : (
        <p className="mt-2 flex flex-wrap gap-2">
          <Button onClick={() => setOpen(true)}>
            {own ? "Move on, or change it" : "Give it a place of its own"}
          </Button>
          {own && (
            <Button onClick={() => void save({ orderId: null, stepId: null, again: false, since: today })}>
              {who === "child" ? "Go along with the class again" : "Go along with the classes again"}
            </Button>
          )}
        </p>
      )}
    </Panel>
  );
}

function Choose({
  place,
  orders,
  today,
  onSave,
  onBack,
}: Pick<PlaceWanted, "place" | "orders" | "today"> & {
  onSave: (chosen: ChosenPlace) => Promise<void>;
  onBack: () => void;
}) {
  const [orderId, setOrderId] = useState(place.orderId ?? orders[0]?.id ?? "");
  const [stepId, setStepId] = useState(place.stepId ?? "");
  const [again, setAgain] = useState(place.again);
  const [since, setSince] = useState(today);
  const [busy, setBusy] = useState(false);
  const steps = orders.find((one) => one.id === orderId)?.content.steps ?? [];
  const save = async () => {
    setBusy(true);
    await onSave({ orderId, stepId, again, since });
    setBusy(false);
  };
  return (
    <div className="mt-3 grid gap-3 sm:grid-cols-2">
      <Choice
        label="Teaching order"
        value={orderId}
        onChange={(event) => {
          setOrderId(event.target.value);
          setStepId("");
        }}
      >
        {orders.map((one) => (
          <option key={one.id} value={one.id}>
            {one.content.name}
          </option>
        ))}
      </Choice>
      <Choice label="Taught up to" value={stepId} onChange={(event) => setStepId(event.target.value)}>
        <option value="" disabled>
          Choose a step
        </option>
        {steps.map((step, index) => (
          <option key={step.id} value={step.id}>
            {index + 1}. {step.title}
          </option>
        ))}
      </Choice>
      <TextField
        label="On"
        type="date"
        value={since}
        max={today}
        onChange={(event) => setSince(event.target.value)}
      />
      <label className="flex items-center gap-2 self-end pb-2">
        <input
          type="checkbox"
          checked={again}
          onChange={(event) => setAgain(event.target.checked)}
          className="accent-leaf"
        />
        A second time through: what comes later was taught before
      </label>
      <p className="col-span-full flex flex-wrap gap-2">
        <Button shape="main" disabled={busy || stepId === ""} onClick={() => void save()}>
          Keep this place
        </Button>
        <Button onClick={onBack}>Leave as it was</Button>
      </p>
    </div>
  );
}
