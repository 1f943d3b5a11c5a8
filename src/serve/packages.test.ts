import { existsSync, readFileSync } from "node:fs";

interface Locked {
  version: string;
  integrity?: string;
  hasInstallScript?: boolean;
  dev?: boolean;
}
const { packages } = JSON.parse(readFileSync("package-lock.json", "utf8")) as {
  packages: Record<string, Locked>;
};
const installed = Object.entries(packages).filter(([path]) => path !== "" && existsSync(path));
const nameOf = (path: string) => path.split("node_modules/").at(-1)!;

describe("installed packages", () => {
  it("are each held by a digest in the lock (Subresource Integrity, SHA-512)", () => {
    expect(installed.length).toBeGreaterThan(500);
    expect(
      installed.filter(([, { integrity }]) => !/^sha512-/.test(integrity ?? "")).map(([path]) => path),
    ).toEqual([]);
  });
  it("run nothing when they are installed; those that would are known, and do without", () => {
    expect(readFileSync(".npmrc", "utf8")).toMatch(/^ignore-scripts=true$/m);
    const scripted = installed
      .filter(([, { hasInstallScript }]) => hasInstallScript)
      .map(([path]) => nameOf(path));
    // Each ships its program ready made for this platform; the last one's script only asks for donations.
    const known = ["@parcel/watcher", "@swc/core", "esbuild", "tesseract.js"];
    expect(scripted.filter((name) => !known.includes(name))).toEqual([]);
  });
  it("that run beside the application come in one version, but for those that need another's older one", () => {
    const versions = new Map<string, Set<string>>();
    for (const [path, { version, dev }] of installed) {
      if (dev) continue;
      const name = nameOf(path);
      versions.set(name, (versions.get(name) ?? new Set()).add(version));
    }
    const several = [...versions].filter(([, each]) => each.size > 1).map(([name]) => name);
    expect(several.sort()).toEqual([
      "@noble/hashes",
      "commander",
      "debug",
      "lru-cache",
      "mime-db",
      "ms",
      "semver",
      "tslib",
      "type-fest",
      "yallist",
    ]);
  });
});
