import { plural } from "#core/saying";
import { Tick } from "../toggles.tsx";
import type { KindOnScreen } from "./on-screen.ts";
import { Shapes } from "./shapes.tsx";

export const dictation: KindOnScreen<"dictation"> = {
  inWords: ({ most, sentence }, what) => [what, `${plural(most, "word")}${sentence ? " and a sentence" : ""}`],
  Choices: ({ section, set }) => (
    <>
      <Shapes on={section.blocks} onSet={(blocks) => set({ blocks })} />
      <Tick on={section.sentence} onSet={(sentence) => set({ sentence })}>
        A sentence at the end
      </Tick>
    </>
  ),
};
