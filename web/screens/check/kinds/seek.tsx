import { type SeekMix, seekMixes } from "#core/checks";
import { kindNames } from "#core/ledger";
import { WholeField } from "#web/parts/field.tsx";
import { Tick, Toggles } from "../toggles.tsx";
import type { KindOnScreen } from "./on-screen.ts";
import { Shapes } from "./shapes.tsx";

const mixNames: Record<SeekMix, string> = {
  card: kindNames.card,
  words: "Words",
  exception: kindNames.exception,
};

export const seek: KindOnScreen<"seek"> = {
  mostLabel: "Words to choose from in each shape",
  inWords: ({ mix, minutes }, what) => [
    what,
    mix.map((one) => mixNames[one].toLowerCase()).join(", "),
    `at most ${minutes} min`,
  ],
  Choices: ({ section, set }) => (
    <>
      <WholeField
        label="Minutes at most"
        least={1}
        most={20}
        value={section.minutes}
        onSet={(minutes) => set({ minutes })}
      />
      <Toggles
        title="Mixed of"
        all={seekMixes.map((id) => ({ id, name: mixNames[id], hint: "" }))}
        on={section.mix}
        onSet={(mix) => set({ mix })}
      />
      {section.mix.includes("words") && (
        <>
          <Shapes on={section.blocks} onSet={(blocks) => set({ blocks })} />
          <Tick on={section.madeUp} onSet={(madeUp) => set({ madeUp })}>
            Made-up words among them, where the school uses them
          </Tick>
        </>
      )}
    </>
  ),
};
