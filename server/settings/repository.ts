import { and, eq, sql } from "drizzle-orm";
import type {
  CheckSettingsBody,
  Grouping,
  Keeping,
  OwnModel,
  ReadingSettingsBody,
  SecureWhenBody,
  Week,
} from "#contract";
import { defaultSettings } from "#core/checks";
import { type Day, dayAt, startOfDay } from "#core/ledger";
import { type Parameters, parametersWith, startingSecureWhen } from "#core/mastery";
import { startingReadingSettings } from "#core/reading";
import { ownZone } from "../frame/clock.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** The school itself: its name, its accent, how it checks, and what it measures readings against. */
export interface SchoolSettings {
  readonly name: string;
  /** Id of the accent whose sounds count as right. */
  readonly accent: string;
  /** An IANA name; null until the school has said. */
  readonly timeZone: string | null;
  /** When a backup that holds the school was last made. */
  readonly backedUpAt: string | null;
  readonly checks: CheckSettingsBody;
  readonly reading: ReadingSettingsBody;
  /** When a spelling counts as secure. */
  readonly secureWhen: SecureWhenBody;
  /** Numbers of the model of its own, with how they were found. */
  readonly ownModel: OwnModel | null;
  /** For how long it keeps children who left, and its backups. */
  readonly keeping: Keeping;
  /** Minutes without a touch after which shared devices lock. */
  readonly lockMinutes: number;
  readonly leadsNeedSecond: boolean;
  /** Goes up with every change. */
  readonly version: number;
}

type Row = typeof t.schools.$inferSelect;
/** The school's row as a transaction has read it: much of a request asks for it. */
const rows = new WeakMap<Inside, Promise<Row>>();

/** The row of the school itself, read once in a transaction. */
export function row(inside: Inside): Promise<Row> {
  const known = rows.get(inside);
  if (known) return known;
  const asked = readRow(inside);
  rows.set(inside, asked);
  return asked;
}

async function readRow(inside: Inside): Promise<Row> {
  const [found] = await inside.select().from(t.schools);
  if (!found) throw new Error("The school of this transaction is not here");
  return found;
}

/** For who has changed the row: it is read anew. */
export function forget(inside: Inside): void {
  rows.delete(inside);
}

/** The settings, with what ships where the school has said nothing. */
export async function read(inside: Inside): Promise<SchoolSettings> {
  const {
    name,
    accent,
    timeZone,
    backedUpAt,
    checks,
    reading,
    version,
    leaversMonths,
    backupWeeks,
    trailMonths,
    lockMinutes,
    leadsNeedSecond,
    secureWhen,
    ownModel: own,
  } = await row(inside);
  return {
    name,
    accent,
    timeZone,
    backedUpAt,
    checks: { ...defaultSettings, ...checks },
    reading: { ...startingReadingSettings, aims: [...startingReadingSettings.aims], ...reading },
    keeping: { leaversMonths, backupWeeks, trailMonths },
    lockMinutes,
    leadsNeedSecond,
    secureWhen: secureWhen ?? startingSecureWhen,
    ownModel: own,
    version,
  };
}

/** The school's time zone, an IANA name; that of this machine until the school has said. */
export async function zone(inside: Inside): Promise<string> {
  return (await row(inside)).timeZone ?? ownZone();
}

/** The calendar day at the school, by its time zone as it is now. */
export async function dayOf(inside: Inside, instant: Date | string): Promise<Day> {
  return dayAt(await zone(inside), instant);
}

/** The instant at which a day begins at the school. */
export async function startOf(inside: Inside, day: Day): Promise<string> {
  return startOfDay(await zone(inside), day).toISOString();
}

/** When a spelling counts as secure in this school. */
export async function secureWhen(inside: Inside): Promise<SecureWhenBody> {
  return (await read(inside)).secureWhen;
}

/** The numbers that this school's model goes by: its own over what ships. */
export async function parametersOf(inside: Inside): Promise<Parameters> {
  return parametersWith((await row(inside)).ownModel?.values);
}

/** The school's own numbers of the model, with how they were found; null while it goes by what ships. */
export async function ownModel(inside: Inside): Promise<OwnModel | null> {
  return (await row(inside)).ownModel;
}

/** Milliseconds after which a timed right answer counts as slow in this school; 0 when the mark alone counts. */
export async function slowAfterMs(inside: Inside): Promise<number> {
  return (await read(inside)).checks.slowAfter * 1000;
}

/** Remembers that a backup holds the school as it is. */
export async function backedUp(inside: Inside, when: Date): Promise<void> {
  await inside.update(t.schools).set({ backedUpAt: when.toISOString() }).where(eq(t.schools.id, inside.schoolId));
  forget(inside);
}

/** What a school can change of itself. */
export interface SettingsChange {
  readonly name?: string;
  readonly timeZone?: string;
  readonly checks?: CheckSettingsBody;
  readonly reading?: ReadingSettingsBody;
  readonly secureWhen?: SecureWhenBody;
  readonly ownModel?: OwnModel | null;
  readonly grouping?: Grouping;
  readonly week?: Week;
  readonly keeping?: Keeping;
  readonly lockMinutes?: number;
  readonly leadsNeedSecond?: boolean;
}

/**
 * Changes settings over the version with this number.
 * @param version null to write over whatever stands there
 * @returns false when they were changed meanwhile; then nothing was written
 */
export async function change(inside: Inside, what: SettingsChange, version: number | null): Promise<boolean> {
  const here = eq(t.schools.id, inside.schoolId);
  const { keeping, ...others } = what;
  const changed = await inside
    .update(t.schools)
    .set({ ...others, ...keeping, version: sql`${t.schools.version} + 1` })
    .where(version === null ? here : and(here, eq(t.schools.version, version)))
    .returning({ id: t.schools.id });
  forget(inside);
  return changed.length === 1;
}

/** How words are split or heard, or what is taught as one, is another now: what was worked out by it holds no more. */
export async function wordsChanged(inside: Inside): Promise<void> {
  await inside
    .update(t.schools)
    .set({ wordsVersion: sql`${t.schools.wordsVersion} + 1` })
    .where(eq(t.schools.id, inside.schoolId));
  forget(inside);
}
