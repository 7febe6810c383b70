import { addPerson, type Role } from "#contract";
import { type DemoRequest, request } from "./checks.ts";
import { adults } from "./people.ts";

interface Called {
  readonly id: string;
}

/**
 * Who works here: a lead, a teacher a class, and assistants between whom the groups go in turn.
 * @param uuid the next id of the seed
 */
export function adultRequests(
  uuid: () => string,
  classes: readonly (Called & { readonly teacher: string })[],
  groups: readonly Called[],
): DemoRequest[] {
  const person = (name: string, role: Role, own: { classIds?: string[]; groupIds?: string[] }) =>
    request(addPerson, {
      body: { id: uuid(), name, role, classIds: [], groupIds: [], typedNames: [], ...own },
    });
  return [
    person(adults.lead, "lead", {}),
    ...classes.map(({ id, teacher }) => person(teacher, "teacher", { classIds: [id] })),
    ...adults.assistants.map((name, at) =>
      person(name, "assistant", {
        groupIds: groups.filter((_, place) => place % adults.assistants.length === at).map(({ id }) => id),
      }),
    ),
  ];
}
