import js from "@eslint/js";
import globals from "globals";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** Every area, and what it may import. The arrows of docs/architecture.md; any other arrow is an error. */
const mayImport = {
  core: ["core"],
  data: ["data", "core"],
  server: ["server", "data", "core"],
  app: ["app", "views", "ui", "server", "core"],
  views: ["views", "ui", "core", "workers"],
  ui: ["ui"],
  workers: ["workers", "core"],
  cli: ["cli", "core"],
};
const areas = Object.keys(mayImport);
const outsideForCore = [
  "react",
  "react-dom",
  "next",
  "sequelize",
  "pg",
  "umzug",
  "comlink",
  "node:*",
  "fs",
  "path",
  "crypto",
];

/** One rule set an area: other areas, climbing paths, and (for the core's folders) anything but a folder's door. */
function arrows(area) {
  const group = areas
    .filter((other) => !mayImport[area].includes(other))
    .flatMap((other) => [`@/${other}`, `@/${other}/**`]);
  const patterns = [
    { group, message: `${area} may import only: ${mayImport[area].join(", ")}.` },
    { group: ["../*"], message: "Cross a folder by its door: @/area/folder." },
    { group: ["@/core/*/*"], message: "Import a core folder by its door (index.ts)." },
  ];
  if (area === "core")
    patterns.push({
      group: outsideForCore.flatMap((name) => [name, `${name}/*`]),
      message: "The core is pure: no interface, server or Node imports.",
    });
  if (area === "ui") patterns.push({ group: ["@/core/**"], message: "The kit knows nothing of the trade." });
  return {
    files: [`src/${area}/**/*.{ts,tsx}`],
    ignores: ["**/*.test.ts"],
    rules: { "no-restricted-imports": ["error", { patterns }] },
  };
}

export default tseslint.config(
  { ignores: ["node_modules", ".next", ".lamp", "next-env.d.ts", "test-results", "playwright-report"] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  { languageOptions: { globals: { ...globals.node, ...globals.browser } } },
  {
    files: ["**/*.tsx"],
    plugins: { "react-hooks": reactHooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  ...areas.map(arrows),
  {
    files: ["src/core/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-globals": ["error", "window", "document", "process", "fetch", "performance"],
      "no-restricted-properties": [
        "error",
        { object: "Math", property: "random", message: "Randomness comes from a seed." },
        { object: "Date", property: "now", message: "The core has no clock." },
      ],
    },
  },
  {
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
    },
  },
);
