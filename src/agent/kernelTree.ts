import { closeSync, openSync, readSync, readdirSync } from "node:fs";
import { join } from "node:path";
import type { KernelTree, Looked } from "@/core/device";

/** No file of the kernel that is read here is longer, bytes. */
const mostBytes = 256 * 1024;

/** A file of sysfs is at most a page long and given whole in one read (filesystems/sysfs.rst), bytes. */
const page = 4096;

/** Why a file can't be read, in a word. */
function whyOf(error: unknown): string {
  const { code } = error as NodeJS.ErrnoException;
  if (code === "ENOENT" || code === "ENOTDIR" || code === "ENODEV" || code === "ENXIO") return "absent";
  if (code === "EACCES" || code === "EPERM") return "not allowed for this user";
  return code ?? "can't be read";
}

/** Names as people count: zone 2 before zone 10. */
const inOrder = new Intl.Collator("en", { numeric: true });

/** Files that say what something is, and not how it is at the moment. */
const fixed = /\/(?:type|name|scope|max_energy_range_uj|\w+_label)$/;

/**
 * A tree that remembers for a while which folders there are and what things are called: at every sample only what
 * changes is read. What is plugged in or taken out is seen after that while.
 */
export function remembering(tree: KernelTree, now: () => number, forMs = 5000): KernelTree {
  let until = -Infinity;
  const lists = new Map<string, string[]>();
  const words = new Map<string, Looked>();
  const held = <Thing>(into: Map<string, Thing>, path: string, look: (path: string) => Thing): Thing => {
    if (now() >= until) {
      lists.clear();
      words.clear();
      until = now() + forMs;
    }
    const known = into.get(path);
    if (known !== undefined) return known;
    const found = look(path);
    into.set(path, found);
    return found;
  };
  return {
    list: (folder) => held(lists, folder, tree.list),
    read: (path) => (fixed.test(path) ? held(words, path, tree.read) : tree.read(path)),
  };
}

/** The kernel's files under a folder: "/" for this device, or a recorded tree. */
export function kernelTree(root: string): KernelTree {
  const buffer = Buffer.alloc(mostBytes);
  return {
    list: (folder) => {
      try {
        return readdirSync(join(root, folder)).sort(inOrder.compare);
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
          if (count === 0 || length === mostBytes || (path.startsWith("/sys/") && count < page)) break;
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
