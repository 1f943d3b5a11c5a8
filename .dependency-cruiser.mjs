/** Every area, and what it may import. The arrows of docs/architecture.md; any other arrow is an error. */
const mayImport = {
  core: [],
  contract: ["core"],
  data: ["core"],
  server: ["data", "contract", "core"],
  serve: ["server", "data", "contract", "core"],
  app: ["serve", "views", "ui", "server", "contract", "core"],
  views: ["ui", "contract", "core", "workers"],
  ui: ["core/document", "core/explained", "core/glossary"],
  jsx: ["core"],
  workers: ["core"],
  agent: ["core"],
  standIn: ["core"],
  cli: ["contract", "core", "standIn"],
};
const tests = "\\.test\\.tsx?$";

/** @type {import("dependency-cruiser").IConfiguration} */
export default {
  forbidden: [
    {
      name: "no-circle",
      comment: "Types included: what two files need lies in a third.",
      severity: "error",
      from: { path: "^src" },
      to: { circular: true },
    },
    {
      name: "no-circle-of-folders",
      comment: "A folder of the core is entered by its index, and lies above what it uses.",
      severity: "error",
      scope: "folder",
      from: { path: "^src/core" },
      to: { circular: true },
    },
    {
      name: "sentences-on-top",
      comment: "What a folder says is a code with its figures, declared in its codes.ts (decision 37).",
      severity: "error",
      from: { path: "^src/core/", pathNot: "^src/core/(words|recipe|incoming)/" },
      to: { path: "^src/core/words/" },
    },
    {
      name: "no-testing-in-the-product",
      comment: "Made-up devices and scratch databases are for tests and benchmarks.",
      severity: "error",
      from: { path: "^src", pathNot: ["^src/testing", tests] },
      to: { path: "^src/testing" },
    },
    ...Object.entries(mayImport).map(([area, others]) => ({
      name: `${area}-imports`,
      comment: `${area} may import only: ${others.join(", ") || "itself"}.`,
      severity: "error",
      from: { path: `^src/${area}/`, pathNot: tests },
      to: { path: "^src/", pathNot: [area, ...others].map((each) => `^src/${each}/`) },
    })),
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    doNotFollow: { path: "node_modules" },
    includeOnly: "^src",
    exclude: { path: tests },
    enhancedResolveOptions: { exportsFields: ["exports"], conditionNames: ["import", "types", "default"] },
  },
};
