import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../../core/kernel/chance";
import type { Result } from "../../core/kernel/refusal";
import type { ChannelRow, LedgerRows, EngineStore } from "../ports/engine-store";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import { testChannel } from "../testing/channel";
import { Committer } from "./committer";
import { freshTurn } from "./turn-kit";

const noDesk: LedgerRows = { accounts: [], sold: [], soldInShow: [], last: [], prices: [], sales: [] };
const pause = (ms = 0): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
type Answer = Awaited<ReturnType<EngineStore["commit"]>>;

/**
 * A memory that is a list of ids, in the order in which they were stepped, before a store that answers as it
 * is told. What each asker was told is kept, so that it can be compared with what the store really holds.
 */
function setUp(answer: (ids: readonly string[]) => "ok" | "away" | "away, but written" | "unfit" | "lost" | "undone") {
  const stored: string[] = [];
  const unfitIds = new Set<string>();
  let memory: string[] = [];
  let settled = 0;
  let seq = 0;
  let lost = 0;
  let read = 0;
  const told = new Map<string, Result<null>[]>();
  const published: string[] = [];
  const batches: string[][] = [];
  const away = new Error("away");
  const base = memoryEngineStore();
  const channel = testChannel();
  const commit = async (_: unknown, { rows }: Parameters<EngineStore["commit"]>[1]): Promise<Answer> => {
    await pause();
    const ids = rows.map((r) => String(r.id));
    batches.push(ids);
    const how = answer(ids);
    if (how === "away") throw away;
    if (how === "lost" || how === "undone") return { is: how };
    if (how === "unfit" || ids.some((id) => unfitIds.has(id))) throw new Error("does not fit");
    const twice = rows.filter((r) => stored.includes(String(r.id)));
    if (twice.length > 0) return { is: "twice", seqs: twice.map((r) => r.seq) };
    stored.push(...ids);
    if (how === "away, but written") throw away;
    return { is: "committed" };
  };
  const commits = new Committer({
    store: {
      ...base,
      commit,
      isAway: (e) => e === away,
      channel: async () => ((read += 1), channel),
      lastSeq: async () => seq,
    } satisfies EngineStore,
    channel: channel.id,
    fence: () => undefined,
    settle: (changes) => (settled = Math.max(settled, changes)),
    takeBack: () => (memory = memory.slice(0, settled)),
    lost: () => (lost += 1),
    recovered: (_row: ChannelRow) => {
      memory = [...stored];
      settled = memory.length;
    },
    ledgerView: async () => noDesk,
  });
  const step = (id: string): void => {
    memory.push(id);
    seq += 1;
    const row = { seq, atMs: seq, kind: "tip", source: "event", id, viewer: null, body: {} };
    const turn = { ...freshTurn(), rows: [row] };
    commits.add({
      turn,
      changes: memory.length,
      publish: () => published.push(id),
      done: (result) => told.set(id, [...(told.get(id) ?? []), result]),
      again: () => step(id),
    });
  };
  const quiet = async (): Promise<void> => {
    for (let i = 0; i < 1_000 && (told.size < seen.size || commits.recovering); i += 1) await pause(1);
    await pause(2);
  };
  const seen = new Set<string>();
  const ask = (id: string): void => {
    seen.add(id);
    step(id);
  };
  const codes = (): Record<string, string> =>
    Object.fromEntries([...told].map(([id, results]) => [id, results.map((r) => (r.ok ? "ok" : r.refusal.code)).join("+")]));
  return { commits, ask, quiet, codes, stored, published, batches, unfitIds, memory: () => memory, lost: () => lost, read: () => read };
}

