import { inProcessDecoder } from "../testing/decoder";
import { type ChannelId, channelId } from "../../core/kernel/ids";
import { ok } from "../../core/kernel/refusal";
import { afterEach, describe, expect, test } from "@jest/globals";
import { pino } from "pino";
import { inProcessBus } from "../adapters/bus/in-process";
import { type MemoryStore, memoryEngineStore } from "../adapters/memory/engine-store";
import type { ChatEvents, ChatStanding } from "../ports/chat";
import { pause, said, testChannel } from "../testing/channel";
import type { ChatMaker } from "./chat-lines";
import { Engine } from "./engine";
import { rememberedSessions } from "./sessions";

const ends: (() => Promise<void>)[] = [];
afterEach(async () => {
  for (const end of ends.splice(0).reverse()) await end();
});
const standing: ChatStanding = { state: "connected", sinceMs: 0, lastError: "", lastTrouble: null, retryAtMs: null, dropped: 0 };
const chatRow = (host: string) => ({ enabled: true, settings: { host }, secret: null });

/** A chat that only remembers what was done with it. */
function chats() {
  const made: { host: string; events: ChatEvents; started: boolean; stopped: boolean }[] = [];
  const make: ChatMaker = (row, events) => {
    const one = { host: String((row.settings as { host: string }).host), events, started: false, stopped: false };
    made.push(one);
    const chat = {
      start: () => void (one.started = true),
      stop: async () => void (one.stopped = true),
      say: () => true,
      standing: () => standing,
    };
    return { chat, emotePictures: "", profiles: null };
  };
  return { made, make };
}
function start(store: MemoryStore, owner = "one", make: ChatMaker = chats().make) {
  const time = { nowMs: 1_000_000 };
  const engine = new Engine({
    store,
    clock: { now: () => time.nowMs },
    bus: inProcessBus(),
    decoder: inProcessDecoder,
    makeChat: make,
    log: pino({ level: "silent" }),
    owner,
  });
  ends.push(() => engine.stop());
  return { engine, time };
}

describe("the engine", () => {
  test("takes up every channel and its chat, and hands on what chat says", async () => {
    const store = memoryEngineStore();
    store.put(testChannel({ chat: chatRow("a") }));
    const { made, make } = chats();
    const { engine } = start(store, "one", make);
    await engine.start();
    expect([engine.runners.size, made.length, made[0]!.started]).toEqual([1, 1, true]);
    made[0]!.events.onLine(said("wobblePot", "m1"));
    const [runner] = [...engine.runners.values()];
    expect(runner!.standing().perMinute).toBe(1);
  });
  test("a changed connection is made anew, an unchanged one is left alone", async () => {
    const store = memoryEngineStore();
    const channel = testChannel({ chat: chatRow("a") });
    store.put(channel);
    const { made, make } = chats();
    const { engine } = start(store, "one", make);
    await engine.start();
    store.put({ ...channel, revision: 2, name: "Renamed" });
    await engine.reload(channel.id);
    expect(made).toHaveLength(1);
    store.put({ ...channel, revision: 3, chat: chatRow("b") });
    await engine.reload(channel.id);
    expect(made.map((m) => [m.host, m.stopped])).toEqual([
      ["a", true],
      ["b", false],
    ]);
    store.put({ ...channel, revision: 4, chat: { ...chatRow("b"), enabled: false } });
    await engine.reload(channel.id);
    expect(made[1]!.stopped).toBe(true);
  });
  test("one engine owns a channel at a time; the same installation takes its own back at once", async () => {
    const store = memoryEngineStore();
    store.put(testChannel());
    const first = start(store, "one").engine;
    await first.start();
    const other = start(store, "two").engine;
    await other.start();
    expect([first.runners.size, other.runners.size]).toEqual([1, 0]);
    // As after a kill: nothing was released.
    const again = start(store, "one").engine;
    await again.start();
    expect(again.runners.size).toBe(1);
  });
  test("without the database at the start it waits, and takes the channels up when it is there", async () => {
    const store = memoryEngineStore();
    store.put(testChannel());
    store.away = true;
    const { engine } = start(store);
    await engine.start();
    expect(engine.runners.size).toBe(0);
    store.away = false;
    for (let i = 0; i < 300 && engine.runners.size === 0; i += 1) await pause(20);
    expect(engine.runners.size).toBe(1);
  });
  test("what is asked of it before it has taken its channels up is told “not yet”; “no such channel” is said once that is known", async () => {
    const store = memoryEngineStore();
    const { id } = testChannel();
    const none = channelId("nowhere");
    store.put(testChannel());
    const { engine } = start(store);
    const asked = async (channel: ChannelId): Promise<readonly string[]> => {
      const shop = await engine.viewerDoor.shop(channel, "");
      const bought = await engine.viewerDoor.ask(channel, "x".repeat(43), async () => ok({ count: 1 }));
      const rehearsed = await engine.rehearsals.begin(channel, {
        source: { from: "nobody" },
        pace: 1,
        chat: false,
        overlays: false,
        by: "ada",
      });
      const spoken = engine.speak(channel, "hello", "ada");
      return [shop, bought, rehearsed, spoken].map((r) => (r.ok ? "ok" : r.refusal.code));
    };
    const trigger = async (): Promise<string> => {
      const fired = await engine.trigger("t".repeat(22));
      return fired.ok ? "ok" : fired.refusal.code;
    };
    const notYet = ["engine/starting", "engine/starting", "engine/starting", "engine/starting"];
    expect(await asked(id)).toEqual(notYet);
    expect(await asked(none)).toEqual(notYet);
    expect(await trigger()).toBe("store/away");
    store.away = true;
    await engine.start();
    expect(await asked(id)).toEqual(notYet);
    expect(await asked(none)).toEqual(notYet);
    store.away = false;
    for (let i = 0; i < 300 && engine.runners.size === 0; i += 1) await pause(20);
    expect((await asked(id))[0]).toBe("ok");
    expect(await asked(none)).toEqual(["channel/unknown", "channel/unknown", "channel/unknown", "channel/unknown"]);
    expect(await trigger()).toBe("trigger/unknown");
  });
});

