import { del, get, set } from "idb-keyval";

/** Files held for one page in a browser's own store, at most, bytes: beyond it only their names are. */
const mostHeld = 256 * 1024 * 1024;

interface Held {
  files: File[];
  /** Names of those that were too large to be held. */
  named: string[];
}

/** Holds the files that were chosen on a page until they are kept or put away; they outlive a reload where the browser allows it. */
export async function holdFiles(place: string, files: File[]): Promise<void> {
  try {
    if (files.length === 0) return await del(`files ${place}`);
    const fits = files.reduce((sum, { size }) => sum + size, 0) <= mostHeld;
    const held: Held = fits ? { files, named: [] } : { files: [], named: files.map(({ name }) => name) };
    await set(`files ${place}`, held);
  } catch {
    // A browser that holds no files asks for them again.
  }
}

/** Files that were chosen on a page before it was left; and names of those that weren't held. */
export async function heldFiles(place: string): Promise<Held> {
  try {
    return (await get<Held>(`files ${place}`)) ?? { files: [], named: [] };
  } catch {
    return { files: [], named: [] };
  }
}
