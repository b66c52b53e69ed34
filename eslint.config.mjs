import js from "@eslint/js";
import tseslint from "typescript-eslint";

// The core reads no clock, draws no chance of its own, and compares without regard to a machine's language.
const pure = [
  { selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']", message: "Time enters the core as an argument." },
  { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: "Time enters the core as an argument." },
  { selector: "CallExpression[callee.name='Date']", message: "Time enters the core as an argument." },
  {
    selector: ":matches(NewExpression, CallExpression)[callee.object.name='Intl'][callee.property.name!='Segmenter']",
    message: "Depends on the machine's language and zone: `words/` says how numbers and times are written.",
  },
  {
    selector: "CallExpression[callee.property.name=/^(get(FullYear|Month|Date|Day|Hours|Minutes|Seconds|Milliseconds|TimezoneOffset))$/]",
    message: "The machine's zone: use the UTC one, or take the zone as an argument.",
  },
  {
    // A message with {x, date} or {x, time} would be written in the machine's zone.
    selector: "Literal[value=/\\{\\s*\\w+\\s*,\\s*(date|time)\\b/]",
    message: "Dates in messages are written in the machine's zone: format them before.",
  },
  { selector: "CallExpression[callee.object.name='performance']", message: "Time enters the core as an argument." },
  {
    selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
    message: "Chance enters the core as an argument.",
  },
  {
    selector: "CallExpression[callee.property.name=/^(sort|toSorted)$/][arguments.length=0]",
    message: "Say how to compare: the default order is rarely meant.",
  },
  {
    selector:
      "CallExpression[callee.property.name=/^(localeCompare|toLocaleString|toLocaleDateString|toLocaleTimeString|toLocaleLowerCase|toLocaleUpperCase)$/]",
    message: "Depends on the machine's language.",
  },
];

export default tseslint.config(
  {
    ignores: ["node_modules/", ".next/", ".build/", ".data*/", "next-env.d.ts", "src/server/adapters/mariadb/tables.d.ts", "test-results/"],
  },
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
  // Twelve games with their rules and schemas are half a megabyte of script.
  {
    files: ["src/app/**/*.tsx", "src/app/**/use-*.ts", "src/ui/**"],
    ignores: ["**/page.tsx", "**/layout.tsx", "**/*.test.ts*", "**/add-game.tsx"],
    rules: {
      "@typescript-eslint/no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              group: ["**/core/games/registry", "**/core/modules"],
              allowTypeImports: true,
              message: "A page loads fronts (core/games/fronts), or one game by its kind (core/games/by-kind).",
            },
          ],
        },
      ],
    },
  },
  // A file is one room of one thought; what grows past this has two.
  {
    files: ["src/**/*.ts", "src/**/*.tsx", "scripts/**/*.mjs"],
    ignores: ["**/*.test.ts"],
    rules: { "max-lines": ["error", { max: 300 }] },
  },
  { files: ["**/*.test.ts", "e2e/**/*.ts", "bench/**/*.ts"], rules: { "@typescript-eslint/no-non-null-assertion": "off" } },
);
