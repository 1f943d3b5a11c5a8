/** What the kernel says under one path: its text, or why it can't be read. */
export type Looked = { text: string } | { why: string };

/** The kernel's files as somebody may read them: folders by their names, files by their text. */
export interface KernelTree {
  /** Names in a folder, sorted; empty where it isn't there. */
  list: (folder: string) => string[];
  read: (path: string) => Looked;
}
