import { WholeField } from "#web/parts/field.tsx";
import type { KindOnScreen } from "./on-screen.ts";

export const find: KindOnScreen<"find"> = {
  inWords: ({ choices }, what) => [what, `among ${choices}`],
  Choices: ({ section, set }) => (
    <WholeField
      label="Among how many (4 to 9)"
      least={4}
      most={9}
      value={section.choices}
      onSet={(choices) => set({ choices })}
    />
  ),
};
