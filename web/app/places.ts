import { isAtLeast, type Role } from "#contract";
import { useMe } from "#web/device/me.ts";

/** The places, in the order of the loop. */
interface Place {
  readonly path: string;
  readonly name: string;
  /** Pressed after `g`. */
  readonly key: string;
  /** The least role that has something to do there; anyone without one. */
  readonly from?: Role;
}

const places: readonly Place[] = [
  { path: "/", name: "Today", key: "t" },
  { path: "/class", name: "Class", key: "c", from: "teacher" },
  { path: "/check", name: "Check", key: "k", from: "teacher" },
  { path: "/gaps", name: "Gaps", key: "a", from: "teacher" },
  { path: "/groups", name: "Groups", key: "g" },
  { path: "/week", name: "Week", key: "d" },
  { path: "/sessions", name: "Sessions", key: "s" },
];

const besides: readonly Place[] = [
  { path: "/words", name: "Words", key: "w" },
  { path: "/texts", name: "Texts", key: "x" },
  { path: "/orders", name: "Teaching orders", key: "o", from: "teacher" },
  { path: "/settings", name: "Settings", key: "e" },
  { path: "/help", name: "Help", key: "h" },
];

/** What those see who see numbers alone; the lead sees it too. */
const numbers: Place = { path: "/numbers", name: "Numbers", key: "n" };

/** The places of whoever is here: those of the loop, and those beside it. */
export function usePlaces(): { readonly places: readonly Place[]; readonly besides: readonly Place[] } {
  const role = useMe().data?.me?.role ?? "lead";
  if (role === "observer") return { places: [numbers], besides: besides.filter(({ path }) => path === "/help") };
  const mine = ({ from = "assistant" }: Place) => isAtLeast(role, from);
  const beside = besides.filter(mine);
  const before = beside.findIndex(({ path }) => path === "/settings");
  return {
    places: places.filter(mine),
    besides: role === "lead" ? beside.toSpliced(before, 0, numbers) : beside,
  };
}