describe("commits", () => {
  test("what waits goes together, in its order", async () => {
    const { ask, quiet, codes, stored, batches, memory } = setUp(() => "ok");
    for (const id of ["a", "b", "c"]) ask(id);
    // What comes after the first commit has set out goes with the next, however long that took.
    for (let n = 0; batches.length === 0 && n < 2_000; n += 1) await pause(1);
    ask("d");
    await quiet();
    expect(codes()).toEqual({ a: "ok", b: "ok", c: "ok", d: "ok" });
    expect([stored, memory()]).toEqual([
      ["a", "b", "c", "d"],
      ["a", "b", "c", "d"],
    ]);
    expect(batches[0]).toEqual(["a", "b", "c"]);
  });
  test("one that came before is told so, and its neighbours go through", async () => {
    const { ask, quiet, codes, stored, memory } = setUp(() => "ok");
    stored.push("b");
    for (const id of ["a", "b", "c"]) ask(id);
    await quiet();
    expect(codes()).toEqual({ a: "ok", b: "signal/duplicate", c: "ok" });
    expect(stored).toEqual(["b", "a", "c"]);
    // What the second `b` would have done is taken back.
    expect(memory()).toEqual(["a", "c"]);
  });
  test("one that can't be stored is refused alone, and counted", async () => {
    const { commits, ask, quiet, codes, stored, memory, unfitIds } = setUp(() => "ok");
    unfitIds.add("bad");
    for (const id of ["a", "bad", "c", "d"]) ask(id);
    await quiet();
    expect(codes()).toEqual({ a: "ok", bad: "store/unfit", c: "ok", d: "ok" });
    expect([stored, memory(), commits.unfit]).toEqual([["a", "c", "d"], ["a", "c", "d"], 1]);
  });
  test("one that others were in the way of goes through as it is, and the channel is not read anew", async () => {
    let times = 0;
    const { ask, quiet, codes, stored, batches, memory, read } = setUp(() => ((times += 1) <= 3 ? "undone" : "ok"));
    for (const id of ["a", "b"]) ask(id);
    await quiet();
    expect(codes()).toEqual({ a: "ok", b: "ok" });
    expect([stored, memory()]).toEqual([
      ["a", "b"],
      ["a", "b"],
    ]);
    expect(new Set(batches.map((ids) => ids.join(" ")))).toEqual(new Set(["a b"]));
    expect([batches.length, read()]).toEqual([4, 0]);
  });
  test("one that others are in the way of for good is refused, to be sent again", async () => {
    const { ask, quiet, codes, stored } = setUp(() => "undone");
    ask("a");
    await quiet();
    expect([codes(), stored]).toEqual([{ a: "store/away" }, []]);
  });
  test("away: all are refused, and what was written after all is found when it is back", async () => {
    let first = true;
    const { ask, quiet, codes, stored, memory } = setUp(() => {
      if (!first) return "ok";
      first = false;
      return "away, but written";
    });
    for (const id of ["a", "b"]) ask(id);
    await quiet();
    expect(codes()).toEqual({ a: "store/away", b: "store/away" });
    expect(memory()).toEqual(["a", "b"]);
    ask("a");
    ask("c");
    await quiet();
    // Who tries again with the same id hears that it came.
    expect(codes()).toEqual({ a: "store/away+signal/duplicate", b: "store/away", c: "ok" });
    expect(stored).toEqual(["a", "b", "c"]);
  });
  test("who lost the channel writes nothing, and says so once a commit", async () => {
    const { ask, quiet, codes, stored, memory, lost, published } = setUp(() => "lost");
    for (const id of ["a", "b"]) ask(id);
    await quiet();
    expect(codes()).toEqual({ a: "store/away", b: "store/away" });
    expect([stored, memory(), published, lost()]).toEqual([[], [], [], 1]);
  });

  test.each(Array.from({ length: 60 }, (_, seed) => seed))("whatever fails, everyone is told the truth, once (%i)", async (seed) => {
    const chance = chanceFrom(seed + 1);
    let quietNow = false;
    const world = setUp(() => {
      const how = quietNow ? 1 : chance();
      return how < 0.08 ? "away" : how < 0.14 ? "away, but written" : how < 0.2 ? "unfit" : "ok";
    });
    const { ask, quiet, codes, stored, published, memory, unfitIds, commits } = world;
    for (const id of ["old1", "old2"]) stored.push(id);
    for (let round = 0; round < 12; round += 1) {
      const ids = Array.from({ length: 1 + Math.floor(chance() * 6) }, (_, i) => `r${round}-${i}`);
      if (chance() < 0.3) ids.push(chance() < 0.5 && round === 3 ? "old1" : round === 7 ? "old2" : `x${round}`);
      for (const id of ids) {
        if (chance() < 0.1) unfitIds.add(id);
        ask(id);
        if (chance() < 0.3) await pause(0);
      }
      if (chance() < 0.5) await quiet();
    }
    quietNow = true;
    await quiet();
    const said = codes();
    for (const [id, code] of Object.entries(said)) {
      // Told exactly once.
      expect([id, code]).toEqual([id, expect.stringMatching(/^[a-z/-]+$/)]);
      if (code === "ok") expect([id, stored.filter((s) => s === id).length, published.includes(id)]).toEqual([id, 1, true]);
      else expect([id, published.includes(id)]).toEqual([id, false]);
      // Only where the outcome is unknown may it stand there although it was refused.
      if (code === "store/unfit" && !id.startsWith("old")) expect([id, stored.includes(id)]).toEqual([id, false]);
    }
    expect(new Set(stored).size).toBe(stored.length);
    const fresh = (ids: readonly string[]): string[] => ids.filter((id) => !id.startsWith("old")).sort();
    expect(commits.recovering).toBe(false);
    expect(fresh(memory())).toEqual(fresh(stored));
    ask("last");
    await quiet();
    expect(codes()["last"]).toBe("ok");
  });
});
