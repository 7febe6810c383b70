import type { ComponentType } from "react";
import type { SectionOf } from "#core/checks";
import type { KindId } from "#core/ledger";
import type { DeskWanted, Progress } from "../at-desk.ts";
import type { SittingLog } from "../log.ts";

/** The own choices of a part of a plan. */
interface ChoicesWanted<K extends KindId> {
  readonly section: SectionOf<K>;
  readonly set: (change: Partial<SectionOf<K>>) => void;
}

/** What a desk of a kind's own is given: it has the checks of all children before it. */
export interface OwnDeskWanted extends DeskWanted {
  readonly log: SittingLog;
  readonly progress: ReadonlyMap<string, Progress>;
}

/** What a kind of check has on the screen for itself; whatever is missing is as for all kinds. */
export interface KindOnScreen<K extends KindId> {
  /** What a part holds, in a few words each. @param what its scope in words */
  readonly inWords?: (section: SectionOf<K>, what: string) => readonly string[];
  /** Its own choices beside those of all kinds. */
  readonly Choices?: ComponentType<ChoicesWanted<K>>;
  /** What the number of items is of. */
  readonly mostLabel?: string;
  /** What is taught does not matter to it. */
  readonly anyTaught?: boolean;
  /** A word is shown in its units on demand. */
  readonly brackets?: boolean;
  /** A desk of its own, for all children at once, and how it is fetched ahead. */
  readonly together?: { readonly Desk: ComponentType<OwnDeskWanted>; readonly load: () => Promise<unknown> };
}
