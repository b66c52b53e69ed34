import { expect, test } from "@jest/globals";
import { browserFailures, unitFailures } from "./failures.mjs";

test("of Jest's report: each test that failed, and a file that could not be run", () => {
  const red = "\u001b[31m";
  const found = unitFailures({
    testResults: [
      { name: `${process.cwd()}/src/fine.test.ts`, status: "passed", message: "", assertionResults: [{ status: "passed" }] },
      {
        name: `${process.cwd()}/src/a.test.ts`,
        status: "failed",
        assertionResults: [
          { status: "passed", fullName: "fine" },
          { status: "failed", fullName: "a spin turns", failureMessages: [`${red}Property failed\n\n  Counterexample: 1`] },
        ],
      },
      { name: `${process.cwd()}/src/b.test.ts`, status: "failed", message: "Cannot find module './c'", assertionResults: [] },
    ],
  });
  expect(found).toEqual(["src/a.test.ts › a spin turns: Property failed | Counterexample: 1", "src/b.test.ts: Cannot find module './c'"]);
});

test("of Playwright's report: tests in suites within suites, those that passed when tried again too, and errors outside of tests", () => {
  const spec = (ok, title, ...results) => ({ ok, title, file: "draws.spec.ts", line: 7, tests: [{ results }] });
  const found = browserFailures({
    suites: [
      {
        specs: [spec(true, "fine", {})],
        suites: [{ specs: [spec(false, "drawn", { error: { message: "Timed out\nwaiting" } })] }],
      },
      {
        specs: [
          {
            ...spec(true, "at the second try", { error: { message: "late" } }, {}),
            tests: [{ status: "flaky", results: [{ error: { message: "late" } }, {}] }],
          },
        ],
      },
    ],
    errors: [{ message: "no such file" }],
  });
  expect(found).toEqual(["draws.spec.ts:7 › drawn: Timed out | waiting", "draws.spec.ts:7 › at the second try: late", "no such file"]);
});
