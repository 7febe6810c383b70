import { TextField } from "#web/parts/field.tsx";
import { whole } from "../toggles.tsx";
import type { KindOnScreen } from "./on-screen.ts";

export const find: KindOnScreen<"find"> = {
  inWords: ({ choices }, what) => [what, `among ${choices}`],
  Choices: ({ section, set }) => (
    <TextField
      label="Among how many (4 to 9)"
      type="number"
      min={4}
      max={9}
      value={section.choices}
      onChange={(event) => set({ choices: whole(event.target.value, 4, 9) })}
    />
  ),
};
