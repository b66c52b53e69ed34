import { describe, expect, jest, test } from "@jest/globals";
import { toOverlaySchema } from "../../core/wire/messages";
import { pause } from "../testing/channel";
import { TransientLog } from "./transient-log";
import { Feed } from "./feed";
import { RecentIds } from "./recent-ids";

const spawn = (count: number) => ({ do: "spawn", keys: ["own:w"], count, seed: 1, overMs: 0, motion: null });
const open = () => {
  const sent: { text: string; transient: boolean }[] = [];
  const time = { nowMs: 10_000 };
  const feed = new Feed(
    (text, transient) => sent.push({ text, transient }),
    () => time.nowMs,
  );
  const bodies = () => sent.map((s) => toOverlaySchema.parse(JSON.parse(s.text)));
  return { feed, sent, bodies, time };
};

describe("what one overlay is fed", () => {
  test("many effects within a moment become one message; the first after a pause goes at once", async () => {
    const { feed, bodies, time } = open();
    feed.effects("wall", [spawn(1)]);
    // At once is with the next timer; on a busy machine that of the pause may be called before it.
    for (let i = 0; i < 10 && bodies().length === 0; i += 1) await pause(2);
    expect(bodies()).toHaveLength(1);
    for (let i = 0; i < 40; i += 1) feed.effects("wall", [spawn(1)]);
    await pause(90);
    time.nowMs += 90;
    expect(bodies()).toHaveLength(2);
    expect(bodies()[1]).toMatchObject({ type: "effects", items: Array(40).fill({ game: "wall" }) });
    feed.stop();
  });
  test("a change of state comes after the effects before it, and numbers have no gaps", () => {
    const { feed, bodies } = open();
    feed.effects("wall", [spawn(1)]);
    feed.state({ type: "hush", on: true });
    expect(bodies().map((b) => [b.type, "seq" in b ? b.seq : 0])).toEqual([
      ["effects", 1],
      ["hush", 2],
    ]);
  });
  test("a page gets just what it missed, without old effects", () => {
    const { feed, time } = open();
    feed.effects("wall", [spawn(1)]);
    feed.state({ type: "hush", on: true });
    time.nowMs += 5_000;
    feed.state({ type: "hush", on: false });
    expect(feed.since(3)).toEqual([]);
    expect(feed.since(0)!.map((t) => (JSON.parse(t) as { type: string }).type)).toEqual(["hush", "hush"]);
    expect(feed.since(99)).toBeNull();
    for (let i = 0; i < 500; i += 1) feed.state({ type: "hush", on: false });
    expect(feed.since(1)).toBeNull();
  });
  test("in a storm no more is sent at once than a page can show, the newest first", () => {
    const { feed, bodies } = open();
    for (let i = 0; i < 10; i += 1) feed.effects("wall", [{ ...spawn(900), seed: i }]);
    feed.state({ type: "hush", on: false });
    const first = bodies()[0]!;
    expect(first.type === "effects" && first.items.map((i) => (i.effect as { seed: number }).seed)).toEqual([8, 9]);
  });
});

describe("the log of what is transient", () => {
  const row = (seq: number) => ({ seq, atMs: 0, kind: "message", source: "chat", id: `m${seq}`, viewer: null, body: {} });
  test("writes many rows at once, in order", async () => {
    const batches: number[][] = [];
    const log = new TransientLog(async (rows) => (batches.push(rows.map((r) => r.seq)), 0));
    for (let i = 0; i < 50; i += 1) log.add(row(i));
    await pause(180);
    expect(batches).toEqual([Array.from({ length: 50 }, (_, i) => i)]);
  });
  test("keeps what could not be written, tells it once, and writes it later", async () => {
    let away = true;
    const kept: number[] = [];
    const onError = jest.fn();
    const log = new TransientLog(async (rows) => {
      if (away) throw new Error("away");
      kept.push(...rows.map((r) => r.seq));
      return 0;
    }, onError);
    for (let i = 0; i < 5; i += 1) log.add(row(i));
    await pause(500);
    away = false;
    for (let i = 0; i < 200 && log.size > 0; i += 1) await pause(20);
    expect(kept).toEqual([0, 1, 2, 3, 4]);
    expect(onError).toHaveBeenCalledTimes(1);
  });
  test("holds the newest hundred thousand while nothing can be written, and counts what it lost", async () => {
    const log = new TransientLog(async () => Promise.reject(new Error("away")));
    for (let i = 0; i < 101_500; i += 1) log.add(row(i));
    expect(log.size).toBeLessThanOrEqual(100_000);
    expect(log.lost).toBe(2_000);
    await log.stop();
  });
});

describe("recent ids", () => {
  test("a second one is known, and memory is bounded", () => {
    const ids = new RecentIds(10);
    expect([ids.add("a"), ids.add("a")]).toEqual([true, false]);
    for (let i = 0; i < 9; i += 1) ids.add(`x${i}`);
    expect(ids.has("a")).toBe(true);
    for (let i = 0; i < 10; i += 1) ids.add(`y${i}`);
    expect(ids.has("a")).toBe(false);
  });
});
