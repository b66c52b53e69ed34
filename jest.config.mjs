// The test files are ES modules of TypeScript; packages that are ES modules only load as they are.
export default {
  testEnvironment: "node",
  roots: ["<rootDir>/src", "<rootDir>/scripts"],
  testMatch: ["**/*.test.ts", "**/*.test.tsx", "**/*.test.mjs"],
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  moduleFileExtensions: ["ts", "tsx", "js", "mjs", "json"],
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      {
        module: { type: "es6" },
        jsc: { target: "es2022", parser: { syntax: "typescript", tsx: true }, transform: { react: { runtime: "automatic" } } },
      },
    ],
  },
  setupFiles: ["<rootDir>/src/testing/page-globals.mjs"],
  testTimeout: 30_000,
};
