/** @type {import("jest").Config} */
export default {
  testEnvironment: "node",
  roots: ["<rootDir>/src"],
  // Commands are started as processes, on machines that may be busy.
  testTimeout: 120_000,
  testMatch: ["**/*.test.ts", "**/*.test.tsx"],
  moduleNameMapper: { "^@/(.*)$": "<rootDir>/src/$1" },
  transform: {
    "^.+\\.(m?js|tsx?)$": [
      "@swc/jest",
      {
        jsc: {
          target: "es2022",
          parser: { syntax: "typescript", tsx: true },
          transform: { react: { runtime: "automatic", importSource: "@/jsx" } },
        },
        module: { type: "commonjs" },
      },
    ],
  },
  // Shown as four lines at the end; what only the browser runs isn't counted here.
  coverageProvider: "v8",
  coverageReporters: ["text-summary"],
  collectCoverageFrom: ["src/{core,data,server,contract}/**/*.ts", "!src/**/*.test.ts", "!src/core/records/**"],
  // Looked up in the sandbox, these cost more than what is done with them.
  sandboxInjectedGlobals: ["Math", "Number"],
  // Packages that ship only ES modules.
  transformIgnorePatterns: [
    "/node_modules/(?!(d3-[a-z-]+|internmap|pure-rand|react-hotkeys-hook|toml-eslint-parser|smol-toml|fast-xml-parser|fast-xml-builder|ini|strnum|path-expression-matcher|xml-naming|@nodable)/)",
  ],
};
