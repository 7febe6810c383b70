import { isDeepStrictEqual } from "node:util";
import { Router } from "express";
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
import { findChild } from "../store/children.ts";
import * as store from "../store/texts.ts";
import { refuseFuture } from "./clock.ts";
import type { House } from "./house.ts";
import { HttpProblem, notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

/** The texts that ship and those of the school, and how they are prepared. */
export function textRoutes({ db, ground, now }: House): Router {
  const router = Router();
  const shipped = ground.texts.map(({ id, title, exceptions, body, questions, words }) => ({
    id,
    own: false,
    version: 1,
    title,
    exceptions: [...exceptions],
    body,
    questions: questions.map((question) => ({ ...question, answers: [...question.answers] })),
    words: [...words],
  }));

  serve(router, listTexts, async () => [
    ...shipped,
    ...(await store.ownTexts(db)).map(({ id, version, content }) => ({ id, own: true, version, ...content })),
  ]);

  serve(router, saveText, async ({ params, body }) => {
    const { content, version, savedAt, savedBy } = body;
    refuseFuture(savedAt, now());
    refuseUnfit(content);
    const [newest] = await store.versionsOf(db, params.id);
    if (newest && isDeepStrictEqual(newest.content, content))
      return { id: params.id, own: true, version: newest.version, ...content };
    const next = version + 1;
    const row = { version: next, content, savedAt, savedBy };
    if ((newest?.version ?? 0) !== version || !(await store.addVersion(db, params.id, row)))
      throw new HttpProblem(
        409,
        "Changed elsewhere",
        newest
          ? "This text was changed elsewhere meanwhile. Nothing was written over; copy your words, open it again and put them in."
          : "This text is not here any more. Keep it as a new one.",
      );
    return { id: params.id, own: true, version: next, ...content };
  });

  serve(router, removeText, async ({ params }) => {
    if (!(await store.setTextRemoved(db, params.id, now().toISOString()))) throw notFound("text");
    return { done: true as const };
  });

  serve(router, restoreText, async ({ params }) => {
    const [newest] = await store.versionsOf(db, params.id);
    if (!newest && !(await store.setTextRemoved(db, params.id, null))) throw notFound("text");
    return { done: true as const };
  });

  serve(router, textVersions, async ({ params }) => {
    const versions = await store.versionsOf(db, params.id);
    if (versions.length === 0) throw notFound("text");
    return versions;
  });

  const mustText = async (id: string) => {
    if (shipped.some((text) => text.id === id)) return;
    if (!(await store.ownTexts(db)).some((text) => text.id === id)) throw notFound("text");
  };

  serve(router, getPreparation, async ({ params }) => {
    await mustText(params.textId);
    return { preparation: await store.findPreparation(db, params.textId, params.forKey) };
  });

  serve(router, savePreparation, async ({ params, body }) => {
    await mustText(params.textId);
    const [kind, id = ""] = params.forKey.split(":");
    // What is kept under a child goes when the child is erased, so there must be one.
    if (kind === "child" && !(await findChild(db, id))) throw notFound("child");
    await store.putPreparation(db, params.textId, params.forKey, body.preparation);
    return { done: true as const };
  });

  return router;
}

function refuseUnfit(content: TextContentBody): void {
  const problem = problemsOf(content).find((one) => one.stops);
  if (problem) throw unfit(`${problem.says} Nothing was kept.`);
}
