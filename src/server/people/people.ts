import type { Body } from "@/contract";
import { createHash, randomBytes } from "node:crypto";
import { sealData, unsealData } from "iron-session";
import { RateLimiterPostgres } from "rate-limiter-flexible";
import type { PeopleView, SharedOf } from "@/core/records";
import { publicationHtml } from "@/core/publication";
import { recipeHtml } from "@/core/recipe";
import * as data from "@/data";
import { signInAsked, thisMachine, type Actor, type Asker, type Caller } from "@/server/actor";
import { journal } from "@/server/system/journal";
import { isPassphrase, judgePassphrase, sealPassphrase } from "./passphrase";
import { Problem, notFound } from "@/server/problem";
import { pageFonts, publish } from "@/server/board/publish";
import { viewRecipe } from "@/server/profiles/recipe";
import { writing } from "@/server/writing";

/** Of a secret only this is kept. */
const digestOf = (secret: string) => createHash("sha256").update(secret).digest("hex");
const newSecret = (kind: string) => `lamp_${kind}_${randomBytes(24).toString("base64url")}`;

/** What cookies are sealed with. @throws Error where none was given: the start command does */
function sealing(): string {
  const secret = process.env.LAMP_SECRET ?? "";
  if (secret.length < 32)
    throw new Error("LAMP_SECRET of at least 32 characters is needed to let anybody sign in.");
  return secret;
}

/** A cookie's life, s; the session in the store ends it earlier. */
const cookieSeconds = 30 * 24 * 3600;
/** The name of a cookie that no other host and no plain connection can set. */
const cookieName = (secure: boolean) => (secure ? "__Host-lamp" : "lamp");

const cookieFor = (secure: boolean, value: string, seconds: number) =>
  `${cookieName(secure)}=${value}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${seconds}${secure ? "; Secure" : ""}`;

const cookieIn = (header: string, name: string): string | null =>
  header
    .split(/;\s*/)
    .find((each) => each.startsWith(`${name}=`))
    ?.slice(name.length + 1) ?? null;

/**
 * Who calls: this machine where nobody has to sign in, else a program by its token or a person by a session.
 */
export async function whoCalls(headers: {
  authorization?: string | undefined;
  cookie?: string | undefined;
  secure: boolean;
}): Promise<Asker | null> {
  const token = /^Bearer (lamp_program_[\w-]{20,80})$/.exec(headers.authorization ?? "")?.[1];
  // Whoever shows a token is who the token says, on this machine too: a revoked one opens nothing.
  if (token) {
    const program = await data.findProgram(digestOf(token));
    if (!program) return null;
    const { rigId, ...rest } = program;
    return { kind: "program", ...rest, ...(rigId !== null && { rigId }) };
  }
  if (!signInAsked()) return thisMachine;
  const sealed = cookieIn(headers.cookie ?? "", cookieName(headers.secure));
  if (!sealed) return null;
  const { secret } = await unsealData<{ secret?: string }>(sealed, { password: sealing(), ttl: cookieSeconds });
  const session = typeof secret === "string" ? await data.findSession(digestOf(secret)) : null;
  return session && { kind: "person", name: session.name, may: session.may, id: session.id };
}

const seconds = 15 * 60;
/** Tries that fail within a quarter of an hour: from one address, and from all together. */
const limits = { address: 10, all: 100 };
const limiter = (points: number, keyPrefix: string) =>
  new RateLimiterPostgres({
    storeClient: data.database(),
    storeType: "sequelize",
    tableName: "sign_in_tries",
    tableCreated: true,
    clearExpiredByTimeout: false,
    points,
    duration: seconds,
    keyPrefix,
  });

