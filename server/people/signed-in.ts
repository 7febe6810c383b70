import type { IncomingHttpHeaders } from "node:http";
import { unfit } from "../frame/problem.ts";
import type { Accounts } from "./accounts.ts";

/** Wrong passphrases of someone who is signed in, whatever they are asked for: all of these count together. */
export const OWN_PASSPHRASE = { of: "passphrase", most: 10, minutes: 5, what: "passphrases" } as const;

/** As whom the device has signed in. @throws HttpProblem 422 for whoever sits at the machine without */
export async function mustBeSignedIn(accounts: Pick<Accounts, "who">, headers: IncomingHttpHeaders) {
  const is = await accounts.who(headers);
  if (!is) throw unfit("You sit at the machine and have not signed in, so that there is nothing of yours here.");
  return is;
}
