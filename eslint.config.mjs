import js from "@eslint/js";
import globals from "globals";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** Areas of src; which may import which is held by .dependency-cruiser.mjs. */
const areas = ["core", "contract", "data", "server", "serve", "app", "views", "ui", "jsx", "workers", "cli"];
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

/** One rule set an area: climbing paths, and (for the core's folders) anything but a folder's index. */
function arrows(area) {
  const patterns = [
    { group: ["../*"], message: "Cross a folder by its index: @/area/folder." },
    {
      group: [
        "@/core/*/*",
        "!@/core/*/shape",
        "!@/core/trial/kinds",
        "@/core/trial/kinds/*",
        "!@/core/trial/kinds/shape",
      ],
      message: "Import a core folder by its index.ts, and the schemas of what it makes by its shape.ts.",
    },
    { regex: "^zod$", message: "Make schemas with z of @/core/schema: its refusals are in plain words." },
  ];
  if (area === "core")
    patterns.push({
      group: outsideForCore.flatMap((name) => [name, `${name}/*`]),
      message: "The core is pure: no interface, server or Node imports.",
    });
  return {
    files: [`src/${area}/**/*.{ts,tsx}`],
    ignores: ["**/*.test.ts"],
    rules: { "no-restricted-imports": ["error", { patterns }] },
  };
}

/** Kinds of trials may use what stands in their trial's folder, and not one another. */
function kindArrows() {
  const { rules } = arrows("core");
  const [level, { patterns }] = rules["no-restricted-imports"];
  const own = patterns.filter(({ group }) => !group?.includes("../*"));
  const message = "A kind of trial knows its trial's folder, and no other kind.";
  const only = (files, group) => ({
    files,
    rules: { "no-restricted-imports": [level, { patterns: [...own, { group, message }] }] },
  });
  return [
    only(["src/core/trial/kinds/*.ts"], ["../../*"]),
    only(["src/core/trial/kinds/*/*.ts", "src/core/trial/fixtures/*/*.ts"], ["../[a-z]*", "../../../*"]),
  ];
}

export default tseslint.config(
  { ignores: ["node_modules", ".next", ".lamp", "next-env.d.ts", "test-results", "playwright-report"] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  { languageOptions: { globals: { ...globals.node, ...globals.browser } } },
  {
    files: ["src/**/*.{ts,tsx}"],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      "@typescript-eslint/no-non-null-assertion": "error",
      "@typescript-eslint/no-floating-promises": "error",
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: { attributes: false } }],
      "@typescript-eslint/await-thenable": "error",
      "@typescript-eslint/no-unnecessary-type-assertion": "error",
      "@typescript-eslint/switch-exhaustiveness-check": "error",
      "@typescript-eslint/no-deprecated": "error",
    },
  },
  { files: ["**/*.test.{ts,tsx}"], rules: { "@typescript-eslint/no-non-null-assertion": "off" } },
  {
    files: ["src/server/**/*.ts", "src/data/**/*.ts"],
    rules: { "@typescript-eslint/promise-function-async": "error" },
  },
  {
    files: ["src/**/*.{ts,tsx}"],
    plugins: { "react-hooks": reactHooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  ...areas.map(arrows),
  ...kindArrows(),
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
