import { type FormEvent, useState } from "react";
import {
  addPerson,
  type ClassView,
  editPerson,
  type GroupView,
  type PersonView,
  type Role,
  roleSays,
  roles,
} from "#contract";
import { call, Refused, refreshAll, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Choice, TextField, Tick } from "#web/parts/field.tsx";
import { toast } from "#web/parts/toast.tsx";

interface PersonWanted {
  /** Undefined for a new one. */
  readonly person: PersonView | undefined;
  /** Names on marks of which no one has said which person that was. */
  readonly typed: readonly string[];
  readonly classes: readonly ClassView[];
  readonly groups: readonly GroupView[];
  /** Who takes groups in the week. */
  readonly adults: readonly { readonly id: string; readonly name: string }[];
  readonly onClose: () => void;
}

const roleNames: Readonly<Record<Role, string>> = {
  lead: "Lead",
  teacher: "Teacher",
  assistant: "Assistant",
  observer: "Observer",
};
const toggled = (ids: readonly string[], id: string, on: boolean) =>
  on ? [...ids, id] : ids.filter((one) => one !== id);

/** A person of the school: name, role, and what is theirs. */
export function PersonSheet({ person, typed, classes, groups, adults, onClose }: PersonWanted) {
  const [id] = useState(person?.id ?? newId);
  const [name, setName] = useState(person?.name ?? "");
  const [role, setRole] = useState<Role>(person?.role ?? "teacher");
  const [classIds, setClassIds] = useState<readonly string[]>(person?.classIds ?? []);
  const [groupIds, setGroupIds] = useState<readonly string[]>(person?.groupIds ?? []);
  const [adultId, setAdultId] = useState(person?.adultId ?? null);
  const [typedNames, setTypedNames] = useState<readonly string[]>(person?.typedNames ?? []);
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const nameOf = (all: readonly { id: string; name: string }[], ids: readonly string[]) =>
    ids.map((one) => all.find((other) => other.id === one)?.name ?? "").join(", ");
  const save = async (event: FormEvent) => {
    event.preventDefault();
    setProblem(undefined);
    setBusy(true);
    const renamed = person !== undefined && person.name !== name.trim();
    // What is hidden by the role goes with it.
    const content = {
      name: name.trim(),
      role,
      classIds: role === "teacher" ? [...classIds] : [],
      groupIds: role === "teacher" || role === "assistant" ? [...groupIds] : [],
      adultId: role === "observer" ? null : adultId,
      // Marks under a name of before stay theirs.
      typedNames: role === "observer" ? [] : [...new Set([...typedNames, ...(renamed ? [person.name] : [])])],
    };
    try {
      if (!person) await call(addPerson, { body: { id, ...content } });
      else
        await saveOver({
          content,
          onto: person.version,
          send: (mine, version) => call(editPerson, { params: { id }, body: { ...mine, version } }),
          says: (one) => ({
            Name: one.name,
            Role: roleNames[one.role],
            Classes: nameOf(classes, one.classIds),
            Groups: nameOf(groups, one.groupIds),
            "In the week": nameOf(adults, one.adultId ? [one.adultId] : []),
            "Also marked as": one.typedNames.join(", "),
          }),
        });
      await refreshAll();
      toast(person ? "Saved." : `${content.name} is added. Invite them when you are ready.`);
      onClose();
    } catch (error) {
      setProblem(error instanceof Refused ? (error.problem.fields[0]?.says ?? error.message) : wordsOfError(error));
    }
    setBusy(false);
  };
  const names = [...new Set([...(person?.typedNames ?? []), ...typed])].filter((one) => one !== name.trim());
  return (
    <Sheet open onClose={onClose} title={person ? person.name : "Add a person"} place="side">
      <form className="flex flex-col gap-4" onSubmit={save}>
        <TextField
          label="Name"
          hint="As the children and colleagues know them. They sign in by it."
          value={name}
          required
          maxLength={60}
          problem={problem}
          onChange={(event) => setName(event.target.value)}
        />
        <Choice
          label="Role"
          hint={roleSays[role]}
          value={role}
          onChange={(event) => setRole(event.target.value as Role)}
        >
          {roles.toReversed().map((one) => (
            <option key={one} value={one}>
              {roleNames[one]}
            </option>
          ))}
        </Choice>
        {role === "teacher" && (
          <Several title="Their classes" none="There is no class yet.">
            {classes.map((one) => (
              <Tick
                key={one.id}
                checked={classIds.includes(one.id)}
                onChange={(on) => setClassIds(toggled(classIds, one.id, on))}
              >
                {one.name}
              </Tick>
            ))}
          </Several>
        )}
        {(role === "teacher" || role === "assistant") && (
          <Several
            title={
              role === "teacher" ? "Groups given to them, beside those with a child of their classes" : "Their groups"
            }
            none="There is no group yet."
          >
            {groups.map((one) => (
              <Tick
                key={one.id}
                checked={groupIds.includes(one.id)}
                onChange={(on) => setGroupIds(toggled(groupIds, one.id, on))}
              >
                {one.name}
              </Tick>
            ))}
          </Several>
        )}
        {adults.length > 0 && role !== "observer" && (
          <Choice
            label="In the week they are"
            hint="Sessions of this adult are theirs: they see them on Today, with the group and its card, also when they stand in for a day."
            value={adultId ?? ""}
            onChange={(event) => setAdultId(event.target.value || null)}
          >
            <option value="">no one who takes groups</option>
            {adults.map(({ id: one, name: called }) => (
              <option key={one} value={one}>
                {called}
              </option>
            ))}
          </Choice>
        )}
        {names.length > 0 && role !== "observer" && (
          <Several title="Marks under these names are theirs too" none="">
            {names.map((one) => (
              <Tick
                key={one}
                checked={typedNames.includes(one)}
                onChange={(on) => setTypedNames(toggled(typedNames, one, on))}
              >
                {one}
              </Tick>
            ))}
          </Several>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" shape="main" working={busy}>
            {person ? "Save" : "Add"}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

function Several({ title, none, children }: { title: string; none: string; children: readonly React.ReactNode[] }) {
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 text-sm font-semibold">{title}</legend>
      {children.length > 0 ? children : <p className="text-sm text-soft">{none}</p>}
    </fieldset>
  );
}
