import { expect, test } from "@jest/globals";
import { strangeScripts } from "./install-scripts.mjs";

const lock = (packages) => ({ packages });
test("a package that runs something when it is installed is found, wherever it lies; those on the list are not", () => {
  const found = strangeScripts(
    lock({
      "": { hasInstallScript: true, name: "us" },
      "node_modules/fine": {},
      "node_modules/known": { hasInstallScript: true },
      "node_modules/a/node_modules/@evil/one": { hasInstallScript: true },
    }),
    new Map([
      ["known", "why"],
      ["left", "why"],
    ]),
  );
  expect(found).toEqual({ unknown: ["@evil/one"], gone: ["left"] });
});
