// What failed, in a few lines each, out of the reports that Jest and Playwright write.

/** The first lines of a message, without colours, on one line. */
const inShort = (message) =>
  String(message ?? "")
    // eslint-disable-next-line no-control-regex
    .replace(/\u001b\[[0-9;]*m/g, "")
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "")
    .slice(0, 4)
    .join(" | ")
    .slice(0, 400);

/** Of Jest's report: `file › test: message`, also for files that could not be run. */
export function unitFailures({ testResults }) {
  return testResults.flatMap(({ name, assertionResults, message, status }) => {
    const file = name.replace(`${process.cwd()}/`, "");
    const failed = assertionResults.filter((test) => test.status === "failed");
    if (failed.length === 0) return status === "failed" ? [`${file}: ${inShort(message)}`] : [];
    return failed.map((test) => `${file} › ${test.fullName}: ${inShort(test.failureMessages[0])}`);
  });
}

/** Of Playwright's report: `file:line › test: message`, and what went wrong outside of any test. */
export function browserFailures({ suites, errors = [] }) {
  const ofSuite = (suite) => [
    ...(suite.suites ?? []).flatMap(ofSuite),
    ...(suite.specs ?? [])
      .filter((spec) => !spec.ok || spec.tests.some(({ status }) => status === "flaky"))
      .map((spec) => {
        const error = spec.tests.flatMap((test) => test.results).find((result) => result.error !== undefined)?.error;
        return `${spec.file}:${spec.line} › ${spec.title}: ${inShort(error?.message)}`;
      }),
  ];
  return [...suites.flatMap(ofSuite), ...errors.map(({ message }) => inShort(message))];
}
