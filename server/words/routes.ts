import { getLexicon, listSplits, removeSplit, saveSplit, setAccent } from "#contract";
import { accents, findCorrespondence } from "#core/phonics";
import { keyOf, spellOut, unitOf } from "#core/words";
import { changedMeanwhile, notFound, unfit } from "../frame/problem.ts";
import type { Domain } from "../house.ts";

/** The word engine's data, and the school's own splits and accent. */
export function wordRoutes({ serve }: Domain): void {
  serve(getLexicon, ({ school: { shipped } }) => ({
    words: shipped.lexiconText,
    madeUp: shipped.madeUpText,
    sentences: [...shipped.sentences],
    carriers: Object.fromEntries(shipped.written),
    meanings: Object.fromEntries(shipped.meanings),
    pictures: Object.fromEntries(shipped.pictures),
    answers: Object.fromEntries(shipped.answers),
  }));

  serve(listSplits, ({ school }) => school.words.list());

  serve(saveSplit, async ({ params, body, school, now }) => {
    const unknown = body.units.find((gpc) => !findCorrespondence(gpc));
    if (unknown)
      throw unfit(`${unknown} is not a correspondence this tool knows. Nothing was changed.`, [
        { field: "units", says: "Choose another spelling or sound." },
      ]);
    const key = keyOf(body.text);
    const letters = key.normalize("NFD").replace(/[^a-z]/g, "");
    const spelled = spellOut(body.units.map(unitOf));
    if (spelled !== letters)
      throw unfit(`These units spell “${spelled}”, not “${body.text}”. Nothing was changed.`, [
        { field: "units", says: "Every letter belongs to exactly one unit." },
      ]);
    return school.words.put({ id: params.id, key, ...body, savedAt: now.toISOString() });
  });

  serve(removeSplit, async ({ params, school }) => {
    if (!(await school.words.remove(params.id))) throw notFound("split");
    return { done: true as const };
  });

  serve(setAccent, async ({ body, school }) => {
    if (!accents.some((accent) => accent.id === body.accent))
      throw unfit("This accent is not one the tool knows. Nothing was changed.");
    const { accent, version } = await school.settings.read();
    if (accent === body.accent) return { done: true as const, version };
    if (version !== body.version)
      throw changedMeanwhile("the settings", { version, mine: { accent: body.accent }, theirs: { accent } });
    await school.words.setAccent(body.accent);
    return { done: true as const, version: version + 1 };
  });
}
