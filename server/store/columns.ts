import { sql } from "drizzle-orm";
import {
  type AnyPgColumn,
  customType,
  foreignKey,
  integer,
  pgPolicy,
  pgRole,
  primaryKey,
  uuid,
} from "drizzle-orm/pg-core";

/** The role in which the rows of a school are asked for: it sees those of the school that its transaction names. */
export const keenApp = pgRole("keen_app");
/** The role that finds the school which a host name, a link or a code leads to, and sees nothing else. */
export const keenDoor = pgRole("keen_door");
/** The role that reads and writes accounts, and no school. */
export const keenPeople = pgRole("keen_people");

/** An instant, in and out as the ISO text that the contract speaks. */
export const at = customType<{ data: string; driverData: string }>({
  dataType: () => "timestamp with time zone",
  fromDriver: (value) => new Date(value).toISOString(),
});

/** The school whose row it is: the one that the transaction is of. */
export const schoolId = () => uuid("school_id").notNull().default(sql`current_setting('app.school')::uuid`);

/** Goes up with every change; a change that was made from an older one is not written over it. */
export const version = () => integer("version").notNull().default(1);

const mine = sql`(select nullif(current_setting('app.school', true), ''))::uuid`;

/** The one condition of the school: no row of another is seen, written or moved. Stands on every table. */
export const ofSchool = () =>
  pgPolicy("of_school", {
    to: keenApp,
    using: sql`school_id = ${mine}`,
    withCheck: sql`school_id = ${mine}`,
  });

/** The same for the row of the school itself. */
export const theSchool = () =>
  pgPolicy("of_school", { to: keenApp, using: sql`id = ${mine}`, withCheck: sql`id = ${mine}` });

interface InSchool {
  readonly schoolId: AnyPgColumn;
}

/** The key of a school's rows: ids are made on devices, and two schools may meet in one. */
export const keyOf = (table: InSchool, ...columns: AnyPgColumn[]) =>
  primaryKey({ columns: [table.schoolId, ...columns] as [AnyPgColumn, ...AnyPgColumn[]] });

/**
 * That a row belongs to another of the same school.
 * @param name of the rule in the database, at most 63 letters
 */
export const belongs = (
  name: string,
  table: InSchool,
  column: AnyPgColumn,
  to: InSchool & { readonly id: AnyPgColumn },
) => foreignKey({ name, columns: [table.schoolId, column], foreignColumns: [to.schoolId, to.id] } as never);

/** An instant that is given here and not by the database, so that a write that is done again from the journal gives the same. */
export const nowHere = () => new Date().toISOString();
