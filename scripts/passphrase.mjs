// npm run passphrase -- [NAME] [--reads] [--end]: lets somebody in who calls from another machine; the
// passphrase is typed, or given by standard input.
import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { createInterface } from "node:readline/promises";
import { text } from "node:stream/consumers";
import { Writable } from "node:stream";
import { prepareDatabase } from "./lib/application.mjs";
import { cluster, clusterHome } from "./lib/cluster.mjs";
import { ensurePackages, ensurePostgres } from "./lib/install.mjs";
import { SetupError, inWords, root, say } from "./lib/run.mjs";

const args = process.argv.slice(2);
const flags = new Set(args.filter((arg) => arg.startsWith("--")));

/** Asks without showing what is typed. */
async function hidden(question) {
  process.stdout.write(question);
  const ask = createInterface({
    input: process.stdin,
    output: new Writable({ write: (_part, _encoding, done) => done() }),
    terminal: true,
  });
  const typed = await ask.question("");
  ask.close();
  process.stdout.write("\n");
  return typed;
}

async function main() {
  let [name] = args.filter((arg) => !arg.startsWith("--"));
  if (!name && process.stdin.isTTY) {
    const ask = createInterface({ input: process.stdin, output: process.stdout });
    name = (await ask.question("Who is it for? ")).trim();
    ask.close();
  }
  if (!name) throw new SetupError("Say who it is for: npm run passphrase -- NAME");
  ensurePackages();
  const own = process.env.DATABASE_URL ? null : cluster(clusterHome());
  if (own) ensurePostgres();
  const there = own?.isRunning() ?? true;
  const url = own ? await own.start() : process.env.DATABASE_URL;
  try {
    prepareDatabase(url);
    let passphrase = "";
    if (!flags.has("--end")) {
      if (process.stdin.isTTY) {
        passphrase = await hidden(`Passphrase for ${name}: `);
        if ((await hidden("The same again: ")) !== passphrase)
          throw new SetupError("The two differ. Nothing was set.");
      } else passphrase = (await text(process.stdin)).replace(/\r?\n$/, "");
    }
    const does = flags.has("--end") ? ["end", name] : ["set", name, flags.has("--reads") ? "reads" : "tunes"];
    const done = spawnSync(join(root, "node_modules", ".bin", "tsx"), ["scripts/people.ts", ...does], {
      cwd: root,
      input: passphrase,
      encoding: "utf8",
      env: { ...process.env, DATABASE_URL: url },
    });
    if (done.status !== 0) throw new SetupError((done.stderr || done.stdout).trim().split("\n").at(-1) ?? "");
    say(done.stdout.trim());
  } finally {
    if (own && !there) own.stop();
  }
}

main().catch((error) => {
  say(inWords(error));
  process.exit(1);
});
