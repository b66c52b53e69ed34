import { describe, expect, test } from "@jest/globals";
import type { WebSocket } from "ws";
import { channelId } from "../../core/kernel/ids";
import { type ToOverlay, wireVersion } from "../../core/wire/messages";
import { inProcessBus } from "../adapters/bus/in-process";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import { hashToken } from "../secrets";
import { said, testChannel, tokenOfMain } from "../testing/channel";
import { OverlayHub } from "./overlay-hub";
import { Runner } from "./runner";

/** Stands in for a socket: what was sent, and how it was closed. */
const socket = () => {
  const sent: ToOverlay[] = [];
  let closed = 0;
  const it = {
    OPEN: 1,
    readyState: 1,
    bufferedAmount: 0,
    send: (text: string) => sent.push(JSON.parse(text) as ToOverlay),
    close: (code: number) => void (closed = code),
    terminate: () => void (closed = -1),
  };
  return { ws: it as unknown as WebSocket, it, sent, closed: () => closed };
};
const hello = (token = tokenOfMain, resume: { epoch: string; seq: number } | null = null) => ({
  v: wireVersion as 1,
  type: "hello" as const,
  as: "overlay" as const,
  token,
  width: 1920,
  height: 1080,
  resume,
});

function setUp(settled = true) {
  const bus = inProcessBus();
  const store = memoryEngineStore();
  const runner = new Runner({ store, clock: { now: () => 5_000 }, bus }, testChannel(), 0);
  const time = { nowMs: 5_000 };
  const hub = new OverlayHub(
    new Map([[runner.id, runner]]),
    () => undefined,
    () => time.nowMs,
    () => "",
    () => "",
    () => settled,
  );
  bus.subscribe((id, p) => hub.publish(id, p));
  return { hub, runner, time };
}

