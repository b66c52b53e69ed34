/** @jest-environment jsdom */
import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import type { Proof2 } from "../../../core/chance/proof";
import { ranRound } from "../../../testing/rounds";
import { noteSeen } from "../../../ui/seen-hashes";
import { Check } from "./check";

afterEach(cleanup);

const settings = {
  things: [
    { id: "a", label: "Celadon" },
    { id: "b", label: "" },
  ],
  leaves: false,
};
/** A round that was run as a game runs it. */
const roundOf = (ids: readonly string[]): Proof2 =>
  ranRound(
    ids.map((id, i) => ({ seq: i + 1, atMs: 1_000, id, weight: i + 1 })),
    { settings },
  );
const marks = (): (string | null)[] =>
  within(screen.getByRole("list", { name: "Steps" }))
    .getAllByRole("img")
    .map((m) => m.getAttribute("aria-label"));

describe("a round, checked in the browser of who looks", () => {
  test("what holds is said step by step, and what was drawn stands out", () => {
    render(<Check proof={roundOf(["a", "b", "c"])} file="/api/rounds/plate.3.x" />);
    expect(screen.getByText("It holds: your browser came to the same result.")).toBeTruthy();
    expect(new Set(marks())).toEqual(new Set(["holds"]));
    expect(screen.getByText("· drawn").parentElement?.textContent).toMatch(/: \d · drawn$/);
    expect(screen.getByRole("link", { name: "The whole proof as a file" }).getAttribute("href")).toBe("/api/rounds/plate.3.x");
  });
  test("names stand for ids where what was announced names them; a thing without a name is a picture", () => {
    render(<Check proof={roundOf(["a", "b", "c"])} file="" />);
    const lines = screen.getAllByRole("listitem").map((li) => li.textContent);
    for (const line of ["Celadon: 1", "a picture: 2", "c: 3"]) expect(lines.some((l) => l?.startsWith(line))).toBe(true);
  });
  test.each<readonly [string, (p: Proof2) => unknown, string]>([
    ["another secret", (p) => ({ ...p, secret: "5b".repeat(32) }), "The promise."],
    ["other settings", (p) => ({ ...p, settings: { ...settings, leaves: true } }), "What was announced."],
    ["an entry more", (p) => ({ ...p, changes: [...p.changes, { seq: 9, atMs: 1_500, id: "z", weight: 50 }] }), "The entries."],
    ["another winner", (p) => ({ ...p, draws: p.draws.map((d) => ({ ...d, id: d.id === "a" ? "b" : "a" })) }), "The result."],
  ])("tampered with: %s; which step fails is said", (_, tamper, step) => {
    render(<Check proof={tamper(roundOf(["a", "b", "c"]))} file="" />);
    expect(screen.getByText("It does not hold. See which step fails.")).toBeTruthy();
    const line = screen.getByText(step).closest("li") as HTMLElement;
    expect(within(line).getByRole("img").getAttribute("aria-label")).toBe("does not hold");
  });
  test("a hash that was public is looked for; one that this browser saw by itself too", () => {
    const proof = roundOf(["a", "b"]);
    render(<Check proof={proof} file="" />);
    const field = screen.getByLabelText("A hash you saw while it ran");
    fireEvent.change(field, { target: { value: "12ab" } });
    expect(screen.getByText(/Paste at least 12 characters/)).toBeTruthy();
    fireEvent.change(field, { target: { value: `${proof.chain.slice(0, 20)}… ` } });
    expect(screen.getByText("The hash that was seen while the round ran is in it.")).toBeTruthy();
    fireEvent.change(field, { target: { value: "0".repeat(20) } });
    expect(screen.getByText(/A hash that was seen while the round ran is not in it/)).toBeTruthy();
    expect(screen.getByText("It does not hold. See which step fails.")).toBeTruthy();
    cleanup();
    // The same name, and another promise than the one that this browser saw: such a round was never run.
    noteSeen(proof.round, ["0".repeat(64)]);
    render(<Check proof={proof} file="" />);
    expect(screen.getByText("It does not hold. See which step fails.")).toBeTruthy();
    localStorage.clear();
  });
  test("a list of thousands is cut, and says how many more there are", () => {
    render(<Check proof={roundOf(Array.from({ length: 640 }, (_, i) => `v${i}`))} file="" />);
    expect(screen.getByText("and 140 more, in the file")).toBeTruthy();
  });
  test("names made to stop a page are names", () => {
    const names = ["__proto__", "constructor", "<img src=x onerror=alert(1)>"];
    render(<Check proof={roundOf(names)} file="" />);
    for (const name of names) expect(screen.getByText(name).tagName).toBe("BDI");
    expect(document.querySelector("img[src]")).toBeNull();
  });
  test("a round whose secret was lost says so", () => {
    render(<Check proof={null} file="" />);
    expect(screen.getByText(/could not be read when it ended/)).toBeTruthy();
  });
});

test("a large round’s proof is fetched as the file it is, and checked; where it can’t be, that is said", async () => {
  const before = globalThis.fetch;
  const asked: string[] = [];
  globalThis.fetch = ((file: string) => {
    asked.push(file);
    return Promise.resolve({ ok: file !== "/gone", json: () => Promise.resolve(roundOf(["a", "b"])) });
  }) as never;
  try {
    render(<Check proof={undefined} file="/api/rounds/large" />);
    expect(screen.getByText(/This was a large round/)).toBeTruthy();
    expect(await screen.findByText("It holds: your browser came to the same result.")).toBeTruthy();
    cleanup();
    render(<Check proof={undefined} file="/gone" />);
    expect(await screen.findByText(/It could not be fetched/)).toBeTruthy();
    expect(asked).toEqual(["/api/rounds/large", "/gone"]);
  } finally {
    globalThis.fetch = before;
  }
});
