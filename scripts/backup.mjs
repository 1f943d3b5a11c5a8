// npm run backup [-- FILE]: the whole store as one file, while the application runs or not. npm run backup --
// --check FILE: restores one into a database that is thrown away, and compares. npm run restore -- FILE: puts one in
// the store's place; the application must be stopped, and the store before is kept beside it.
import { join, resolve } from "node:path";
import { prepareDatabase } from "./lib/application.mjs";
import { ensurePackages, ensurePostgres } from "./lib/install.mjs";
import { cluster, clusterHome } from "./lib/cluster.mjs";
import { SetupError, inWords, say, stateFolder, writeWhole } from "./lib/run.mjs";

const restoring = process.argv[2] === "restore";
const checking = process.argv[3] === "--check";
const named = process.argv[checking ? 4 : 3];
const given = (file) => resolve(process.env.INIT_CWD ?? ".", file);

async function main() {
  ensurePostgres();
  ensurePackages();
  const { backup, check, nameForNow, restore } = await import("./lib/archive.mjs");
  const own = process.env.DATABASE_URL ? null : cluster(clusterHome());
  const wasRunning = own?.isRunning() ?? true;
  const url = own ? await own.start() : process.env.DATABASE_URL;
  try {
    if (restoring) {
      if (!named) throw new SetupError("Say which file: npm run restore -- FILE");
      const { manifest, before } = await restore(url, given(named));
      prepareDatabase(url);
      say(`Restored as of ${manifest.made}: ${manifest.counts.jobs} jobs, ${manifest.counts.runs} runs.`);
      say(`The store before is kept as the database ${before}.`);
    } else if (checking) {
      if (!named) throw new SetupError("Say which file: npm run backup -- --check FILE");
      const { counts, made } = await check(url, given(named));
      say(
        `${given(named)} can be restored, every table as it was on ${made}: ${counts.jobs} jobs, ${counts.runs} runs.`,
      );
    } else {
      prepareDatabase(url);
      const file = named ? given(named) : nameForNow(process.env.INIT_CWD);
      const { counts, made } = await backup(url, file);
      writeWhole(join(stateFolder, "backup.json"), JSON.stringify({ at: made, file }));
      say(`${file}\n${counts.jobs} jobs, ${counts.runs} runs.`);
    }
  } finally {
    if (!wasRunning) own?.stop();
  }
}

main().catch((error) => {
  say(inWords(error));
  process.exitCode = 1;
});
