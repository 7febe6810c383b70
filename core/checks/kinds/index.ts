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

/** Every kind of check by its id. A new kind is one file and one line here. */
export const kinds: Readonly<Record<KindId, Kind>> = {
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

export { blockOf, blocks } from "./blocks.ts";
export { isSentence, outcomeOfWriting } from "./dictation.ts";
export { choicesFor } from "./find.ts";
export * from "./kind.ts";
export { taskNames, taskOf } from "./listen.ts";
export { choicesOnSheet } from "./paper.ts";
