/** The places, in the order of the loop. */
export interface Place {
  readonly path: string;
  readonly name: string;
  /** Pressed after `g`. */
  readonly key: string;
}

export const places: readonly Place[] = [
  { path: "/", name: "Today", key: "t" },
  { path: "/class", name: "Class", key: "c" },
  { path: "/check", name: "Check", key: "k" },
  { path: "/gaps", name: "Gaps", key: "a" },
  { path: "/groups", name: "Groups", key: "g" },
  { path: "/sessions", name: "Sessions", key: "s" },
];

export const besides: readonly Place[] = [
  { path: "/words", name: "Words", key: "w" },
  { path: "/texts", name: "Texts", key: "x" },
  { path: "/orders", name: "Teaching orders", key: "o" },
  { path: "/settings", name: "Settings", key: "e" },
  { path: "/help", name: "Help", key: "h" },
];
