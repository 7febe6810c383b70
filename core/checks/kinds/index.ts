import type { KindId } from "#core/ledger";
import { card } from "./card.ts";
import { dictation } from "./dictation.ts";
import { exception } from "./exception.ts";
import { find } from "./find.ts";
import type { Kind } from "./kind.ts";
import { listen } from "./listen.ts";
import { names } from "./names.ts";
import { paper } from "./paper.ts";
import { words } from "./words.ts";
import { write } from "./write.ts";

/** A new kind is one file and one line here. */
const each: { readonly [K in KindId]: Kind<K> } = {
  card,
  words,
  exception,
  write,
  dictation,
  find,
  listen,
  names,
  paper,
};

/** Every kind of check by its id, for who does not know which it is. */
export const kinds: Readonly<Record<KindId, Kind>> = each;

export { blockOf, blocks } from "./blocks.ts";
export { isSentence, outcomeOfWriting } from "./dictation.ts";
export { choicesFor } from "./find.ts";
export * from "./kind.ts";
export { taskNames, taskOf } from "./listen.ts";
export { asSheet, choicesOnSheet } from "./paper.ts";
