import { expect, test } from "@playwright/test";
import { execFileSync, spawn, type ChildProcess } from "node:child_process";

/* The passphrase typed at a terminal: `script`, of every Debian, gives the command one. */

const passphrase = "quiet lamps over nine gutters";
const env = { ...process.env, DATABASE_URL: process.env.LAMP_TEST_DATABASE ?? "" };

function isThere(): boolean {
  try {
    execFileSync("script", ["--version"], { stdio: "ignore" });
    return true;
  } catch {
    return false;
  }
}

/** The command at a terminal, with what it said, and what is typed at each of its questions. */
async function typed(command: string, answers: [asked: RegExp, answer: string][]) {
  const child: ChildProcess = spawn("script", ["-qec", command, "/dev/null"], { env });
  let said = "";
  child.stdout?.on("data", (part: Buffer) => (said += part.toString()));
  const ended = new Promise<number | null>((resolve) => child.once("exit", resolve));
  for (const [asked, answer] of answers) {
    await expect.poll(() => said, { timeout: 60_000 }).toMatch(asked);
    child.stdin?.write(`${answer}\r`);
  }
  return { code: await ended, said };
}

test("a passphrase is asked for twice, never shown, and set only if both are the same", async () => {
  test.setTimeout(180_000);
  test.skip(!isThere(), "this machine has no program that gives a command a terminal");
  const command = "node scripts/passphrase.mjs Typed --reads";
  const [first, again] = [/Passphrase for Typed: /, /The same again: /];
  const different = await typed(command, [
    [first, passphrase],
    [again, `${passphrase}.`],
  ]);
  expect(different.said).toContain("The two differ. Nothing was set.");
  expect(different.code).toBe(1);

  const weak = await typed(command, [
    [first, "passphrase"],
    [again, "passphrase"],
  ]);
  expect(weak.code).toBe(1);
  expect(weak.said).toMatch(/guessed/);

  const set = await typed(command, [
    [first, passphrase],
    [again, passphrase],
  ]);
  expect(set.code).toBe(0);
  expect(set.said).toMatch(/Typed/);
  for (const { said } of [different, set]) expect(said).not.toContain(passphrase);

  const end = execFileSync(process.execPath, ["scripts/passphrase.mjs", "Typed", "--end"], {
    env,
    encoding: "utf8",
  });
  expect(end).toMatch(/Typed/);
});
