import { z } from "zod";
import { count, done, id, instant, line, onto, settingsSaved } from "./common.ts";
import { sharedDevice } from "./devices.ts";
import type { Endpoint } from "./endpoint.ts";
import { roles } from "./may.ts";

/** Days for which an invitation can be used. */
export const INVITATION_DAYS = 7;
/** Letters of a passphrase; nothing else is asked of one but that it is none of the common ones. */
export const LEAST_PASSPHRASE = 12;
export const MOST_PASSPHRASE = 128;
/** The name of a person in the school, by which they sign in. */
const personName = line(60);
/** The longest ones are refused before anything is computed of them. */
const passphrase = z
  .string()
  .min(LEAST_PASSPHRASE, `At least ${LEAST_PASSPHRASE} letters: three or four words that you will remember.`)
  .max(MOST_PASSPHRASE, `At most ${MOST_PASSPHRASE} letters.`);
/** What is typed where a passphrase is asked for; whether it is the right one is for the server to say. */
export const typedPassphrase = z
  .string()
  .min(1, "Please fill this in.")
  .max(MOST_PASSPHRASE, `At most ${MOST_PASSPHRASE} letters.`);
/** Six figures of an authenticator app. */
const appCode = z.string().regex(/^\d{6}$/, "Six figures, as the app shows them.");
const role = z.enum(roles);
/** Of a link, as it stands in its address. */
export const linkToken = z.string().regex(/^[\w-]{20,64}$/);

/** How someone is here: signed in, or sitting at the machine of a school that no one signs in to yet. */
const way = z.enum(["signed-in", "machine"]);

/** Who asks, and how this school is entered: what a page asks before anything else. */
export const whoAsks = {
  method: "GET",
  path: "/api/me",
  may: { by: "door" },
  answer: z.object({
    school: z.object({ name: z.string() }),
    /** Null when whoever asks must sign in first. */
    me: z
      .object({
        ...{ id: id.nullable(), name: z.string(), role, way, secondFactor: z.boolean() },
        /** Whether this sign-in began with a passkey. */
        byPasskey: z.boolean(),
        /** A lead who can do nothing else before a second factor is set up. */
        lacksSecond: z.boolean(),
      })
      .nullable(),
    /** Of a device that several people use; null on any other. */
    device: sharedDevice.nullable(),
    /** Nothing in the school is real: anyone may come in as any role. */
    demo: z.boolean(),
    /** Whether someone can sign in at all; a school that was not set up yet answers only on its own machine. */
    ready: z.boolean(),
  }),
} as const satisfies Endpoint;
export type Me = NonNullable<z.infer<typeof whoAsks.answer>["me"]>;

/**
 * Signs in by name and passphrase. Refused (401) with the same words for a name that is not there and a wrong passphrase, and
 * (429) for a while after too many tries. Where `second` is true the code of the authenticator app is asked for next.
 */
export const signIn = {
  method: "POST",
  path: "/api/sign-in",
  may: { by: "door" },
  body: z.object({ name: personName, passphrase: typedPassphrase, keep: z.boolean() }),
  answer: z.object({ second: z.boolean() }),
} as const satisfies Endpoint;

/** The second step of a sign-in. Refused (401) for a wrong code, and when the first step is too long ago. */
export const signInSecond = {
  method: "POST",
  path: "/api/sign-in/second",
  may: { by: "door" },
  body: z.object({ code: appCode }),
  answer: done,
} as const satisfies Endpoint;

/** Ends the sign-in of this device. Said again it changes nothing. */
export const signOut = {
  method: "POST",
  path: "/api/sign-out",
  may: { by: "door" },
  answer: done,
} as const satisfies Endpoint;

/** Comes in as one of the made-up people of a demo school. Any other school says that there is no such thing (404). */
export const comeIn = {
  method: "POST",
  path: "/api/come-in",
  may: { by: "door" },
  body: z.object({ role }),
  answer: done,
} as const satisfies Endpoint;

/** Makes a school that has nothing yet the one that is shown: nothing in it will be real. Refused (422) for any other. */
export const markDemo = {
  method: "POST",
  path: "/api/demo",
  may: { by: "lead" },
  answer: done,
} as const satisfies Endpoint;

