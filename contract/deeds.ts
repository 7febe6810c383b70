/** What stands in the trail. */
export const deeds = {
  "set-up": "set the school up",
  "sign-in": "signed in",
  "sign-in-failed": "tried to sign in",
  "sign-out": "signed out",
  passphrase: "set another passphrase",
  "second-factor": "changed their second factor",
  passkey: "added a passkey, or took one away",
  invited: "made or ended an invitation",
  person: "added or changed a person",
  "person-removed": "took a person out",
  "child-seen": "saw a child's page",
  "child-changed": "changed what is kept of a child",
  "child-erased": "erased children",
  exported: "exported",
  device: "let a shared device in, ended one, or set a code on one",
  given: "gave a check or a session to someone",
  "backup-taken": "took a backup",
  shared: "made or ended a link to a session or a calendar",
  settings: "changed settings",
  timetable: "changed the timetable",
  year: "began a school year, or took it back",
} as const;
export type Did = keyof typeof deeds;

/**
 * How something that was asked stands in the trail: what was done, and where the id of that which it was about stands.
 * Several ids under `about` are told as their number.
 * @example { did: "child-seen", about: "params.id" }
 */
export interface Trailed {
  readonly did: Did;
  readonly about?: string;
}
