import js from "@eslint/js";
import tseslint from "typescript-eslint";

// The core reads no clock, draws no chance of its own, and compares without regard to a machine's language.
const pure = [
  { selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']", message: "Time enters the core as an argument." },
  { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: "Time enters the core as an argument." },
  { selector: "CallExpression[callee.object.name='performance']", message: "Time enters the core as an argument." },
  {
    selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
    message: "Chance enters the core as an argument.",
  },
  {
    selector: "CallExpression[callee.property.name='sort'][arguments.length=0]",
    message: "Say how to compare: the default order is rarely meant.",
  },
  {
    selector: "CallExpression[callee.property.name=/^(localeCompare|toLocaleString|toLocaleLowerCase|toLocaleUpperCase)$/]",
    message: "Depends on the machine's language.",
  },
];

export default tseslint.config(
  { ignores: ["node_modules/", ".next/", ".build/", ".data*/", "next-env.d.ts", "test-results/"] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "@typescript-eslint/no-invalid-void-type": "off",
      "no-irregular-whitespace": ["error", { skipStrings: true, skipTemplates: true, skipRegExps: true, skipJSXText: true }],
    },
  },
  {
    files: ["**/*.mjs"],
    languageOptions: {
      globals: {
        process: "readonly",
        console: "readonly",
        setTimeout: "readonly",
        clearTimeout: "readonly",
        URL: "readonly",
        Buffer: "readonly",
        fetch: "readonly",
        AbortSignal: "readonly",
        setInterval: "readonly",
        clearInterval: "readonly",
        navigator: "readonly",
      },
    },
  },
  { files: ["**/*.cjs"], languageOptions: { globals: { module: "readonly" } } },
  { files: ["src/core/**/*.ts"], ignores: ["**/*.test.ts"], rules: { "no-restricted-syntax": ["error", ...pure] } },
  { files: ["**/*.test.ts", "e2e/**/*.ts", "bench/**/*.ts"], rules: { "@typescript-eslint/no-non-null-assertion": "off" } },
);