/** What a link to come in is for. 404 in words when it was used, is too old, or was never made. */
export const getInvitation = {
  method: "GET",
  path: "/api/invitations/:token",
  may: { by: "link", opens: "invitation", key: "token" },
  params: z.object({ token: linkToken }),
  answer: z.object({
    school: z.object({ name: z.string(), timeZone: z.string(), zoneChosen: z.boolean() }),
    /** Who is invited; null where the school is set up with it, by its first lead. */
    who: z.object({ name: z.string(), role }).nullable(),
    endsAt: instant,
  }),
} as const satisfies Endpoint;

/**
 * Uses an invitation, once: sets the passphrase and signs in. Where the school is set up, also the lead's name, the school's
 * and its time zone. Refused (422) for a passphrase that is too common, or a name that someone has.
 */
export const acceptInvitation = {
  method: "POST",
  path: "/api/invitations/:token",
  may: { by: "link", opens: "invitation", key: "token" },
  params: z.object({ token: linkToken }),
  body: z.object({
    passphrase,
    setUp: z.object({ name: personName, school: line(80), timeZone: line(60) }).nullable(),
  }),
  answer: done,
} as const satisfies Endpoint;

const personView = z.object({
  id,
  version: count,
  name: z.string(),
  role,
  /** Of a teacher. */
  classIds: z.array(id),
  /** That were given to them. */
  groupIds: z.array(id),
  /**
   * Which of the adults who take groups they are: groups of theirs in the timetable, and of sessions in which they stand in, are
   * theirs too.
   */
  adultId: id.nullable(),
  /** `none`: never invited; `invited`: a link is open; `yes`: they have set a passphrase. */
  signsIn: z.enum(["none", "invited", "yes"]),
  secondFactor: z.boolean(),
  typedNames: z.array(z.string()),
});
export type PersonView = z.infer<typeof personView>;

/** The people of the school, and the names that marks carry of whom no one has said which person that was. */
export const listPeople = {
  method: "GET",
  path: "/api/people",
  may: { by: "lead" },
  answer: z.object({
    people: z.array(personView),
    typed: z.array(z.string()),
    /** Who does not belong to the school any more: their marks carry their names, which no one else can have. */
    left: z.array(z.object({ id, name: z.string(), role, leftAt: instant })),
    /** Leads sign in with a second factor. */
    leadsNeedSecond: z.boolean(),
  }),
} as const satisfies Endpoint;

/**
 * Says whether leads sign in with a second factor: one without it can do nothing but set it up. Refused (422) for whoever has none
 * yet. Made from an older version: both (409).
 */
export const setLeadsSecond = {
  method: "PUT",
  path: "/api/school/second-factor",
  may: { by: "lead" },
  trail: { did: "settings" },
  body: z.object({ version: onto, leadsNeedSecond: z.boolean() }),
  answer: settingsSaved,
} as const satisfies Endpoint;

const personBody = z.object({
  name: personName,
  role,
  classIds: z.array(id).max(100),
  groupIds: z.array(id).max(100),
  /** Left out it stays. */
  adultId: id.nullable().optional(),
  typedNames: z.array(line(60)).max(50),
});

/** Adds a person, who can sign in once invited. The same once more is told as success; a name that stands for someone else, who is here or left, is refused (422): marks carry names. */
export const addPerson = {
  method: "POST",
  path: "/api/people",
  may: { by: "lead" },
  trail: { did: "person", about: "body.id" },
  body: personBody.extend({ id }),
  answer: done,
} as const satisfies Endpoint;

/**
 * Changes a person, at once on all of their devices; marks under a name that they had stay theirs. Refused (422) for a name that
 * stands for someone else, and for the last lead who would not be one any more.
 */
export const editPerson = {
  method: "PUT",
  path: "/api/people/:id",
  may: { by: "lead" },
  trail: { did: "person", about: "params.id" },
  params: z.object({ id }),
  body: personBody.extend({ version: onto }),
  answer: done.extend({ version: count }),
} as const satisfies Endpoint;

/** Takes a person out of the school and ends their sign-ins. What they did keeps their name. The last lead cannot be taken out (422). */
export const removePerson = {
  method: "DELETE",
  path: "/api/people/:id",
  may: { by: "lead" },
  params: z.object({ id }),
  answer: done,
} as const satisfies Endpoint;

/**
 * Lets someone who left belong to the school again, in the role they had: what they marked is theirs, classes and groups are not
 * yet, and they come in by a new link. Said again it changes nothing.
 */
