import { execFile, execFileSync } from "node:child_process";
import { join } from "node:path";

const bin = (name: string) => join("node_modules", ".bin", name);
const bundle = join("node_modules", ".cache", "lamp", `${process.pid}.mjs`);
let isBundled = false;

/** What a command that has ended leaves behind. */
export interface Ended {
  code: number;
  out: string;
  /** Standard output as it came. */
  bytes: Buffer;
  err: string;
}

/** Runs the command as a process of its own, made one file first: the transpiler starts ten times as slowly. */
export function lamp(args: string[], input = ""): Promise<Ended> {
  if (!isBundled) {
    const how = ["--bundle", "--platform=node", "--format=esm", "--packages=external", "--log-level=error"];
    execFileSync(bin("esbuild"), ["src/cli/lamp.ts", ...how, `--outfile=${bundle}`]);
    isBundled = true;
  }
  return started(process.execPath, [bundle, ...args], input);
}

/** Runs the command as `npm run lamp` does. */
export const lampItself = (args: string[], input = "") =>
  started(bin("tsx"), ["src/cli/lamp.ts", ...args], input);

function started(program: string, args: string[], input: string): Promise<Ended> {
  return new Promise((resolve) => {
    const child = execFile(program, args, { encoding: "buffer" }, (error, bytes, err) =>
      resolve({
        code: error ? (typeof error.code === "number" ? error.code : 1) : 0,
        out: bytes.toString(),
        bytes,
        err: err.toString(),
      }),
    );
    child.stdin?.end(input);
  });
}
