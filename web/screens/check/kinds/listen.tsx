import { taskNames, tasks } from "#core/checks";
import { Toggles } from "../toggles.tsx";
import type { KindOnScreen } from "./on-screen.ts";

export const listen: KindOnScreen<"listen"> = {
  mostLabel: "At most in each task",
  anyTaught: true,
  inWords: ({ tasks: some, most }) => [
    `${some.map((task) => taskNames[task].toLowerCase()).join(", ")}, ${most} each`,
  ],
  Choices: ({ section, set }) => (
    <Toggles
      title="Tasks"
      all={tasks.map((id) => ({ id, name: taskNames[id], hint: "" }))}
      on={section.tasks}
      onSet={(on) => set({ tasks: on })}
    />
  ),
};
