import { randomBytes, scrypt, timingSafeEqual } from "node:crypto";
import { Problem } from "@/server/problem";

/** Cost of one try: OWASP's password storage sheet, scrypt with N = 2^15, r = 8, p = 3. */
const cost = { N: 2 ** 15, r: 8, p: 3, maxmem: 64 * 1024 * 1024 };
const keyBytes = 32;
/** Characters of a passphrase. */
const least = 10,
  most = 200;
/** The least of five grades of strength, 0 to 4, that is taken. */
const leastScore = 3;

const derive = async (passphrase: string, salt: Buffer): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(passphrase.normalize("NFKC"), salt, keyBytes, cost, (error, key) =>
      error ? reject(error) : resolve(key),
    ),
  );

/** A passphrase as it is kept: the way, a salt, and what came of both. */
export async function sealPassphrase(passphrase: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derive(passphrase, salt);
  return ["scrypt", salt.toString("base64url"), key.toString("base64url")].join("$");
}

/** Kept for nobody: a name that isn't there takes as long as one that is. */
const nobodys = `scrypt$${randomBytes(16).toString("base64url")}$${randomBytes(keyBytes).toString("base64url")}`;

export async function isPassphrase(passphrase: string, kept: string | null): Promise<boolean> {
  const [, salt = "", key = ""] = (kept ?? nobodys).split("$");
  const derived = await derive(passphrase, Buffer.from(salt, "base64url"));
  return timingSafeEqual(derived, Buffer.from(key, "base64url")) && kept !== null;
}

/**
 * Refuses a passphrase that is guessed too soon, with what would make it better.
 * @param words what the guesser knows: the person's name
 * @throws Problem 422
 */
export async function judgePassphrase(passphrase: string, words: string[]): Promise<void> {
  const weak = (fix: string) =>
    new Problem(422, "This passphrase is too easily guessed.", fix, { passphrase: fix });
  if (passphrase.length < least)
    throw weak(`Take at least ${least} characters: four words that nobody puts together do.`);
  if (passphrase.length > most) throw weak(`Take at most ${most} characters.`);
  const [{ ZxcvbnFactory }, common, english] = await Promise.all([
    import("@zxcvbn-ts/core"),
    import("@zxcvbn-ts/language-common"),
    import("@zxcvbn-ts/language-en"),
  ]);
  const judge = new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
    translations: english.translations,
  });
  const { score, feedback } = judge.check(passphrase, ["velvet", "lamp", "velvetlamp", ...words]);
  if (score < leastScore)
    throw weak(
      [feedback.warning, ...feedback.suggestions].filter(Boolean).join(" ") ||
        "Add a word or two that nobody puts together.",
    );
}