export const bringBackPerson = {
  method: "POST",
  path: "/api/people/:id/back",
  may: { by: "lead" },
  trail: { did: "person", about: "params.id" },
  params: z.object({ id }),
  answer: done,
} as const satisfies Endpoint;

/**
 * Makes a link for a person who never came in, or who is locked out: with it they set a passphrase, and a second factor that
 * they had is off. A link that was open before ends.
 */
export const invitePerson = {
  method: "POST",
  path: "/api/people/:id/invitation",
  may: { by: "lead" },
  trail: { did: "invited", about: "params.id" },
  params: z.object({ id }),
  answer: z.object({ token: linkToken, endsAt: instant }),
} as const satisfies Endpoint;

/**
 * Sends a link to a person, by the school's mail server; without one the letter lies in the outbox until the link is used or ends.
 * Where it is sent nothing of it is kept. Sent again with the same id it goes out once more, and lies in the outbox once.
 */
export const mailInvitation = {
  method: "POST",
  path: "/api/people/:id/invitation/mail",
  may: { by: "lead" },
  trail: { did: "invited", about: "params.id" },
  params: z.object({ id }),
  body: z.object({ id, token: linkToken, to: z.email("This is no e-mail address.").max(200) }),
  answer: z.object({ by: z.enum(["mail", "outbox"]) }),
} as const satisfies Endpoint;

/** The letters that no mail server sends, whose links still work: the newest first. */
export const listOutbox = {
  method: "GET",
  path: "/api/outbox",
  may: { by: "lead" },
  answer: z.array(
    z.object({
      ...{ id, to: z.string(), name: z.string(), subject: z.string(), text: z.string() },
      ...{ madeAt: instant, endsAt: instant },
    }),
  ),
} as const satisfies Endpoint;

/** Takes a letter out of the outbox; its link works on. Said again it changes nothing. */
export const removeLetter = {
  method: "DELETE",
  path: "/api/outbox/:id",
  may: { by: "lead" },
  params: z.object({ id }),
  answer: done,
} as const satisfies Endpoint;

/** Ends a link that was not used. Said again it changes nothing. */
export const endInvitation = {
  method: "DELETE",
  path: "/api/people/:id/invitation",
  may: { by: "lead" },
  trail: { did: "invited", about: "params.id" },
  params: z.object({ id }),
  answer: done,
} as const satisfies Endpoint;

/** The devices on which one is signed in, the one that asks first. */
export const listMyDevices = {
  method: "GET",
  path: "/api/me/devices",
  may: { by: "observer" },
  answer: z.array(z.object({ id, device: z.string(), since: instant, usedAt: instant, here: z.boolean() })),
} as const satisfies Endpoint;

/** Signs out on one of one's devices. Said again it changes nothing. */
export const endMyDevice = {
  method: "DELETE",
  path: "/api/me/devices/:id",
  may: { by: "observer" },
  params: z.object({ id }),
  answer: done,
} as const satisfies Endpoint;

/** Signs out on all of one's devices but this one. */
export const endMyOtherDevices = {
  method: "POST",
  path: "/api/me/sign-out-elsewhere",
  may: { by: "observer" },
  answer: done,
} as const satisfies Endpoint;

/** Sets another passphrase and signs out on all other devices. Refused (422) when the one of before is wrong. */
export const changePassphrase = {
  method: "POST",
  path: "/api/me/passphrase",
  may: { by: "observer" },
  body: z.object({ before: typedPassphrase, passphrase }),
  answer: done,
} as const satisfies Endpoint;

/** Begins with an authenticator app: its secret, as an address that the app reads. It counts once a code was typed. */
export const beginSecondFactor = {
  method: "POST",
  path: "/api/me/second-factor",
  may: { by: "observer" },
  body: z.object({ passphrase: typedPassphrase }),
  answer: z.object({ address: z.string(), secret: z.string() }),
} as const satisfies Endpoint;

/** The first code of the app: from now on each sign-in asks for one. Refused (422) when it is wrong. */
export const confirmSecondFactor = {
  method: "POST",
  path: "/api/me/second-factor/confirm",
  may: { by: "observer" },
  body: z.object({ code: appCode }),
  answer: done,
} as const satisfies Endpoint;

/** Signs in by the passphrase alone again. */
export const endSecondFactor = {
  method: "POST",
  path: "/api/me/second-factor/end",
  may: { by: "observer" },
  body: z.object({ passphrase: typedPassphrase }),
  answer: done,
} as const satisfies Endpoint;
