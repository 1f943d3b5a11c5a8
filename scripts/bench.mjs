// npm run bench [--
// core|loop|browser|load|uploads|bodies|hold|holds|processes|fuzz|kill|honesty|diagnosis|eye|rigs|predictions|advice|sweeps|timetable|campaigns|capture|large|weight|agent|growing]:
// the figures that the speed promises are held against; ratios are taken in one run.
import { ensureBuild, prepareDatabase, startServer, stopServer } from "./lib/application.mjs";
import { throwAwayCluster } from "./lib/cluster.mjs";
import { ensureChromium, ensurePackages, ensurePostgres } from "./lib/install.mjs";
import { freePort, say, show, root } from "./lib/run.mjs";
import { join } from "node:path";

ensurePostgres();
ensureChromium();
ensurePackages();
const tsx = join(root, "node_modules", ".bin", "tsx");
// How often the answers are right takes minutes, and is asked for by name.
// Killing makes an application and a database of its own.
const alone = [
  "honesty",
  "diagnosis",
  "eye",
  "rigs",
  "predictions",
  "advice",
  "sweeps",
  "timetable",
  "campaigns",
  "capture",
  "large",
  "kill",
  "weight",
  "agent",
  "growing",
];
if (alone.includes(process.argv[2]))
  process.exit(await show(tsx, [`scripts/benchmarks/${process.argv[2]}.ts`, ...process.argv.slice(3)]));
const database = throwAwayCluster();
let server = null;
const only = process.argv[2];
let code =
  only && only !== "core"
    ? 0
    : await show(process.execPath, ["--expose-gc", "--import", "tsx", "scripts/benchmarks/core.ts"]);
if (!only || only === "loop") code = (await show(tsx, ["scripts/benchmarks/loop.ts"])) || code;
try {
  if (only === "core" || only === "loop") process.exit(code);
  const url = await database.start();
  prepareDatabase(url, { demo: true });
  await ensureBuild();
  const port = await freePort(3510);
  server = await startServer({ port, url, quiet: true });
  const env = {
    ...process.env,
    LAMP_ADDRESS: `http://127.0.0.1:${port}`,
    LAMP_SERVER: String(server.pid),
    DATABASE_URL: url,
  };
  for (const part of ["browser", "load", "uploads", "bodies", "hold", "holds", "processes", "fuzz"])
    if (!only || only === part)
      code = (await show(tsx, [`scripts/benchmarks/${part}.ts`, ...process.argv.slice(3)], { env })) || code;
} finally {
  await stopServer(server);
  database.remove();
}
say(code === 0 ? "" : "A benchmark failed to run.");
process.exit(code);
