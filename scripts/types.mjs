// Checks types: reading beyond an array is an error everywhere but in numeric loops and tests, where every
// index is the loop's own.
import ts from "typescript";
import { join, relative } from "node:path";
import { root } from "./lib/run.mjs";

/** Folders of numeric loops over typed arrays. */
const numeric = [
  "stats",
  "metrics",
  "compare",
  "sweep",
  "trace",
  "resolution",
  "simulator",
  "advise",
  "timetable",
  "capture",
].map((folder) => `src/core/${folder}/`);
const isLoose = (file) =>
  /\.(test|spec)\.tsx?$/.test(file) ||
  file.startsWith("e2e/") ||
  file.startsWith("scripts/") ||
  numeric.some((folder) => file.startsWith(folder));

const { config } = ts.readConfigFile(join(root, "tsconfig.json"), ts.sys.readFile);
const { fileNames, options } = ts.parseJsonConfigFileContent(config, ts.sys, root);

// Read once for both questions.
const host = ts.createCompilerHost(options);
const read = host.getSourceFile.bind(host);
const files = new Map();
host.getSourceFile = (name, ...more) => {
  if (!files.has(name)) files.set(name, read(name, ...more));
  return files.get(name);
};

/** What is wrong in the files that a question is about, with indexed access checked or not. */
function faults(noUncheckedIndexedAccess, isAsked) {
  const program = ts.createProgram(
    fileNames,
    { ...options, incremental: false, noEmit: true, noUncheckedIndexedAccess },
    host,
  );
  const own = program
    .getSourceFiles()
    .filter(({ fileName }) => !fileName.includes("/node_modules/") && isAsked(relative(root, fileName)));
  return [
    ...program.getGlobalDiagnostics(),
    ...own.flatMap((file) => [
      ...program.getSyntacticDiagnostics(file),
      ...program.getSemanticDiagnostics(file),
    ]),
  ];
}

const found = [...faults(true, (file) => !isLoose(file)), ...faults(false, isLoose)];
if (found.length > 0) console.error(ts.formatDiagnostics(found, host));
process.exitCode = found.length > 0 ? 1 : 0;
