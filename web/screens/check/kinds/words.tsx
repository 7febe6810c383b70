import { Tick } from "../toggles.tsx";
import type { KindOnScreen } from "./on-screen.ts";
import { Shapes, shapesInWords } from "./shapes.tsx";

export const words: KindOnScreen<"words"> = {
  mostLabel: "At most in each shape",
  brackets: true,
  inWords: ({ blocks, most }, what) => [what, `${shapesInWords(blocks)}, ${most} each`],
  Choices: ({ section, set }) => (
    <>
      <Shapes on={section.blocks} onSet={(blocks) => set({ blocks })} />
      <Tick on={section.madeUp} onSet={(madeUp) => set({ madeUp })}>
        Made-up words among them, where the school uses them
      </Tick>
    </>
  ),
};
