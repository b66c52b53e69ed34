/** @jest-environment jsdom */
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { oneAtATime } from "./one-at-a-time";
import { useDraft } from "./use-draft";

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** A server that keeps one draft, answers as late as it is told, and may lose what it says. */
class Desk {
  revision = 1;
  settings: Record<string, unknown> = { words: { a: "", b: "", c: "" } };
  by = "kilnkeeper";
  ms = 0;
  loses = 0;
  /** With which revision each save came, and what was said to it. */
  readonly saves: (readonly [revision: number, said: string])[] = [];
  under = 0;
  most = 0;

  readonly fetch = async (_path: string, { method = "GET", body = "{}" }: { method?: string; body?: string }): Promise<unknown> => {
    const said = (value: unknown) => ({ json: async () => value });
    if (method === "POST") {
      await pause(5);
      const { settings, revision, by } = this;
      return said({ ok: true, value: { settings, revision, by, version: 1, published: settings } });
    }
    this.under += 1;
    this.most = Math.max(this.most, this.under);
    const { revision, settings } = JSON.parse(body) as { revision: number; settings: Record<string, unknown> };
    const fits = revision === this.revision;
    if (fits) Object.assign(this, { revision: this.revision + 1, settings });
    this.saves.push([revision, fits ? "kept" : "refused"]);
    const now = this.revision;
    await pause(this.ms);
    this.under -= 1;
    if ((this.loses -= 1) >= 0) throw new Error("the connection broke off");
    return said(
      fits
        ? { ok: true, value: { revision: now } }
        : { ok: false, words: "It was changed elsewhere.", refusal: { code: "draft/changed-elsewhere", facts: {} } },
    );
  };
}

let desk: Desk;
const before = globalThis.fetch;
beforeEach(() => {
  desk = new Desk();
  globalThis.fetch = desk.fetch as unknown as typeof fetch;
});
afterEach(() => {
  cleanup();
  globalThis.fetch = before;
});
const open = () =>
  renderHook(() =>
    useDraft("g1", { kind: "no-such-kind", settings: desk.settings, revision: 1, by: "kilnkeeper", version: 1, published: desk.settings }),
  ).result;
type Hook = ReturnType<typeof open>;
const type = (hook: Hook, field: string, text: string): void => act(() => hook.current.set(`words.${field}`, text));
const saved = (hook: Hook) => waitFor(() => expect([hook.current.state, desk.under]).toEqual(["saved", 0]), { timeout: 6_000 });

describe("a draft that saves itself", () => {
  test("slow saves while one types on, and asks for it to be saved now: one at a time, each with the revision of the last answer", async () => {
    desk.ms = 400;
    const hook = open();
    type(hook, "a", "one");
    await act(() => pause(600));
    type(hook, "b", "two");
    await act(async () => {
      await pause(100);
      // As publishing does, more than once, while a save is under way and another is due.
      const both = [hook.current.save(), hook.current.save()];
      expect(await Promise.all(both)).toEqual([true, true]);
    });
    type(hook, "c", "three");
    await saved(hook);
    expect(desk.settings).toEqual({ words: { a: "one", b: "two", c: "three" } });
    expect(desk.saves).toEqual([
      [1, "kept"],
      [2, "kept"],
      [3, "kept"],
    ]);
    expect([desk.most, hook.current.joined, hook.current.trouble]).toEqual([1, "", ""]);
  }, 15_000);
  test("a save that was written and whose answer was lost is ours: nothing is told of somebody else, and nothing is lost", async () => {
    const hook = open();
    desk.loses = 1;
    type(hook, "a", "one");
    await waitFor(() => expect(hook.current.state).toBe("waiting"), { timeout: 3_000 });
    expect(hook.current.trouble).toContain("Izzam does not answer");
    // The very field is changed on: brought together with what came back it would clash.
    type(hook, "a", "one and more");
    await saved(hook);
    expect([desk.settings, hook.current.joined, hook.current.theirs, hook.current.trouble]).toEqual([
      { words: { a: "one and more", b: "", c: "" } },
      "",
      null,
      "",
    ]);
  }, 15_000);
  test("what somebody else changed meanwhile is brought in; where both changed the same, one is asked", async () => {
    const hook = open();
    Object.assign(desk, { revision: 5, by: "spongebearer", settings: { words: { a: "", b: "theirs", c: "" } } });
    type(hook, "a", "mine");
    await saved(hook);
    expect([desk.settings, hook.current.joined]).toEqual([{ words: { a: "mine", b: "theirs", c: "" } }, "spongebearer"]);
    Object.assign(desk, { revision: 9, settings: { words: { a: "not yours", b: "theirs", c: "" } } });
    type(hook, "a", "mine still");
    await waitFor(() => expect(hook.current.state).toBe("conflict"), { timeout: 3_000 });
    expect(hook.current.theirs?.settings).toEqual({ words: { a: "not yours", b: "theirs", c: "" } });
    // Nothing is sent until one has chosen.
    const { length } = desk.saves;
    type(hook, "c", "more");
    await act(() => pause(700));
    expect(desk.saves).toHaveLength(length);
  }, 15_000);
  test("away for a while: what was typed stays, and is saved by itself once it is back", async () => {
    desk.loses = 2;
    const hook = open();
    type(hook, "b", "kept");
    await waitFor(() => expect(hook.current.state).toBe("waiting"), { timeout: 3_000 });
    await saved(hook);
    expect(desk.settings).toEqual({ words: { a: "", b: "kept", c: "" } });
  }, 15_000);
});

describe("work of which one at most is under way", () => {
  test("many who ask meanwhile get one more run, which begins after; one that fails holds nobody up", async () => {
    let under = 0;
    let most = 0;
    let runs = 0;
    const { run, idle } = oneAtATime(async () => {
      runs += 1;
      most = Math.max(most, (under += 1));
      await pause(10);
      under -= 1;
      if (runs === 1) throw new Error("the first fails");
      return runs;
    });
    const first = run();
    const rest = [run(), run(), run()];
    await expect(first).rejects.toThrow("the first fails");
    expect(await Promise.all(rest)).toEqual([2, 2, 2]);
    await idle();
    expect([runs, most, under]).toEqual([2, 1, 0]);
  });
});
