/** What a member of a school is there as, the least first: each may what those before may. */
export const roles = ["observer", "assistant", "teacher", "lead"] as const;
export type Role = (typeof roles)[number];

/** What each role is, in a sentence, for whoever gives it. */
export const roleSays: Readonly<Record<Role, string>> = {
  observer: "Sees numbers of classes and of the school, without names and in fives; no child, no group, no plan.",
  assistant:
    "Runs the groups and the sessions that were given to them: sees the card, and of each child what that session needs.",
  teacher: "Checks, groups and plans for their own classes, and for every group that has a child of these.",
  lead: "Sees and does everything, of all classes; people, settings and backups too.",
};

/** Things of a school that can be a member's own; `readers` is a class, group or child as `class:ID`, or `all`. */
export type Thing = "class" | "child" | "group" | "session" | "sitting" | "reading" | "desk" | "readers";

/**
 * Where ids of things stand, by their path; `*` is every entry of a list. What is missing there is no one's.
 * @example { "params.id": "child", "body.members.*.childId": "child" }
 */
export type Theirs = Readonly<Record<string, Thing>>;

/** What a link or a code leads to. */
export type Opens = "share" | "face" | "invitation" | "feed";

/**
 * Who may ask something: anyone of the school; whoever stands at its door and may not have signed in; whoever has a link or code (which stands in the parameter of that name); or a member of
 * the school from a role on. Of a member who is not the lead, what stands under `theirs` must be theirs, and rows of the
 * answer whose id under `shows` is not theirs are left out.
 * @example { by: "teacher", theirs: { "params.id": "child" } }
 */
export type May =
  | { readonly by: "anyone" }
  | { readonly by: "door" }
  | { readonly by: "link"; readonly opens: Opens; readonly key: string }
  | { readonly by: Role; readonly theirs?: Theirs; readonly shows?: Theirs };

/**
 * The ids that stand at a path.
 * @example idsAt({ body: { ids: ["a", "b"] } }, "body.ids.*") // ["a", "b"]
 */
export function idsAt(asked: unknown, path: string): string[] {
  const found = path.split(".").reduce<unknown[]>(
    (values, key) =>
      values.flatMap((value) => {
        if (value === null || typeof value !== "object") return [];
        if (key === "*") return Array.isArray(value) ? value : [];
        return [(value as Record<string, unknown>)[key]];
      }),
    [asked],
  );
  return found.filter((value) => typeof value === "string");
}

/** True when a member of this role may ask what one of the other may. */
export function isAtLeast(role: Role, wanted: Role): boolean {
  return roles.indexOf(role) >= roles.indexOf(wanted);
}
