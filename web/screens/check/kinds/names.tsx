import { type Cases, letterCases } from "#core/checks";
import { Choice } from "#web/parts/field.tsx";
import type { KindOnScreen } from "./on-screen.ts";

const caseNames: Record<Cases, string> = {
  small: "small letters",
  capital: "capital letters",
  both: "small and capital letters",
};

export const names: KindOnScreen<"names"> = {
  inWords: ({ cases }) => [caseNames[cases]],
  Choices: ({ section, set }) => (
    <Choice
      label="Which letters"
      value={section.cases}
      onChange={(event) => set({ cases: event.target.value as Cases })}
    >
      {letterCases.map((value) => (
        <option key={value} value={value}>
          {caseNames[value]}
        </option>
      ))}
    </Choice>
  ),
};
