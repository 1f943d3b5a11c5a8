// Processes held to a share of a processor by the kernel, so that a machine of few processors can show how
// several fare. Linux, Documentation/admin-guide/cgroup-v1 and cgroup-v2 (CPU bandwidth control).
import { existsSync, mkdirSync, readFileSync, rmdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";

const periodUs = 100_000;
const v1 = "/sys/fs/cgroup/cpu",
  v2 = "/sys/fs/cgroup";

/** The processes that a process began. */
export const childrenOf = (pid: number): number[] =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, "utf8").trim().split(" ").filter(Boolean).map(Number);

/**
 * Holds each process, with what it begins later, to a share of one processor.
 * @returns what lets them go; null where this machine lets nobody do so
 */
export function held(pids: number[], share: number): (() => void) | null {
  const groups = pids.map((pid) => ({ pid, group: join(existsSync(v1) ? v1 : v2, `lamp-held-${pid}`) }));
  const end = () => {
    for (const { pid, group } of groups) {
      if (!existsSync(group)) continue;
      if (existsSync(`/proc/${pid}`)) writeFileSync(join(group, "..", "cgroup.procs"), String(pid));
      rmdirSync(group);
    }
  };
  try {
    for (const { pid, group } of groups) {
      mkdirSync(group);
      if (existsSync(v1)) {
        writeFileSync(join(group, "cpu.cfs_period_us"), String(periodUs));
        writeFileSync(join(group, "cpu.cfs_quota_us"), String(Math.round(share * periodUs)));
      } else writeFileSync(join(group, "cpu.max"), `${Math.round(share * periodUs)} ${periodUs}`);
      writeFileSync(join(group, "cgroup.procs"), String(pid));
    }
    return end;
  } catch {
    try {
      end();
    } catch {
      // What couldn't be made needn't be taken away.
    }
    return null;
  }
}
