import { useState } from "react";
import { useForm } from "react-hook-form";
import { addChild, type ChildView, editChild, type School } from "#contract";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { newId } from "#web/device/settings.ts";
import { submit } from "#web/device/submit.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";

interface Fields {
  name: string;
  note: string;
  classId: string;
  letterSize: ChildView["letterSize"];
  letterSpacing: ChildView["letterSpacing"];
}

const sizes: Readonly<Record<Fields["letterSize"], string>> = {
  usual: "as for all",
  larger: "larger",
  largest: "much larger",
};
const spacings: Readonly<Record<Fields["letterSpacing"], string>> = {
  usual: "as for all",
  wider: "further apart",
  widest: "much further apart",
};

/** Adds a child to a class, or edits one. */
export function ChildDialog({
  school,
  classId,
  child,
  onClose,
}: {
  school: School;
  classId: string;
  child?: ChildView | undefined;
  onClose: () => void;
}) {
  const { register, handleSubmit, setError, formState } = useForm<Fields>({
    defaultValues: {
      ...{ name: child?.name ?? "", note: child?.note ?? "", classId },
      ...{ letterSize: child?.letterSize ?? "usual", letterSpacing: child?.letterSpacing ?? "usual" },
    },
  });
  const { errors, isSubmitting, isDirty } = formState;
  const [id] = useState(newId);
  useUnsaved(isDirty);
  const save = handleSubmit(async (body) => {
    const className = (sought: string) => school.classes.find((one) => one.id === sought)?.name ?? "";
    const write = () =>
      child
        ? saveOver({
            content: body,
            onto: child.version,
            send: (content, version) => call(editChild, { params: { id: child.id }, body: { ...content, version } }),
            says: ({ name, note, classId: of, letterSize, letterSpacing }) => ({
              ...{ Name: name, Note: note, Class: className(of) },
              ...{ Letters: sizes[letterSize], "Letters stand": spacings[letterSpacing] },
            }),
          })
        : call(addChild, { body: { id, name: body.name, note: body.note, classId: body.classId } });
    if (await submit(write, setError, ["name", "note", "classId"])) onClose();
  });
  const archive = async () => {
    if (!child) return;
    const put = (archived: boolean, version: number) =>
      call(editChild, { params: { id: child.id }, body: { archived, version } });
    let after = child;
    const write = async () => {
      after = await put(true, child.version);
    };
    if (await submit(write, setError, [])) {
      onClose();
      toastWithUndo(`${child.name} is archived.`, async () => {
        try {
          await put(false, after.version);
          await refreshAll();
        } catch (error) {
          toast.error(wordsOfError(error));
        }
      });
    }
  };
  return (
    <Sheet open onClose={onClose} title={child ? "Edit child" : "Add a child"}>
      <form onSubmit={save} className="flex flex-col gap-3">
        <TextField
          label="First name and initial"
          autoFocus
          maxLength={60}
          hint="The least that tells children apart, for example Ada M."
          problem={errors.name?.message}
          {...register("name", { required: "A child needs a name." })}
        />
        <TextField
          label="Note"
          maxLength={200}
          hint="Only what changes the session, for example glasses are due."
          problem={errors.note?.message}
          {...register("note")}
        />
        <Choice label="Class" problem={errors.classId?.message} {...register("classId")}>
          {school.classes
            .filter((one) => !one.archived || one.id === classId)
            .map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
        </Choice>
        {child && (
          <div className="grid grid-cols-2 gap-3">
            <Choice label="Letters on the children's screen" {...register("letterSize")}>
              {Object.entries(sizes).map(([size, says]) => (
                <option key={size} value={size}>
                  {says}
                </option>
              ))}
            </Choice>
            <Choice label="Letters stand" {...register("letterSpacing")}>
              {Object.entries(spacings).map(([spacing, says]) => (
                <option key={spacing} value={spacing}>
                  {says}
                </option>
              ))}
            </Choice>
          </div>
        )}
        <Fault>{errors.root?.message}</Fault>
        <div className="flex justify-between gap-2">
          <span>{child && <Button onClick={archive}>Archive</Button>}</span>
          <span className="flex gap-2">
            <Button onClick={onClose}>Cancel</Button>
            <Button type="submit" shape="main" working={isSubmitting}>
              {child ? "Save" : "Add the child"}
            </Button>
          </span>
        </div>
      </form>
    </Sheet>
  );
}