/** Counts a try before it is made, so that many at once can't slip through; a good one is given back. */
async function tried(address: string): Promise<() => Promise<void>> {
  const kinds: [RateLimiterPostgres, string][] = [
    [limiter(limits.address, "address"), address],
    [limiter(limits.all, "all"), "all"],
  ];
  for (const [kind, key] of kinds) {
    const counted = await kind.consume(key).catch((refused: unknown) => {
      if (refused instanceof Error) throw refused;
      return null;
    });
    if (counted === null) {
      journal().warn({ kind: "sign-in held back" }, "refused");
      throw new Problem(
        429,
        "Too many tries to sign in.",
        `Wait a quarter of an hour, then try again. Whoever keeps this machine can set a passphrase anew.`,
      );
    }
  }
  return async () => {
    for (const [kind, key] of kinds) await kind.reward(key);
  };
}

/** Opens a session for somebody. @returns the cookie that carries it */
export async function signIn(
  { name, passphrase }: Body<"signIn">,
  { address, secure, agent }: Pick<Caller, "address" | "secure"> & { agent: string },
): Promise<{ name: string; cookie: string }> {
  const given = await tried(address);
  const person = await data.findPerson(name);
  if (!(await isPassphrase(passphrase, person?.passphrase ?? null)) || !person)
    throw new Problem(
      401,
      "Name or passphrase isn't right.",
      "Try again; capital letters count in the passphrase.",
    );
  await given();
  const secret = newSecret("session");
  await data.addSession(person.id, digestOf(secret), { address, agent });
  const sealed = await sealData({ secret }, { password: sealing(), ttl: cookieSeconds });
  return { name: person.name, cookie: cookieFor(secure, sealed, cookieSeconds) };
}

/** Told with every change of who may come in: streams of changes look again whether they may go on. */
const aboutPeople = { kind: "people", id: "" } as const;

/** Ends what lets somebody in, and tells of it. @throws Problem 404 where there is no such thing */
async function ending(actor: Actor, end: () => Promise<boolean>, what: string): Promise<void> {
  await writing(actor, async (touch) => {
    if (!(await end())) throw notFound(what);
    touch(aboutPeople);
  });
}

export async function signOut({ asker, secure }: Caller): Promise<{ cookie: string }> {
  if (asker?.kind === "person")
    await writing(asker, async (touch) => {
      await data.endSession(asker.id);
      touch(aboutPeople);
    });
  return { cookie: cookieFor(secure, "", 0) };
}

/** Sets one's own passphrase anew; every session that began with the old one ends, one's own too. */
export async function changePassphrase(
  { asker, address }: Caller,
  input: Body<"changePassphrase">,
): Promise<void> {
  const { passphrase, fresh } = input;
  const person = asker?.kind === "person" ? await data.findPerson(asker.name) : null;
  if (!person)
    throw new Problem(409, "Only a person who signed in has a passphrase.", "Set one with npm run passphrase.");
  const given = await tried(address);
  if (!(await isPassphrase(passphrase, person.passphrase)))
    throw new Problem(422, "The passphrase there was isn't right.", "Type it again.", {
      passphrase: "Not right.",
    });
  await given();
  await setPassphrase(person.name, person.may, fresh);
}

/** Lets somebody in, or changes what they may or their passphrase. @throws Problem 422 for a weak one */
export async function setPassphrase(name: string, may: "tunes" | "reads", passphrase: string): Promise<void> {
  await judgePassphrase(passphrase, [name]);
  const sealed = await sealPassphrase(passphrase);
  await writing({ kind: "person", name }, async (touch) => {
    await data.putPerson(name, may, sealed);
    touch(aboutPeople);
  });
}

export async function viewPeople(): Promise<PeopleView> {
  const [people, sessions, programs, links] = await Promise.all([
    data.listPeople(),
    data.listSessions(),
    data.listPrograms(),
    data.listLinks(),
  ]);
  return { asked: signInAsked(), people, sessions, programs, links };
}

export const endSession = async (actor: Actor, id: string): Promise<void> =>
  ending(actor, async () => data.endSession(id), "session");
export const removePerson = async (actor: Actor, id: string): Promise<void> =>
  ending(actor, async () => data.removePerson(id), "person");
