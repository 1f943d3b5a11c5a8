// npm test: installs, lints, type-checks, unit tests, then the built application in a real browser with a database of its own.
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { ensureBuild, prepareDatabase, startServer, stopServer } from "./lib/application.mjs";
import { throwAwayCluster } from "./lib/cluster.mjs";
import { ensureChromium, ensurePackages, ensurePostgres } from "./lib/install.mjs";
import { freePort, heard, root, say, show, stateFolder } from "./lib/run.mjs";

const bin = (name) => join(root, "node_modules", ".bin", name);
const totals = { passed: 0, failed: 0 };
const add = (passed, failed) => {
  totals.passed += passed;
  totals.failed += failed;
};

const begun = Date.now();
const after = () => `${Math.round((Date.now() - begun) / 1000)} s after the start`;

/** A check that passes or fails as a whole; its output is shown when it has ended, since others run beside it. */
async function check(name, command, args) {
  const { code, output } = await heard(command, args);
  say(`\n— ${name}: ${code === 0 ? "passed" : "failed"}, ${after()}\n${output}`.trimEnd());
  add(code === 0 ? 1 : 0, code === 0 ? 0 : 1);
}

async function checks() {
  await check("types", process.execPath, ["scripts/types.mjs"]);
  await check("lint", bin("eslint"), ["."]);
  await check("formatting", bin("prettier"), ["--check", "--log-level=warn", "."]);
  await check("kinds of trials", process.execPath, ["scripts/kinds.mjs", "--check"]);
  await check("what nobody uses", bin("knip"), []);
}

function report(file) {
  return existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : null;
}

async function unit(env) {
  say(`\n— unit tests, ${after()}`);
  const file = join(stateFolder, "unit.json");
  rmSync(file, { force: true });
  await show(bin("jest"), ["--coverage", "--json", `--outputFile=${file}`], { env });
  const result = report(file);
  // A suite that could not start counts its failure too.
  add(result?.numPassedTests ?? 0, result ? result.numFailedTests + result.numRuntimeErrorTestSuites : 1);
}

async function endToEnd(env) {
  say(`\n— the application in a browser, ${after()}`);
  const file = join(stateFolder, "browser.json");
  rmSync(file, { force: true });
  const code = await show(bin("playwright"), ["test"], { env: { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: file } });
  const stats = report(file)?.stats;
  add((stats?.expected ?? 0) + (stats?.flaky ?? 0), stats ? Math.max(stats.unexpected, code === 0 ? 0 : 1) : 1);
}

let database = null;
let server = null;
try {
  mkdirSync(stateFolder, { recursive: true });
  ensurePostgres();
  ensureChromium();
  ensurePackages();
  database = throwAwayCluster();
  const url = await database.start();
  prepareDatabase(url, { demo: true });
  await Promise.all([checks(), unit({ ...process.env, LAMP_TEST_DATABASE: url })]);
  ensureBuild();
  const port = await freePort(3410);
  server = await startServer({ port, url, quiet: true });
  await endToEnd({
    ...process.env,
    LAMP_ADDRESS: `http://127.0.0.1:${port}`,
    LAMP_TEST_DATABASE: url,
    LAMP_TEST_CLUSTER: database.home,
  });
} catch (error) {
  say(error.stack);
  add(0, 1);
} finally {
  await stopServer(server);
  database?.remove();
}
say(`\nEnded ${after()}.`);
say(`${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed === 0 && totals.passed > 0 ? 0 : 1);
