import type { RoutineBody } from "#contract";
import type { Meeting } from "#core/groups";
import type { School } from "../house.ts";
import type { OneOfEach } from "../testing-school.ts";

/** What one school has, asked for from another. */
export interface AskedFrom {
  readonly other: School;
  /** The id of the other school. */
  readonly elsewhere: string;
  readonly mine: OneOfEach;
  readonly meeting: Meeting;
  readonly invitation: { readonly id: string; readonly token: string };
  readonly routine: RoutineBody;
  readonly ids: Readonly<Record<"yearId" | "memberId" | "deviceId" | "accountId", string>>;
}

/** A case for every function of these repositories: one without a case does not compile. */
export type CasesOf<Rooms extends keyof School> = {
  [Room in Rooms]: {
    [Name in keyof School[Room] as School[Room][Name] extends never ? never : Name]: () => unknown;
  };
};
