import { INVITATION_DAYS } from "#contract";
import type { Letter } from "./post.ts";

/** The letter that brings someone a link to come in with. */
export function invitingLetter({
  name,
  by,
  schoolName,
  address,
}: {
  readonly name: string;
  readonly by: string;
  readonly schoolName: string;
  readonly address: string;
}): Pick<Letter, "subject" | "text"> {
  return {
    subject: `Your way into Keen Sapling at ${schoolName}`,
    text: [
      `Dear ${name},`,
      `${by} has let you in to Keen Sapling, with which ${schoolName} checks how its children read and plans catch-up sessions.`,
      `Open this link, choose a passphrase, and you are in:\n\n${address}`,
      `It works once, within ${INVITATION_DAYS} days. Keep it to yourself: whoever opens it first is let in under your name.`,
      "If you were not expecting this, you need do nothing.",
    ].join("\n\n"),
  };
}