export const revokeProgram = async (actor: Actor, id: string): Promise<void> =>
  ending(actor, async () => data.revokeProgram(id), "program");
export const revokeLink = async (actor: Actor, id: string): Promise<void> =>
  ending(actor, async () => data.revokeLink(id), "link");

/** Lets a program in. @returns its token, shown this once */
export async function addProgram(
  { name: by }: { name: string },
  input: Body<"addProgram">,
): Promise<{ id: string; token: string }> {
  const { name, may } = input;
  const token = newSecret("program");
  return { id: await data.addProgram(name, may, digestOf(token), by), token };
}

/** How long a code waits for its device, minutes. */
const pairingMinutes = 10;
/** Letters and digits that aren't taken for one another (Crockford's base 32). */
const codeLetters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
/** A code as it is typed: any case, with or without its dash, with letters that look like digits. */
const codeAs = (typed: string) =>
  typed
    .toUpperCase()
    .replaceAll(/[^0-9A-Z]/g, "")
    .replaceAll("O", "0")
    .replaceAll(/[IL]/g, "1");

/** Makes the short code that a device is paired with a rig by. @returns it, shown this once */
export async function beginPairing(
  { name: by }: Actor,
  rigId: string,
): Promise<{ code: string; endsAt: string }> {
  if (!(await data.findRig(rigId))) throw notFound("rig");
  const code = Array.from(randomBytes(8), (byte) => codeLetters[byte % codeLetters.length]).join("");
  const endsAt = await data.addPairing(digestOf(code), rigId, by, pairingMinutes);
  return { code: `${code.slice(0, 4)}-${code.slice(4)}`, endsAt };
}

/**
 * Trades a code for a token that is bound to the code's rig, once.
 * @throws Problem 401 for a code that is wrong, used or too old, 429 after ten of them from one address
 */
export async function pairDevice(
  { code, name }: Body<"pairDevice">,
  { address }: Pick<Caller, "address">,
): Promise<{ token: string; rigId: string; rig: string }> {
  const given = await tried(address);
  const token = newSecret("program");
  const paired = await writing({ kind: "program", name }, async (touch) => {
    const found = await data.takePairing(digestOf(codeAs(code)));
    if (!found) return null;
    await data.addProgram(name, "runs", digestOf(token), found.madeBy, found.rigId);
    touch(aboutPeople);
    return found;
  });
  if (!paired)
    throw new Problem(
      401,
      "This code pairs no device.",
      "A code holds for ten minutes and for one device. Make another on the rig's page.",
    );
  await given();
  return { token, rigId: paired.rigId, rig: paired.rig };
}

/** Makes a read-only link. @returns its path, shown this once */
export async function addLink(
  { name: by }: { name: string },
  link: Body<"addLink">,
): Promise<{ id: string; path: string }> {
  // What can't be shown isn't linked to.
  await drawn(link);
  const secret = newSecret("link");
  return { id: await data.addLink(link, digestOf(secret), by), path: `/shared/${secret}` };
}

async function drawn({ what, ofId, names, notes }: SharedOf): Promise<string> {
  if (what === "recipe") return recipeHtml(await viewRecipe(ofId));
  const yes = (on: boolean) => (on ? ("yes" as const) : ("no" as const));
  return publicationHtml(
    await publish({ of: what, id: ofId, names: yes(names), notes: yes(notes) }),
    await pageFonts(),
  );
}

/** The page that a link shows, as things are now. @throws Problem 404 for one that is unknown or revoked */
export async function sharedPage(secret: string): Promise<string> {
  const link = /^lamp_link_[\w-]{20,80}$/.test(secret) ? await data.useLink(digestOf(secret)) : null;
  if (!link)
    throw new Problem(
      404,
      "This link shows nothing.",
      "It was revoked, or cut short. Ask whoever gave it to you.",
    );
  return drawn(link);
}
