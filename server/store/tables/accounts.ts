import { bigint, boolean, index, integer, pgSchema, text, timestamp, uuid } from "drizzle-orm/pg-core";
import { at, nowHere } from "../columns.ts";

// Accounts are of the whole server and stand in a schema of their own: no role that reads a school reads them, and no
// backup of a school holds them. The properties are named as better-auth names them.

export const accountsSchema = pgSchema("accounts");

const instant = (name: string) => timestamp(name, { withTimezone: true, mode: "date" });

/** Who can sign in. What they are in a school stands with its members. */
export const user = accountsSchema.table("people", {
  id: uuid("id").primaryKey(),
  /** Never shown: the name that a member has in the school is. */
  name: text("name").notNull(),
  /** Made up: no one needs one. */
  email: text("email").notNull().unique(),
  emailVerified: boolean("email_verified").notNull().default(false),
  image: text("image"),
  /** What a passphrase is asked for with; the school's member of a name leads to it. */
  username: text("username").unique(),
  twoFactorEnabled: boolean("second_factor").notNull().default(false),
  createdAt: instant("created_at").notNull(),
  updatedAt: instant("updated_at").notNull(),
});

/** Who is signed in, on which device. */
export const session = accountsSchema.table(
  "sign_ins",
  {
    id: uuid("id").primaryKey(),
    token: text("token").notNull().unique(),
    userId: uuid("person_id")
      .notNull()
      .references(() => user.id, { onDelete: "cascade" }),
    expiresAt: instant("expires_at").notNull(),
    ipAddress: text("ip_address"),
    userAgent: text("user_agent"),
    /** Whether it began with a passkey, which is two factors in one. */
    byPasskey: boolean("by_passkey").notNull().default(false),
    createdAt: instant("created_at").notNull(),
    updatedAt: instant("updated_at").notNull(),
  },
  (table) => [index("sign_ins_person").on(table.userId)],
);

/** Passphrases, hashed. */
export const account = accountsSchema.table(
  "passphrases",
  {
    id: uuid("id").primaryKey(),
    accountId: text("account_id").notNull(),
    providerId: text("provider_id").notNull(),
    userId: uuid("person_id")
      .notNull()
      .references(() => user.id, { onDelete: "cascade" }),
    password: text("hash"),
    accessToken: text("access_token"),
    refreshToken: text("refresh_token"),
    idToken: text("id_token"),
    accessTokenExpiresAt: instant("access_token_expires_at"),
    refreshTokenExpiresAt: instant("refresh_token_expires_at"),
    scope: text("scope"),
    createdAt: instant("created_at").notNull(),
    updatedAt: instant("updated_at").notNull(),
  },
  (table) => [index("passphrases_person").on(table.userId)],
);

/** What is between two steps of a sign-in, and devices that need no second factor for a while. */
export const verification = accountsSchema.table(
  "steps",
  {
    id: uuid("id").primaryKey(),
    identifier: text("identifier").notNull(),
    value: text("value").notNull(),
    expiresAt: instant("expires_at").notNull(),
    createdAt: instant("created_at").notNull(),
    updatedAt: instant("updated_at").notNull(),
  },
  (table) => [index("steps_identifier").on(table.identifier)],
);

/** Secrets of authenticator apps, encrypted. */
export const twoFactor = accountsSchema.table(
  "second_factors",
  {
    id: uuid("id").primaryKey(),
    secret: text("secret").notNull(),
    backupCodes: text("backup_codes").notNull(),
    userId: uuid("person_id")
      .notNull()
      .references(() => user.id, { onDelete: "cascade" }),
    verified: boolean("verified"),
    failedVerificationCount: integer("failed"),
    lockedUntil: instant("locked_until"),
    /** The code that was signed in with last, and when: it opens nothing a second time. */
    usedCode: text("used_code"),
    usedAt: instant("used_at"),
  },
  (table) => [index("second_factors_person").on(table.userId)],
);

/** Passkeys: what is public of them. The secret half never leaves the device. */
export const passkeys = accountsSchema.table(
  "passkeys",
  {
    id: uuid("id").primaryKey(),
    userId: uuid("person_id")
      .notNull()
      .references(() => user.id, { onDelete: "cascade" }),
    /** By which the device knows it, and the key its signatures are checked with; bytes in letters. */
    credentialId: text("credential_id").notNull().unique(),
    publicKey: text("public_key").notNull(),
    /** Signatures that some devices count. */
    counter: bigint("counter", { mode: "number" }).notNull(),
    transports: text("transports").array().notNull(),
    /** What its owner calls it. */
    name: text("name").notNull(),
    madeAt: at("made_at").notNull(),
    usedAt: at("used_at"),
  },
  (table) => [index("passkeys_person").on(table.userId)],
);

/** What this server signs cookies with; made once, so that all of its processes have the same. */
export const secrets = accountsSchema.table("secrets", {
  name: text("name").primaryKey(),
  value: text("value").notNull(),
  madeAt: at("made_at").notNull().$defaultFn(nowHere),
});

/** Wrong guesses of codes, links and passphrases, by a hash of who or what they are counted by. */
export const tries = accountsSchema.table("tries", {
  key: text("key").primaryKey(),
  points: integer("points").notNull(),
  expire: instant("expire"),
});
