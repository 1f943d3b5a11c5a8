import { closeSync, openSync, readSync, readdirSync } from "node:fs";
import { join } from "node:path";
import type { KernelTree, Looked } from "@/core/device";

/** No file of the kernel that is read here is longer, bytes. */
const mostBytes = 256 * 1024;

/** Why a file can't be read, in a word. */
function whyOf(error: unknown): string {
  const { code } = error as NodeJS.ErrnoException;
  if (code === "ENOENT" || code === "ENOTDIR" || code === "ENODEV" || code === "ENXIO") return "absent";
  if (code === "EACCES" || code === "EPERM") return "not allowed for this user";
  return code ?? "can't be read";
}

/** The kernel's files under a folder: "/" for this device, or a recorded tree. */
export function kernelTree(root: string): KernelTree {
  const buffer = Buffer.alloc(mostBytes);
  return {
    list: (folder) => {
      try {
        return readdirSync(join(root, folder)).sort((a, b) => a.localeCompare(b, "en", { numeric: true }));
      } catch {
        return [];
      }
    },
    read: (path): Looked => {
      let file: number | null = null;
      try {
        file = openSync(join(root, path), "r");
        // Files of the kernel say no length of their own: they are read until they end.
        let length = 0;
        for (;;) {
          const count = readSync(file, buffer, length, mostBytes - length, null);
          length += count;
          if (count === 0 || length === mostBytes) break;
        }
        return { text: buffer.toString("utf8", 0, length) };
      } catch (error) {
        return { why: whyOf(error) };
      } finally {
        if (file !== null) closeSync(file);
      }
    },
  };
}
