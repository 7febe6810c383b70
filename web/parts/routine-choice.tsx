import { plural } from "#core/saying";
import { Choice } from "./field.tsx";

/** A choice among routines, each with its minutes. */
export function RoutineChoice({
  label,
  hint,
  routines,
  value,
  onSet,
}: {
  label: string;
  hint?: string;
  routines: readonly { readonly id: string; readonly minutes: number; readonly routine: { readonly name: string } }[];
  value: string;
  onSet: (id: string) => void;
}) {
  const called = (name: string, minutes: number) =>
    name.includes("minute") ? name : `${name}, ${plural(minutes, "minute")}`;
  return (
    <Choice label={label} hint={hint} value={value} onChange={(event) => onSet(event.target.value)}>
      {routines.map(({ id, minutes, routine }) => (
        <option key={id} value={id}>
          {called(routine.name, minutes)}
        </option>
      ))}
    </Choice>
  );
}
