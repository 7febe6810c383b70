import { Tick } from "../toggles.tsx";
import type { KindOnScreen } from "./on-screen.ts";

export const write: KindOnScreen<"write"> = {
  inWords: ({ every }, what) => (every ? [what, "every way of each sound"] : [what]),
  Choices: ({ section, set }) => (
    <Tick on={section.every} onSet={(every) => set({ every })}>
      Every way the child knows of writing each sound
    </Tick>
  ),
};
