import { execFileSync, spawnSync } from "node:child_process";
import { accessSync, constants, mkdtempSync, rmSync, statfsSync, truncateSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";

const run = (command: string, ...args: string[]) =>
  execFileSync(command, args, { encoding: "utf8", stdio: ["ignore", "pipe", "ignore"] }).trim();

/**
 * A disk in memory, mounted for a test; null where this machine lets nobody mount one. @param options of its
 * mount, with its size
 */
export function mountedDisk(options: string): { folder: string; end: () => void } | null {
  const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-disk-"));
  try {
    run("mount", "-t", "tmpfs", "-o", options, "tmpfs", folder);
  } catch {
    rmSync(folder, { recursive: true });
    return null;
  }
  return {
    folder,
    end: () => {
      run("umount", "-l", folder);
      rmSync(folder, { recursive: true });
    },
  };
}

/**
 * A disk in a file, that an error of its own turns read-only, as a worn card does; null where this machine lets
 * nobody mount one. The error is ext4's own (Linux, Documentation/ABI/testing/sysfs-fs-ext4, trigger_fs_error).
 */
export function wornDisk(megabytes: number): {
  folder: string;
  wearOut: () => void;
  /** Checked and mounted anew; throws while something on it is still in use. */
  mend: () => void;
  end: () => void;
} | null {
  const folder = mkdtempSync(join(tmpdir(), "velvet-lamp-disk-"));
  const image = `${folder}.image`;
  const trigger = () => `/sys/fs/ext4/${basename(run("findmnt", "-no", "SOURCE", folder))}/trigger_fs_error`;
  const mount = () => run("mount", "-o", "loop,errors=remount-ro", image, folder);
  const remove = () => {
    rmSync(folder, { recursive: true });
    rmSync(image, { force: true });
  };
  try {
    writeFileSync(image, "");
    truncateSync(image, megabytes * 1024 * 1024);
    run("mkfs.ext4", "-q", image);
    mount();
    run("chmod", "0777", folder);
    accessSync(trigger(), constants.W_OK);
  } catch {
    spawnSync("umount", ["-l", folder]);
    remove();
    return null;
  }
  return {
    folder,
    wearOut: () => writeFileSync(trigger(), "1"),
    mend: () => {
      run("umount", folder);
      // Its answer is 1 where something had to be mended.
      spawnSync("e2fsck", ["-p", "-f", image]);
      mount();
    },
    end: () => {
      try {
        run("umount", "-l", folder);
      } finally {
        remove();
      }
    },
  };
}

/** Fills the disk of a folder until so much is left, bytes. @returns takes the filling away */
export function fillDisk(folder: string, leaves: number): () => void {
  const filler = join(folder, "filler");
  // Whoever writes meanwhile may take the room first: what doesn't fit is tried with a little less.
  for (let left = leaves; ; left += 500_000) {
    const { bavail, bsize } = statfsSync(folder);
    try {
      writeFileSync(filler, Buffer.alloc(Math.max(0, bavail * bsize - left)));
      return () => rmSync(filler, { force: true });
    } catch {
      rmSync(filler, { force: true });
    }
  }
}
