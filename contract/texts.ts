import { z } from "zod";
import type { Endpoint } from "./endpoint.ts";

const question = z.object({
  kind: z.enum(["who", "what", "where", "when", "why", "how"]),
  depth: z.enum(["found", "between"]),
  ask: z.string(),
  answers: z.array(z.string()),
  where: z.string(),
});

const libraryText = z.object({
  /** Its name in an address. */
  id: z.string(),
  title: z.string(),
  step: z.string(),
  exceptions: z.array(z.string()),
  body: z.string(),
  questions: z.array(question),
  words: z.array(z.object({ word: z.string(), means: z.string() })),
});
export type TextView = z.infer<typeof libraryText>;

/** The texts that ship, in the order in which they climb. */
export const listTexts = {
  method: "GET",
  path: "/api/texts",
  answer: z.array(libraryText),
} as const satisfies Endpoint;
