import { isDeepStrictEqual } from "node:util";
import {
  getPreparation,
  listTexts,
  removeText,
  restoreText,
  savePreparation,
  saveText,
  type TextContentBody,
  textVersions,
} from "#contract";
import { problemsOf } from "#core/reading";
import { mustAgree } from "../frame/again.ts";
import { refuseFuture } from "../frame/clock.ts";
import { changedMeanwhile, conflict, notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

/** The texts that ship and those of the school, and how they are prepared. */
export function textRoutes({ serve, shipped: { texts } }: Domain): void {
  const shipped = texts.map(({ id, title, exceptions, body, questions, words }) => ({
    id,
    own: false,
    version: 1,
    title,
    exceptions,
    body,
    questions,
    words,
  }));

  serve(listTexts, async ({ school }) => [
    ...shipped,
    ...(await school.texts.listOwn()).map(({ id, version, content }) => ({ id, own: true, version, ...content })),
  ]);

  serve(saveText, async ({ params, body, school, now }) => {
    const { content, version, savedAt, savedBy } = body;
    refuseFuture(savedAt, now);
    refuseUnfit(content);
    const [newest] = await school.texts.versionsOf(params.id);
    if (newest && isDeepStrictEqual(newest.content, content))
      return { id: params.id, own: true, version: newest.version, ...content };
    const next = version + 1;
    const row = { version: next, content, savedAt, savedBy };
    if ((newest?.version ?? 0) !== version || !(await school.texts.addVersion(params.id, row)))
      throw newest
        ? changedMeanwhile("this text", {
            version: newest.version,
            mine: { content },
            theirs: { content: newest.content },
          })
        : conflict("This text is not here any more. Keep it as a new one.");
    return { id: params.id, own: true, version: next, ...content };
  });

  serve(removeText, async ({ params, school, now }) => {
    if (!(await school.texts.setRemoved(params.id, now.toISOString()))) throw notFound("text");
    return { done: true as const };
  });

  serve(restoreText, async ({ params, school }) => {
    const [newest] = await school.texts.versionsOf(params.id);
    if (!newest && !(await school.texts.setRemoved(params.id, null))) throw notFound("text");
    return { done: true as const };
  });

  serve(textVersions, async ({ params, school }) => {
    const versions = await school.texts.versionsOf(params.id);
    if (versions.length === 0) throw notFound("text");
    return versions;
  });

  const mustText = async (school: School, id: string) => {
    if (shipped.some((text) => text.id === id)) return;
    if (!(await school.texts.listOwn()).some((text) => text.id === id)) throw notFound("text");
  };

  serve(getPreparation, async ({ params, school }) => {
    await mustText(school, params.textId);
    return school.texts.findPreparation(params.textId, params.forKey);
  });

  serve(savePreparation, async ({ params, body, school }) => {
    await mustText(school, params.textId);
    const [kind, id = ""] = params.forKey.split(":");
    // What is kept under a child goes when the child is erased, so there must be one.
    if (kind === "child" && !(await school.children.find(id))) throw notFound("child");
    const { version, preparation } = await school.texts.findPreparation(params.textId, params.forKey);
    const mine = { preparation: body.preparation };
    if (version !== body.version) mustAgree("this preparation", { version, mine, theirs: { preparation } });
    await school.texts.putPreparation({ ...params, version: version + 1, ...mine });
    return { done: true as const };
  });
}

function refuseUnfit(content: TextContentBody): void {
  const problem = problemsOf(content).find((one) => one.stops);
  if (problem) throw unfit(`${problem.says} Nothing was kept.`);
}
