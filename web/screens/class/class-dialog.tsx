import { useForm } from "react-hook-form";
import { useNavigate } from "react-router";
import { addClass, type ClassView, editClass, type School } from "#contract";
import { call } from "#web/app/api.ts";
import { newId } from "#web/app/device.ts";
import { submit } from "#web/app/submit.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";

interface Fields {
  name: string;
  yearGroup: string;
  orderId: string;
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
  const { register, handleSubmit, setError, watch, formState } = useForm<Fields>({
    defaultValues: {
      name: current?.name ?? "",
      yearGroup: current?.yearGroup ?? "",
      orderId: current?.orderId ?? school.orders[0]?.id ?? "",
    },
  });
  const order = school.orders.find((one) => one.id === watch("orderId"));
  const save = handleSubmit(async (body) => {
    const id = current?.id ?? newId();
    const write = () =>
      current ? call(editClass, { params: { id }, body }) : call(addClass, { body: { id, ...body } });
    if (!(await submit(write, setError, ["name", "yearGroup", "orderId"]))) return;
    onClose();
    if (!current) navigate(`/class/${id}`);
  });
  const { errors, isSubmitting } = formState;
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
          {...register("orderId")}
        >
          {school.orders.map((one) => (
            <option key={one.id} value={one.id}>
              {one.content.name}
            </option>
          ))}
        </Choice>
        {errors.root && (
          <p role="alert" className="text-damson">
            {errors.root.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" shape="main" disabled={isSubmitting}>
            {current ? "Save" : "Add the class"}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
