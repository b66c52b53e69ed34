import type { FullConfig, FullResult, Reporter, TestCase, TestResult, TestStep } from "@playwright/test/reporter";

/** Of "Navigate to …" and its like, what kind of thing it is: a step's title without what it was done to. */
const kindOf = (step: TestStep): string => {
  if (step.category === "hook" || step.category === "fixture" || step.category === "test.step") return step.category;
  if (step.category === "expect") return `expect ${/to[A-Z]\w*|poll|toPass/.exec(step.title)?.[0] ?? ""}`.trim();
  return step.title
    .replace(/["'“(].*$/s, "")
    .split(/\s+/)
    .slice(0, 2)
    .join(" ")
    .toLowerCase();
};

/** Where the time of the browser tests goes: steps by kind, each without what lies within it, and the slowest files. */
export default class TimesReporter implements Reporter {
  private readonly kinds = new Map<string, { ms: number; times: number }>();
  private readonly files = new Map<string, { ms: number; tests: number }>();
  private readonly tests: { title: string; ms: number }[] = [];
  private fromMs = 0;
  private workers = 1;

  onBegin(config: FullConfig): void {
    this.fromMs = Date.now();
    this.workers = config.workers;
  }
  onStepEnd(_test: TestCase, _result: TestResult, step: TestStep): void {
    const within = step.steps.reduce((sum, s) => sum + s.duration, 0);
    const kind = kindOf(step);
    const known = this.kinds.get(kind) ?? { ms: 0, times: 0 };
    this.kinds.set(kind, { ms: known.ms + Math.max(0, step.duration - within), times: known.times + 1 });
  }
  onTestEnd(test: TestCase, result: TestResult): void {
    const file = test.location.file.split("/").at(-1) ?? "";
    const known = this.files.get(file) ?? { ms: 0, tests: 0 };
    this.files.set(file, { ms: known.ms + result.duration, tests: known.tests + 1 });
    this.tests.push({ title: `${file}: ${test.title}`, ms: result.duration });
  }
  onEnd(_result: FullResult): void {
    const seconds = (ms: number): string => `${(ms / 1000).toFixed(1).padStart(7)} s`;
    const top = <T extends { ms: number }>(list: readonly T[], most: number): T[] => [...list].sort((a, b) => b.ms - a.ms).slice(0, most);
    const kinds = [...this.kinds].map(([kind, of]) => ({ kind, ...of }));
    const files = [...this.files].map(([file, of]) => ({ file, ...of }));
    console.log(`\nWhere the time went (${((Date.now() - this.fromMs) / 1000).toFixed(0)} s on ${this.workers} workers):`);
    for (const { kind, ms, times } of top(kinds, 16)) console.log(`${seconds(ms)}  ${kind} (${times} times)`);
    console.log("The slowest files:");
    for (const { file, ms, tests } of top(files, 12)) console.log(`${seconds(ms)}  ${file} (${tests} tests)`);
    console.log("The slowest tests:");
    for (const { title, ms } of top(this.tests, 12)) console.log(`${seconds(ms)}  ${title}`);
  }
}
