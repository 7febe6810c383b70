import {
  getLexicon,
  listPictures,
  listSplits,
  listWordAges,
  MOST_PICTURES,
  removePicture,
  removeSplit,
  removeWordAge,
  savePicture,
  saveSplit,
  sayWordAge,
  setAccent,
} from "#contract";
import { accents, findCorrespondence } from "#core/phonics";
import { keyOf, spellOut, unitOf } from "#core/words";
import { changedMeanwhile, notFound, unfit } from "../frame/problem.ts";
import type { Domain } from "../house.ts";
import { redrawn } from "./redrawn.ts";

/** The word engine's data, and the school's own splits, ages of words and accent. */
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

  serve(listWordAges, ({ school }) => school.words.listAges());

  serve(sayWordAge, async ({ params, body, school, now }) => {
    const { lexicon } = await school.words.read();
    if (lexicon.find(body.text).length === 0)
      throw unfit(`“${body.text}” is not in the word list, so that no list offers it. Nothing was changed.`, [
        { field: "text", says: "A word that the list has." },
      ]);
    return school.words.putAge({ id: params.id, key: keyOf(body.text), ...body, savedAt: now.toISOString() });
  });

  serve(removeWordAge, async ({ params, school }) => {
    if (!(await school.words.removeAge(params.id))) throw notFound("age of a word");
    return { done: true as const };
  });

  serve(listPictures, ({ school }) => school.words.listPictures());

  serve(savePicture, async ({ params, body, school, now }) => {
    const key = keyOf(body.text);
    if ((await school.words.countPictures(key)) >= MOST_PICTURES)
      throw unfit(
        `Your school has ${MOST_PICTURES} pictures of its own already. Take one away first; nothing was changed.`,
      );
    const image = await redrawn(Buffer.from(body.image, "base64"));
    if (!image)
      throw unfit("This file is no picture that can be read. Choose a PNG, JPEG or WebP. Nothing was changed.", [
        { field: "image", says: "A picture as PNG, JPEG or WebP." },
      ]);
    const { text, madeBy } = body;
    return school.words.putPicture({ id: params.id, key, text, image, madeBy, savedAt: now.toISOString() });
  });

  serve(removePicture, async ({ params, school }) => {
    if (!(await school.words.removePicture(params.id))) throw notFound("picture");
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
