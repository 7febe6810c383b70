import { useRef, useState } from "react";
import { Link } from "react-router";
import { type ClassView, markTaught, type School } from "#contract";
import { nearDay } from "#core/saying";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { stampNow, todayHere } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { Spellings } from "#web/parts/marks.tsx";
import { toast } from "#web/parts/toast.tsx";

/** How far the class has been taught, with the date; moved on here. */
export function TaughtPanel({ school, current }: { school: School; current: ClassView }) {
  const order = school.orders.find((one) => one.id === current.orderId);
  const steps = order?.content.steps ?? [];
  const at = steps.findIndex((step) => step.id === current.stepId);
  const [stepId, setStepId] = useState<string | null>(null);
  const [day, setDay] = useState(todayHere());
  const chosen = stepId ?? current.stepId ?? "";
  const chosenStep = steps.find((step) => step.id === chosen);
  const changed = stepId !== null && stepId !== (current.stepId ?? "");

  // One id a choice, so that a second press marks nothing twice.
  const mark = useRef<{ of: string; id: string; at: string }>(undefined);
  const save = async () => {
    const of = `${chosen} ${day}`;
    if (mark.current?.of !== of) mark.current = { of, id: newId(), at: stampNow() };
    const { id, at: markedAt } = mark.current;
    try {
      await call(markTaught, {
        params: { id: current.id },
        body: { id, stepId: chosen === "" ? null : chosen, taughtOn: day, at: markedAt },
      });
      await refreshAll();
      setStepId(null);
      mark.current = undefined;
      toast(`${current.name} is marked as taught up to ${chosenStep?.title ?? "nothing yet"}.`);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };

  return (
    <section aria-label="Taught so far" className="mb-5 rounded-lg border border-line bg-sheet p-4">
      <div className="flex flex-wrap items-end gap-3">
        <div className="min-w-64 flex-1">
          <Choice label="Taught up to" value={chosen} onChange={(event) => setStepId(event.target.value)}>
            <option value="">Nothing yet</option>
            {steps.map((step, index) => (
              <option key={step.id} value={step.id}>
                {index + 1}. {step.title}
              </option>
            ))}
          </Choice>
        </div>
        {changed && (
          <>
            <div className="w-44">
              <TextField
                label="On"
                type="date"
                value={day}
                max={todayHere()}
                onChange={(event) => setDay(event.target.value)}
              />
            </div>
            <Button shape="main" onClick={save}>
              Mark as taught
            </Button>
            <Button onClick={() => setStepId(null)}>Leave as it was</Button>
          </>
        )}
      </div>
      <p className="mt-2 text-soft">
        {at >= 0 && current.taughtOn
          ? `Step ${at + 1} of ${steps.length}, ${nearDay(current.taughtOn, school.today)}. `
          : "Say how far this class is, and checks and gaps follow. "}
        <Link to={`/orders/${current.orderId}`} className="underline underline-offset-4">
          {order?.content.name}
        </Link>
      </p>
      {chosenStep && (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          <span className="text-soft">This step:</span> <Spellings gpcs={chosenStep.gpcs} />
          {chosenStep.exceptionWords.length > 0 && (
            <span className="font-child text-soft">{chosenStep.exceptionWords.join(", ")}</span>
          )}
        </p>
      )}
    </section>
  );
}
