// npm test: installs, lints, type-checks, unit tests, then the built application in a real browser with a
// database of its own. With --coverage it prints how much of the core, the store and the endpoints the unit tests
// run.
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from "node:fs";
import { join, relative } from "node:path";
import { ensureBuild, prepareDatabase, startServer, stopServer } from "./lib/application.mjs";
import { throwAwayCluster } from "./lib/cluster.mjs";
import { ensureChromium, ensurePackages, ensurePostgres } from "./lib/install.mjs";
import { freePort, heard, root, say, show, stateFolder } from "./lib/run.mjs";

const bin = (name) => join(root, "node_modules", ".bin", name);
const totals = { passed: 0, failed: 0 };
/** What failed, by name: said once more at the end, where a log that was cut short still shows it. */
const failures = [];
const add = (passed, failed) => {
  totals.passed += passed;
  totals.failed += failed;
};

const begun = Date.now();
const after = () => `${Math.round((Date.now() - begun) / 1000)} s after the start`;

/**
 * A check that passes or fails as a whole; its output is shown when it has ended, since others run beside it.
 */
async function check(name, command, args) {
  const { code, output } = await heard(command, args);
  say(`\n— ${name}: ${code === 0 ? "passed" : "failed"}, ${after()}\n${output}`.trimEnd());
  add(code === 0 ? 1 : 0, code === 0 ? 0 : 1);
  if (code !== 0) failures.push(name);
}

async function checks() {
  await check("types", process.execPath, ["scripts/types.mjs"]);
  await check("lint", bin("eslint"), ["."]);
  await check("which may import which", bin("depcruise"), ["--config", ".dependency-cruiser.mjs", "src"]);
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
  const counted = process.argv.includes("--coverage") ? ["--coverage"] : [];
  await show(bin("jest"), ["--json", `--outputFile=${file}`, "--maxWorkers=2", ...counted], { env });
  const result = report(file);
  // A suite that could not start counts its failure too.
  add(result?.numPassedTests ?? 0, result ? result.numFailedTests + result.numRuntimeErrorTestSuites : 1);
  for (const { name, status, assertionResults } of result?.testResults ?? []) {
    const failed = assertionResults.filter((each) => each.status === "failed");
    if (status === "failed")
      failures.push(`${relative(root, name)}: ${failed.map(({ fullName }) => fullName).join("; ")}`);
  }
}

/**
 * Tests in a browser go two ways at once, each with an application and a database of its own; the longest are
 * in the first.
 */
const firstLane = [
  "everywhere",
  "loop",
  "sweeps",
  "queue",
  "phone",
  "starts",
  "passphrase",
  "capture",
  "campaigns",
].map((name) => `${name}.spec.ts`);
const specs = () => readdirSync(join(root, "e2e")).filter((name) => name.endsWith(".spec.ts"));

async function lane(name, files, cluster, url, wantedPort) {
  const port = await freePort(wantedPort);
  // Every answer is held against what its endpoint promises.
  process.env.LAMP_CHECK_ANSWERS = "1";
  const server = await startServer({ port, url, quiet: true });
  servers.push(server);
  const file = join(stateFolder, `browser-${name}.json`);
  rmSync(file, { force: true });
  const env = {
    ...process.env,
    LAMP_ADDRESS: `http://127.0.0.1:${port}`,
    LAMP_TEST_DATABASE: url,
    LAMP_TEST_CLUSTER: cluster.home,
    PLAYWRIGHT_JSON_OUTPUT_NAME: file,
  };
  const asked = ["test", ...files.map((each) => `e2e/${each}`), `--output=test-results/${name}`];
  const { code, output } = await heard(bin("playwright"), asked, { env });
  say(
    `\n— the application in a browser, ${name}: ${code === 0 ? "passed" : "failed"}, ${after()}\n${output}`.trimEnd(),
  );
  const { stats, suites = [] } = report(file) ?? {};
  add((stats?.expected ?? 0) + (stats?.flaky ?? 0), stats ? Math.max(stats.unexpected, code === 0 ? 0 : 1) : 1);
  failures.push(...failedSpecs(suites));
}

/** Specs of a browser report that didn't pass, those that passed at a second try included. */
const failedSpecs = (suites) =>
  suites.flatMap(({ specs = [], suites: within = [] }) => [
    ...specs.flatMap(({ ok, file, title, tests }) =>
      ok && tests.every(({ status }) => status !== "flaky")
        ? []
        : [`${file}: ${title}${ok ? " (passed at a second try)" : ""}`],
    ),
    ...failedSpecs(within),
  ]);

const clusters = [];
const servers = [];
/** Two clusters of their own, the demo in both. */
async function prepared() {
  const first = throwAwayCluster();
  clusters.push(first);
  prepareDatabase(await first.start(), { demo: true });
  first.stop();
  const second = throwAwayCluster(first);
  clusters.push(second);
  return [first, await first.start(), second, await second.start()];
}

try {
  mkdirSync(stateFolder, { recursive: true });
  ensurePostgres();
  ensureChromium();
  ensurePackages();
  const [first, firstUrl, second, secondUrl] = await prepared();
  await Promise.all([checks(), unit({ ...process.env, LAMP_TEST_DATABASE: firstUrl })]);
  await ensureBuild();
  say(`\n— the application in a browser, ${after()}`);
  await Promise.all([
    lane("first", firstLane, first, firstUrl, 3410),
    lane(
      "second",
      specs().filter((name) => !firstLane.includes(name)),
      second,
      secondUrl,
      3450,
    ),
  ]);
} catch (error) {
  say(error.stack);
  add(0, 1);
} finally {
  for (const server of servers) await stopServer(server);
  for (const cluster of clusters) cluster.remove();
}
say(`\nEnded ${after()}.`);
for (const each of failures) say(`Failed: ${each}`);
say(`${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed === 0 && totals.passed > 0 ? 0 : 1);