describe("sessions that were seen", () => {
  const session = { channelId: testChannel().id, operator: "ada", operatorId: "o1", role: "owner" as const };
  test("hold for an hour while the database is away, and not one it never knew", async () => {
    const store = memoryEngineStore();
    const time = { nowMs: 0 };
    let away = false;
    const sessions = rememberedSessions(
      { ...store, session: async (hash) => (away ? Promise.reject(new Error("away")) : hash === "good" ? session : null) },
      () => time.nowMs,
    );
    expect(await sessions.of("good")).toEqual(session);
    expect(await sessions.of("bad")).toBeNull();
    away = true;
    expect(await sessions.of("good")).toEqual(session);
    await expect(sessions.of("bad")).rejects.toThrow("away");
    time.nowMs = 3_600_001;
    await expect(sessions.of("good")).rejects.toThrow("away");
  });
  test("a database that says nothing is not waited for by who was known; what it says later holds", async () => {
    let ended = false;
    let answer: (() => void) | null = null;
    const sessions = rememberedSessions({
      ...memoryEngineStore(),
      session: () => (answer === null && !ended ? Promise.resolve(session) : new Promise((resolve) => (answer = () => resolve(null)))),
    });
    expect(await sessions.of("good")).toEqual(session);
    ended = true;
    const before = performance.now();
    expect(await sessions.of("good")).toEqual(session);
    expect(performance.now() - before).toBeLessThan(2_000);
    // It was signed out meanwhile: once that is heard, it is known no longer.
    (answer as (() => void) | null)?.();
    await pause(5);
    const again = sessions.of("good");
    await pause(5);
    (answer as (() => void) | null)?.();
    expect(await again).toBeNull();
  });
  test("a session that ended is forgotten", async () => {
    const store = memoryEngineStore();
    const answers: (typeof session | null | Error)[] = [session, null, new Error("away")];
    const sessions = rememberedSessions({
      ...store,
      session: async () => {
        const next = answers.shift();
        if (next instanceof Error) throw next;
        return next ?? null;
      },
    });
    expect(await sessions.of("x")).toEqual(session);
    expect(await sessions.of("x")).toBeNull();
    await expect(sessions.of("x")).rejects.toThrow("away");
  });
});
