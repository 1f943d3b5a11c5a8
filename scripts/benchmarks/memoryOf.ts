import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";

/** Memory of a process and whatever it has started, MB. */
export function memoryOf(pid: string): number {
  try {
    const own = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1];
    const children = execFileSync("ps", ["--ppid", pid, "-o", "pid="], { encoding: "utf8" }).trim();
    const begun = children.split(/\s+/).filter(Boolean);
    return Number(own ?? 0) / 1024 + begun.reduce((sum, each) => sum + memoryOf(each), 0);
  } catch {
    return 0;
  }
}
