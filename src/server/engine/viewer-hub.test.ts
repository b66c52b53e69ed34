import { afterEach, describe, expect, jest, test } from "@jest/globals";
import type { WebSocket } from "ws";
import { channelId } from "../../core/kernel/ids";
import { pointsDefaults } from "../../core/points/settings";
import { newReward } from "../../core/rewards/settings";
import { toViewerSchema } from "../../core/wire/to-viewer";
import { inProcessBus } from "../adapters/bus/in-process";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import { gameId } from "../../core/kernel/ids";
import { said, testChannel } from "../testing/channel";
import { Runner } from "./runner";
import { proofWord, ViewerHub } from "./viewer-hub";

jest.useFakeTimers({ doNotFake: ["setImmediate", "nextTick", "queueMicrotask"] });
const channel = channelId("kiln");
const ada = { id: "ada", name: "Ada", roles: [] };

function setUp() {
  const time = { nowMs: 1_000_000 };
  const store = memoryEngineStore();
  const row = testChannel({
    games: [
      {
        id: gameId("r"),
        kind: "rewards",
        name: "Rewards",
        version: 1,
        settings: {
          schema: 3,
          rewards: [
            { ...newReward("roar", "Roar", 50), words: ["!roar"], stock: 3, effects: [{ do: "say", text: "roar" }] },
            { ...newReward("other", "Other", 10), effects: [{ do: "say", text: "other" }] },
          ],
        },
        durable: null,
      },
      { id: gameId("p"), kind: "points", name: "Points", version: 1, settings: { ...pointsDefaults, name: "clay" }, durable: null },
    ],
  });
  store.put(row);
  const bus = inProcessBus();
  const runner = new Runner({ store, clock: { now: () => time.nowMs }, bus }, row, 0);
  const kept: string[] = [];
  let away = false;
  const hub = new ViewerHub(
    new Map([[channel, runner]]),
    () => time.nowMs,
    async (_, hash, viewer) => {
      if (away) throw new Error("away");
      kept.push(`${hash} ${viewer.id}`);
    },
  );
  bus.subscribe((c, p) => hub.publish(c, p));
  const open = (hash = "", viewer: typeof ada | null = null) => {
    const heard: unknown[] = [];
    const ws = { bufferedAmount: 0, send: (text: string) => heard.push(JSON.parse(text)), close: () => undefined } as unknown as WebSocket;
    hub.join(ws, channel, hash, viewer);
    // Whatever is sent keeps to the schema the page reads it by.
    const frames = () => heard.map((f) => toViewerSchema.parse(f));
    return { ws, frames, last: () => frames().at(-1) };
  };
  const idle = async () => {
    for (let i = 0; i < 50; i += 1) await Promise.resolve();
  };
  return { hub, runner, time, kept, open, idle, setAway: (on: boolean) => (away = on) };
}
let stop: (() => void) | null = null;
afterEach(() => stop?.());

describe("the code that ties a page to a chat name", () => {
  test("is short, good once, for ten minutes, in its own channel; the same page gets the same one", async () => {
    const { hub, time, kept } = setUp();
    stop = () => hub.stop();
    const { code, untilMs } = hub.codes.of(channel, "page1")!;
    expect(code).toMatch(proofWord);
    expect(untilMs - time.nowMs).toBe(600_000);
    expect(hub.codes.of(channel, "page1")!.code).toBe(code);
    expect(hub.codes.of(channel, "page2")!.code).not.toBe(code);
    expect(await hub.proof(channelId("elsewhere"), code, ada)).toBe(false);
    expect(await hub.proof(channel, ` ${code.toUpperCase()} `, ada)).toBe(true);
    expect(await hub.proof(channel, code, { ...ada, id: "bo" })).toBe(false);
    expect(kept).toEqual(["page1 ada"]);
    const late = hub.codes.of(channel, "page3")!.code;
    time.nowMs += 600_001;
    expect(await hub.proof(channel, late, ada)).toBe(false);
  });
  test("a page that comes while its name is being proven hears of it, whichever was first; once it left it is nobody’s", async () => {
    const { hub, open } = setUp();
    stop = () => hub.stop();
    const { code } = hub.codes.of(channel, "page1")!;
    expect(await hub.proof(channel, code, ada)).toBe(true);
    // It was looked up before the proof was written: as nobody's.
    expect(open("page1").last()).toMatchObject({ type: "mine", name: "Ada" });
    expect(open("page2").last()).toMatchObject({ type: "shop" });
    hub.left("page1");
    expect(open("page1").last()).toMatchObject({ type: "shop" });
  });
  test("stays good while the database is away, and the open page hears of it at once", async () => {
    const { hub, open, setAway } = setUp();
    stop = () => hub.stop();
    const page = open("page1");
    const { code } = hub.codes.of(channel, "page1")!;
    setAway(true);
    expect(await hub.proof(channel, code, ada)).toBe(false);
    setAway(false);
    expect(await hub.proof(channel, code, ada)).toBe(true);
    expect(page.last()).toMatchObject({ type: "mine", name: "Ada", balance: 0 });
  });
});

describe("what open pages hear", () => {
  test("all tags at first, then only those that changed, at most twice a second; one's own balance for oneself alone", async () => {
    const { hub, runner, open, idle } = setUp();
    stop = () => hub.stop();
    const mine = open("page1", ada);
    const other = open();
    expect(other.frames()).toHaveLength(1);
    expect(other.last()).toMatchObject({
      type: "shop",
      head: { points: "clay", order: ["roar", "other"] },
      tags: [{ id: "roar", left: 3 }, { id: "other" }],
    });
    await runner.requests.command("points", "m", "hand-000001", { do: "adjust", viewer: "ada", name: "Ada", by: 120, why: "test" });
    runner.inbox.message(said("!roar", null, "ada"));
    await idle();
    expect(other.frames()).toHaveLength(1);
    jest.advanceTimersByTime(500);
    expect(other.frames()).toHaveLength(2);
    expect(other.last()).toMatchObject({ type: "shop", tags: [{ id: "roar", left: 2 }] });
    expect(JSON.stringify(other.frames())).not.toContain('"mine"');
    expect(mine.last()).toMatchObject({ type: "mine", balance: 70 });
    jest.advanceTimersByTime(2_000);
    expect(other.frames()).toHaveLength(2);
  });
  test("who is too far behind gets no more until it has caught up, and then all of it", async () => {
    const { hub, runner, open, idle } = setUp();
    stop = () => hub.stop();
    const slow = open();
    const ws = slow.ws as unknown as { bufferedAmount: number };
    ws.bufferedAmount = 1_000_000;
    await runner.requests.command("points", "m", "hand-000002", { do: "adjust", viewer: "ada", name: "Ada", by: 500, why: "test" });
    runner.inbox.message(said("!roar", null, "ada"));
    await idle();
    jest.advanceTimersByTime(1_500);
    expect(slow.frames()).toHaveLength(1);
    ws.bufferedAmount = 0;
    runner.inbox.message(said("!roar", null, "ada"));
    await idle();
    jest.advanceTimersByTime(500);
    expect(slow.last()).toMatchObject({ type: "shop", tags: [{ id: "roar", left: 1 }, { id: "other" }] });
  });
  test("having the page open counts as being there", () => {
    const { hub, runner, open } = setUp();
    stop = () => hub.stop();
    const heard = jest.spyOn(runner.requests, "here");
    open("page1", ada);
    open("page2", ada);
    jest.advanceTimersByTime(60_000);
    // Once on joining each, and once for both a minute later.
    expect(heard).toHaveBeenCalledTimes(3);
  });
});
