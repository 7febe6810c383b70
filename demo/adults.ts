import { addPerson, type Role } from "#contract";
import { type DemoRequest, request } from "./checks.ts";
import { adults } from "./people.ts";

interface Called {
  readonly id: string;
}

/** Whoever looks at numbers alone. Its id is no draw of the seed, so that all that comes after stays as it was. */
const observer = request(addPerson, {
  body: {
    id: "5e06e5a1-0b5e-4e1d-8a5e-0b5e11e20001",
    ...{ name: adults.observer, role: "observer", classIds: [], groupIds: [], typedNames: [], adultId: null },
  },
});

/**
 * Who works here: a lead, a teacher a class, and assistants between whom the groups go in turn.
 * @param uuid the next id of the seed
 * @param taking those of them who take groups
 */
export function adultRequests(
  uuid: () => string,
  school: {
    readonly classes: readonly (Called & { readonly teacher: string })[];
    readonly groups: readonly Called[];
    readonly taking: readonly (Called & { readonly name: string })[];
  },
): DemoRequest[] {
  const { classes, groups, taking } = school;
  const person = (name: string, role: Role, own: { classIds?: string[]; groupIds?: string[] }) =>
    request(addPerson, {
      body: {
        id: uuid(),
        name,
        role,
        classIds: [],
        groupIds: [],
        typedNames: [],
        adultId: taking.find((one) => one.name === name)?.id ?? null,
        ...own,
      },
    });
  return [
    person(adults.lead, "lead", {}),
    ...classes.map(({ id, teacher }) => person(teacher, "teacher", { classIds: [id] })),
    ...adults.assistants.map((name, at) =>
      person(name, "assistant", {
        groupIds: groups.filter((_, place) => place % adults.assistants.length === at).map(({ id }) => id),
      }),
    ),
    observer,
  ];
}
