import { describe, expect, test } from "@jest/globals";
import { channelId } from "../core/kernel/ids";
import { OneVoice } from "../core/wire/one-voice";
import { PageVoice, sayEveryMs } from "./voice";

const channel = channelId("kiln");

/** Some pages and the engine, over connections of 5 ms, each with its own clock that a stall holds up. */
function house(ids: readonly string[]) {
  let nowMs = 0;
  const due: { atMs: number; run: () => void }[] = [];
  const after = (ms: number, run: () => void): void => void due.push({ atMs: nowMs + ms, run });
  const pages = new Map(
    ids.map((id, i) => {
      const page = { id, stallsUntilMs: 0, speaks: false, ready: true, at: i, voice: null as PageVoice | null, spokeMs: [] as number[] };
      page.voice = new PageVoice(
        {
          get speaks() {
            return page.speaks;
          },
          setVoice: (on) => void (page.speaks = on),
          state: () => (page.ready ? "ready" : "blocked"),
        },
        () => {
          page.spokeMs.push(nowMs);
          after(5, () => engine.heard(channel, id));
        },
        () => nowMs,
      );
      return [id, page] as const;
    }),
  );
  const engine = new OneVoice(
    () => nowMs,
    (id, on) => {
      const page = pages.get(id)!;
      // What comes while its thread is blocked waits, and is read once it is free.
      const read = (): void => (nowMs < page.stallsUntilMs ? after(page.stallsUntilMs - nowMs, read) : page.voice!.told(on));
      after(5, read);
    },
  );
  const settle = (): void => {
    engine.settle(
      channel,
      [...pages.values()].map((p) => ({ id: p.id, channel, overlay: "main", sinceMs: p.at, sounds: true, ready: p.ready, hidden: false })),
    );
    after(500, settle);
  };
  const look = (id: string): void => {
    const page = pages.get(id)!;
    if (nowMs < page.stallsUntilMs) return after(page.stallsUntilMs - nowMs, () => look(id));
    page.voice!.look();
    after(sayEveryMs, () => look(id));
  };
  settle();
  for (const id of ids) look(id);
  return {
    pages,
    engine,
    speaking: () => [...pages.values()].filter((p) => p.speaks && nowMs >= p.stallsUntilMs).map((p) => p.id),
    run: (ms: number) => {
      const end = nowMs + ms;
      for (;;) {
        due.sort((a, b) => a.atMs - b.atMs);
        if (due[0] === undefined || due[0].atMs > end) break;
        const next = due.shift()!;
        nowMs = next.atMs;
        next.run();
      }
      nowMs = end;
    },
    stall: (id: string, ms: number) => void (pages.get(id)!.stallsUntilMs = nowMs + ms),
  };
}

describe("a page that was held up", () => {
  test.each([2_500, 3_000, 8_000])("alone, for %s ms: it speaks again within two seconds, and says so", (ms) => {
    const h = house(["a"]);
    h.run(5_000);
    expect(h.speaking()).toEqual(["a"]);
    h.stall("a", ms);
    h.run(ms + 2_000);
    expect(h.speaking()).toEqual(["a"]);
    expect(h.pages.get("a")!.spokeMs.filter((at) => at > 5_000 + ms)).not.toEqual([]);
    // And goes on doing so.
    h.run(20_000);
    expect(h.speaking()).toEqual(["a"]);
  });
  test("among others: another speaks meanwhile, and never two for longer than a breath", () => {
    const h = house(["a", "b", "c"]);
    h.run(5_000);
    expect(h.speaking()).toEqual(["a"]);
    h.stall("a", 3_000);
    h.run(2_500);
    expect(h.speaking()).toEqual(["b"]);
    h.run(1_000);
    expect(h.speaking()).toEqual(["b"]);
    expect(h.engine.holder(channel)).toBe("b");
  });
  test("all of them at once: one speaks again", () => {
    const h = house(["a", "b"]);
    h.run(5_000);
    for (const id of ["a", "b"]) h.stall(id, 4_000);
    h.run(6_000);
    expect(h.speaking()).toHaveLength(1);
  });
});

test("a page whose browser blocks sound says nothing of a voice it has not", () => {
  const h = house(["a"]);
  h.run(1_000);
  const page = h.pages.get("a")!;
  page.ready = false;
  h.run(1_000);
  const said = page.spokeMs.length;
  h.run(5_000);
  expect(page.spokeMs).toHaveLength(said);
  expect(h.speaking()).toEqual([]);
});
