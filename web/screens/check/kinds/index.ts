import type { KindId } from "#core/ledger";
import { dictation } from "./dictation.tsx";
import { find } from "./find.tsx";
import { listen } from "./listen.tsx";
import { names } from "./names.tsx";
import type { KindOnScreen } from "./on-screen.ts";
import { paper } from "./paper.tsx";
import { seek } from "./seek.tsx";
import { words } from "./words.tsx";
import { write } from "./write.tsx";

/** What kinds of check have on the screen for themselves, a line a kind; one without a line is as all are. */
const own: { readonly [K in KindId]?: KindOnScreen<K> } = {
  words,
  exception: { brackets: true },
  dictation,
  find,
  listen,
  names,
  paper,
  seek,
  write,
};

/** What a kind of check has on the screen for itself. */
export function onScreen(kind: KindId): KindOnScreen<KindId> {
  return (own[kind] ?? {}) as KindOnScreen<KindId>;
}

export type { KindOnScreen } from "./on-screen.ts";
