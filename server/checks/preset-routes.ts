import { listPresets, type PresetView, removePreset, savePreset } from "#contract";
import { shippedPresets } from "#core/checks";
import { mustAgree } from "../frame/again.ts";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain } from "../house.ts";

/** Ids of the plans that ship: fixed, so that a link to one stays good. */
const shippedId = (at: number) => `7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f2${String(at + 1).padStart(3, "0")}`;

const shipped = (): PresetView[] =>
  shippedPresets.map(({ name, purpose, sections }, at) => ({
    id: shippedId(at),
    shipped: true,
    version: 1,
    name,
    purpose,
    sections,
  }));

/** The plans that checks begin from: those that ship, and the school's own. */
export function presetRoutes({ serve }: Domain): void {
  serve(listPresets, async ({ school }) => [...shipped(), ...(await school.presets.list())]);

  serve(savePreset, async ({ params, body, school }) => {
    if (shipped().some((one) => one.id === params.id))
      throw unfit("This plan ships with the tool and stays as it is. Keep yours under another name.");
    const { version: onto, ...content } = body;
    const before = await school.presets.find(params.id);
    if (onto !== (before?.version ?? 0)) {
      const { name = "", purpose = "", sections = [], version = 0 } = before ?? {};
      mustAgree("this plan", { version, mine: content, theirs: { name, purpose, sections } });
      return { id: params.id, ...content, version, shipped: false };
    }
    const row = { id: params.id, ...content, version: onto + 1 };
    await school.presets.put(row);
    return { ...row, shipped: false };
  });

  serve(removePreset, async ({ params, school }) => {
    if (!(await school.presets.remove(params.id))) throw notFound("plan");
    return { done: true as const };
  });
}
