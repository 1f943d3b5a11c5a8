import { figureIn } from "./kernel";

/** What the kernel says under one path: its text, or why it can't be read. */
export type Looked = { text: string } | { why: string };

/** The kernel's files as somebody may read them: folders by their names, files by their text. */
export interface KernelTree {
  /** Names in a folder, sorted; empty where it isn't there. */
  list: (folder: string) => string[];
  read: (path: string) => Looked;
}

/** The longest name or word that is taken from a file. */
const longestWord = 80;

/** A tree's files as texts, numbers and words. @param onRefused told of what is there and may not be read, with why */
export function looking(tree: KernelTree, onRefused: (path: string, why: string) => void = () => {}) {
  const text = (path: string): string | null => {
    const looked = tree.read(path);
    if ("text" in looked) return looked.text;
    if (looked.why !== "absent") onRefused(path, looked.why);
    return null;
  };
  return {
    text,
    /** The one number of a file; null where it holds none. */
    figure: (path: string): number | null => figureIn(text(path) ?? ""),
    /** A file's text without its blanks; empty where it can't be read. */
    word: (path: string): string => (text(path) ?? "").trim().slice(0, longestWord),
    names: (path: string): string[] => tree.list(path),
    /** Folders of a folder, with their paths. */
    folders: (folder: string, like: RegExp) =>
      tree
        .list(folder)
        .filter((name) => like.test(name))
        .map((name) => ({ name, path: `${folder}/${name}` })),
  };
}

/** Batteries of the device itself (ABI/testing/sysfs-class-power): those of what is connected to it are not. */
export const ownBatteries = ({ folders, word }: ReturnType<typeof looking>) =>
  folders("/sys/class/power_supply", /./).filter(
    ({ path }) => word(`${path}/type`) === "Battery" && word(`${path}/scope`) !== "Device",
  );
