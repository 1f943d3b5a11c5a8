import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/**
 * A disk in memory, mounted for a test; null where this machine lets nobody mount one. @param options of its
 * mount, with its size
 */
export function mountedDisk(options: string): { folder: string; end: () => void } | null {
  const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-disk-"));
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", options, "tmpfs", folder], { stdio: "ignore" });
  } catch {
    rmSync(folder, { recursive: true });
    return null;
  }
  return {
    folder,
    end: () => {
      execFileSync("umount", ["-l", folder]);
      rmSync(folder, { recursive: true });
    },
  };
}
