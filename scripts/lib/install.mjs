// What a fresh machine lacks: Debian's packages and the locked npm packages.
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { SetupError, fingerprint, isRoot, must, root, say, works } from "./run.mjs";

/** The folder of PostgreSQL's server programs, newest version first, or null. */
export function postgresBin() {
  const base = "/usr/lib/postgresql";
  const versions = existsSync(base) ? readdirSync(base).sort((a, b) => Number(b) - Number(a)) : [];
  const found = versions
    .map((version) => join(base, version, "bin"))
    .find((bin) => existsSync(join(bin, "initdb")));
  if (found) return found;
  const onPath = (process.env.PATH ?? "")
    .split(":")
    .find((bin) => existsSync(join(bin, "initdb")) && existsSync(join(bin, "pg_ctl")));
  return onPath ?? null;
}

/** Debian's Chromium without windows of its own: the same pages in two thirds of the time. */
const shellPath = "/usr/bin/chromium-headless-shell";

export function chromiumPath() {
  return (
    [process.env.CHROMIUM_PATH, shellPath, "/usr/bin/chromium", "/usr/bin/chromium-browser"].find(
      (path) => path && existsSync(path),
    ) ?? null
  );
}

function debianInstall(name, why) {
  const admin = isRoot ? [] : works("sudo", ["-n", "true"]) ? ["sudo", "-n"] : null;
  if (!works("sh", ["-c", "command -v apt-get"]) || admin === null) {
    throw new SetupError(
      `${why} is needed and missing. Install it once with:\n  sudo apt-get update && sudo apt-get install -y ${name}`,
    );
  }
  say(`Installing ${why} from Debian's package ${name} …`);
  const run = (...args) => {
    const [command, ...rest] = [...admin, "env", "DEBIAN_FRONTEND=noninteractive", "apt-get", ...args];
    must(command, rest);
  };
  run("update");
  run("install", "-y", "--no-install-recommends", name);
}

export function ensurePostgres() {
  if (!postgresBin()) debianInstall("postgresql", "PostgreSQL's server");
  const bin = postgresBin();
  if (!bin)
    throw new SetupError(
      "PostgreSQL was installed, but its programs were not found under /usr/lib/postgresql.",
    );
  return bin;
}

export function ensureChromium() {
  const why = "the browser for the interface tests";
  if (!chromiumPath() || chromiumPath() === "/usr/bin/chromium") {
    try {
      debianInstall("chromium-headless-shell", why);
    } catch (error) {
      // An older Debian has it in one package only.
      if (!chromiumPath()) debianInstall("chromium", why);
      else say(`${error.message}\nThe Chromium that is there is used.`);
    }
  }
  const path = chromiumPath();
  if (!path) throw new SetupError("Chromium was installed, but /usr/bin/chromium is not there.");
  return path;
}

/** `npm ci` when the lock file differs from the one last installed. */
export function ensurePackages() {
  const stamp = join(root, "node_modules", ".lamp-stamp");
  const wanted = fingerprint(["package.json", "package-lock.json"]);
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;
  say("Installing packages …");
  must("npm", ["ci", "--include=dev", "--no-audit", "--no-fund", "--loglevel=error"]);
  mkdirSync(join(root, "node_modules"), { recursive: true });
  writeFileSync(stamp, wanted);
}
