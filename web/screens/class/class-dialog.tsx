import { useState } from "react";
import { useForm } from "react-hook-form";
import { useNavigate } from "react-router";
import { addClass, type ClassView, editClass, markTaught, type School } from "#contract";
import { call } from "#web/device/api.ts";
import { stampNow, todayHere } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import { submit } from "#web/device/submit.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault } from "#web/parts/page.tsx";

interface Fields {
  name: string;
  yearGroup: string;
  orderId: string;
  /** How far a new class has been taught; empty for nothing yet. */
  stepId: string;
}

/** Adds a class, or edits the one that is given. */
export function ClassDialog({
  school,
  current,
  onClose,
}: {
  school: School;
  current?: ClassView;
  onClose: () => void;
}) {
  const navigate = useNavigate();
  const { register, handleSubmit, setError, setValue, watch, formState } = useForm<Fields>({
    defaultValues: {
      name: current?.name ?? "",
      yearGroup: current?.yearGroup ?? "",
      orderId: current?.orderId ?? school.orders[0]?.id ?? "",
      stepId: "",
    },
  });
  // Made when the form opens, so that whatever is pressed twice is written once.
  const [{ newClassId, mark }] = useState(() => ({ newClassId: newId(), mark: { id: newId(), at: stampNow() } }));
  const order = school.orders.find((one) => one.id === watch("orderId"));
  const save = handleSubmit(async ({ stepId, ...body }) => {
    const id = current?.id ?? newClassId;
    const write = async () => {
      if (current) return call(editClass, { params: { id }, body });
      await call(addClass, { body: { id, ...body } });
      if (stepId) await call(markTaught, { params: { id }, body: { ...mark, stepId, taughtOn: todayHere() } });
    };
    if (!(await submit(write, setError, ["name", "yearGroup", "orderId", "stepId"]))) return;
    saved();
    onClose();
    if (!current) navigate(`/class/${id}`);
  });
  const { errors, isSubmitting } = formState;
  const saved = useUnsaved(formState.isDirty);
  return (
    <Sheet open onClose={onClose} title={current ? "Edit class" : "Add a class"}>
      <form onSubmit={save} className="flex flex-col gap-3">
        <TextField
          label="Name"
          autoFocus
          maxLength={60}
          problem={errors.name?.message}
          {...register("name", { required: "A class needs a name." })}
        />
        <TextField
          label="Year group"
          maxLength={30}
          hint="As your school says it, for example Year 1."
          problem={errors.yearGroup?.message}
          {...register("yearGroup")}
        />
        <Choice
          label="Teaching order"
          hint={order?.content.why}
          problem={errors.orderId?.message}
          {...register("orderId", { onChange: () => setValue("stepId", "") })}
        >
          {school.orders.map((one) => (
            <option key={one.id} value={one.id}>
              {one.content.name}
            </option>
          ))}
        </Choice>
        {!current && (
          <Choice
            label="Taught up to"
            hint="Checks ask for what has been taught; it can be moved on any day."
            problem={errors.stepId?.message}
            {...register("stepId")}
          >
            <option value="">Nothing yet</option>
            {order?.content.steps.map((step, at) => (
              <option key={step.id} value={step.id}>
                {at + 1}. {step.title}
              </option>
            ))}
          </Choice>
        )}
        <Fault>{errors.root?.message}</Fault>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" shape="main" working={isSubmitting}>
            {current ? "Save" : "Add the class"}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
