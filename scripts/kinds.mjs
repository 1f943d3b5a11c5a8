// Writes the list of trial kinds from the folders that hold them.   node scripts/kinds.mjs [--check | --print
// FOLDER]
import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";

/** Folders of kinds in a folder, by name. */
const kindFolders = (folder) =>
  readdirSync(folder, { withFileTypes: true })
    .filter((entry) => entry.isDirectory())
    .map(({ name }) => name)
    .sort();

/** The text of `kinds/index.ts` for some folders, each of which exports a kind under its own name. */
function kindsIndex(folders) {
  return `// Made by scripts/kinds.mjs from the folders beside this file: a new kind of trial is a new folder.
import type { KindOfTrial as Kind } from "../kind";
${folders.map((name) => `import { ${name} } from "./${name}";`).join("\n")}

/** Every kind of trial, a folder each. */
export const kinds = [${folders.join(", ")}] as const;

export type TrialKind = (typeof kinds)[number]["kind"];
/** What a kind reads from its runs. */
export type Reading = NonNullable<ReturnType<(typeof kinds)[number]["read"]>>;
/** Their names, in the order they are offered. */
export const trialKinds: string[] = [...kinds].sort((a, b) => a.place - b.place).map(({ kind }) => kind);

/** @throws RangeError for a kind that isn't in the list */
export function kindOf(name: string): Kind {
  const found = (kinds as readonly Kind[]).find(({ kind }) => kind === name);
  if (!found) throw new RangeError(\`there is no kind of trial called \${name}\`);
  return found;
}
`;
}

const [asked, where] = process.argv.slice(2);
const folder = where ?? join(import.meta.dirname, "..", "src", "core", "trial", "kinds");
const file = join(folder, "index.ts");
const wanted = kindsIndex(kindFolders(folder));
if (asked === "--print") process.stdout.write(wanted);
else if (asked !== "--check") writeFileSync(file, wanted);
else if (readFileSync(file, "utf8") !== wanted) {
  console.error("src/core/trial/kinds/index.ts doesn't name every folder: run node scripts/kinds.mjs");
  process.exitCode = 1;
}