describe("open overlay pages", () => {
  test("a good link gets a snapshot, then what happens", () => {
    const { hub, runner } = setUp();
    const page = socket();
    hub.join(page.ws, hello());
    expect(page.sent[0]).toMatchObject({ type: "snapshot", hushed: false, stage: { games: [{ id: "wall" }] } });
    runner.inbox.message(said("wobblePot"));
    void runner.hush(true);
    expect(page.sent.at(-1)).toMatchObject({ type: "hush", on: true });
    expect(hub.openPages(runner.id)).toMatchObject([{ overlay: "main", width: 1920, height: 1080 }]);
    hub.leave(page.ws);
    expect(hub.openPages(runner.id)).toEqual([]);
  });
  test("a page makes the sound when it says so, not when it was told to; a word that is too old counts no longer", () => {
    const { hub, runner, time } = setUp();
    let told = 0;
    hub.onPages = () => (told += 1);
    const page = socket();
    hub.join(page.ws, hello());
    const report = { v: wireVersion as 1, type: "report" as const, width: 1920, height: 1080, hidden: false, framesPerSecond: 60 };
    const of = { ...report, late: 0, live: 0, drawing: "", lowered: 0, dimmed: false, sound: "ready" as const, speaks: false };
    hub.report(page.ws, of);
    const stands = (): unknown[] => hub.openPages(runner.id).map((p) => [p.asked, p.voice]);
    expect([page.sent.at(-1), stands()]).toEqual([{ v: wireVersion, type: "voice", on: true }, [[true, false]]]);
    const before = told;
    hub.voice(page.ws);
    expect([stands(), told]).toEqual([[[true, true]], before + 1]);
    time.nowMs += 2_000;
    expect(stands()).toEqual([[true, false]]);
    hub.voice(page.ws);
    hub.report(page.ws, of);
    expect(stands()).toEqual([[true, false]]);
    hub.voice(page.ws);
    hub.report(page.ws, { ...of, speaks: true });
    expect(stands()).toEqual([[true, true]]);
    hub.stop();
  });
  test("a tone is played by the page that was named, of the operator’s own channel, and answered from it", async () => {
    const { hub, runner } = setUp();
    const page = socket();
    hub.join(page.ws, hello());
    const [open] = hub.openPages(runner.id);
    const came = hub.sound.tone(runner.id, open!.id);
    const asked = page.sent.at(-1)!;
    if (asked.type === "tone") hub.toned(page.ws, asked.id, "heard");
    expect(await came).toEqual({ ok: true, value: "heard" });
    expect(await hub.sound.tone(runner.id, "constructor")).toMatchObject({ ok: false, refusal: { code: "page/closed" } });
    expect(await hub.sound.tone(channelId("another"), open!.id)).toMatchObject({ ok: false, refusal: { code: "page/closed" } });
    hub.leave(page.ws);
    expect(await hub.sound.tone(runner.id, open!.id)).toMatchObject({ ok: false, refusal: { code: "page/closed" } });
    hub.stop();
  });
  test("a wrong link gets nothing but an end", () => {
    const page = socket();
    setUp().hub.join(page.ws, hello("not-the-right-token-at-all"));
    expect([page.sent.map((m) => m.type), page.closed()]).toEqual([["gone"], 4001]);
  });
  test("before all channels are taken up, an unknown link is told to come again, not that it is dead", () => {
    const page = socket();
    setUp(false).hub.join(page.ws, hello("not-the-right-token-at-all"));
    expect([page.sent, page.closed()]).toEqual([[], 4005]);
  });
  test("replacing a link clears the pages that had the old one, at once", () => {
    const { hub, runner } = setUp();
    const page = socket();
    hub.join(page.ws, hello());
    const overlay = testChannel().overlays[0]!;
    runner.reload(testChannel({ overlays: [{ ...overlay, tokenHash: hashToken("a-new-token-of-22-chars") }] }));
    expect([page.sent.at(-1)!.type, page.closed()]).toEqual(["gone", 4001]);
    const count = page.sent.length;
    void runner.hush(true);
    expect(page.sent).toHaveLength(count);
  });
  test("a page that was away for a moment gets what it missed; after a restart, a fresh snapshot", () => {
    const { hub, runner } = setUp();
    const page = socket();
    hub.join(page.ws, hello());
    const first = page.sent[0]!;
    const epoch = first.type === "snapshot" ? first.epoch : "";
    void runner.hush(true);
    const again = socket();
    hub.join(again.ws, hello(tokenOfMain, { epoch, seq: first.type === "snapshot" ? first.seq : 0 }));
    expect(again.sent.map((m) => m.type)).toEqual(["hush"]);
    const stranger = socket();
    hub.join(stranger.ws, hello(tokenOfMain, { epoch: "another-life", seq: 3 }));
    expect(stranger.sent[0]).toMatchObject({ type: "snapshot", hushed: true });
  });
  test("an operator who looks at an overlay is fed like a page, and is none: not counted, never the voice", () => {
    const { hub, runner } = setUp();
    const looks = socket();
    hub.peek(looks.ws, runner.id, "main", null, "session");
    expect(looks.sent[0]).toMatchObject({ type: "snapshot", stage: { games: [{ id: "wall" }] } });
    hub.voice(looks.ws);
    void runner.hush(true);
    expect(looks.sent.map((m) => m.type)).toEqual(["snapshot", "hush"]);
    expect(hub.openPages(runner.id)).toEqual([]);
    hub.leave(looks.ws);
    void runner.hush(false);
    expect(looks.sent).toHaveLength(2);
    const lost = socket();
    hub.peek(lost.ws, runner.id, "no-such-overlay", null, "session");
    expect([lost.sent.at(-1)!.type, lost.closed()]).toEqual(["gone", 4001]);
  });
  test("an operator who signed out sees nothing more, at once; while the database is away nobody is put out", async () => {
    const { hub, runner } = setUp();
    const [stays, goes] = [socket(), socket()];
    hub.peek(stays.ws, runner.id, "main", null, "good");
    hub.peek(goes.ws, runner.id, "main", null, "ended");
    hub.stillValid = () => Promise.reject(new Error("away"));
    await hub.recheck();
    expect([stays.closed(), goes.closed()]).toEqual([0, 0]);
    hub.stillValid = (hash) => Promise.resolve(hash === "good");
    await hub.recheck();
    expect([stays.closed(), goes.closed()]).toEqual([0, 4003]);
    void runner.hush(true);
    expect([stays.sent.at(-1)!.type, goes.sent.length]).toEqual(["hush", 1]);
  });
  test("a slow reader misses what is transient, never state; one that does not read at all is let go", () => {
    const { hub, runner } = setUp();
    const page = socket();
    hub.join(page.ws, hello());
    page.it.bufferedAmount = 600 * 1024;
    const before = page.sent.length;
    runner.inbox.message(said("wobblePot"));
    void runner.hush(true);
    expect(page.sent.slice(before).map((m) => m.type)).toEqual(["hush"]);
    page.it.bufferedAmount = 9 * 1024 * 1024;
    void runner.hush(false);
    expect(page.closed()).toBe(-1);
  });
});
