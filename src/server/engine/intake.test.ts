import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { CloudEvent, HTTP } from "cloudevents";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { Webhook } from "standardwebhooks";
import { bossBattle } from "../../core/games/boss-battle/definition";
import { chanceFrom } from "../../core/kernel/chance";
import { gameId } from "../../core/kernel/ids";
import { stranger } from "../../core/kernel/strangers";
import { inProcessBus } from "../adapters/bus/in-process";
import { memoryEngineStore, type MemoryStore } from "../adapters/memory/engine-store";
import { testChannel } from "../testing/channel";
import { Intake, mostEvents } from "./intake";
import { Runner } from "./runner";
import { secretFrom, sign, verify, windowS } from "./webhook";

const secret = secretFrom(Buffer.alloc(32, 7));
const old = secretFrom(Buffer.alloc(32, 8));
const ada = { id: "ada", name: "Ada" };

let server: Server;
let url: string;
let store: MemoryStore;
let runner: Runner;
let intake: Intake;
let nowMs = 0;

beforeEach(async () => {
  // On the second, so that how far off a time is comes out whole.
  nowMs = Math.floor(Date.now() / 1000) * 1000;
  store = memoryEngineStore();
  const row = testChannel({
    events: { secret: "new", oldSecret: "old", oldUntilMs: nowMs + 60_000 },
    games: [{ id: gameId("boss"), kind: "boss-battle", name: "Old Spall", version: 1, settings: bossBattle.defaults, durable: null }],
  });
  store.put(row);
  const clock = { now: () => nowMs };
  runner = new Runner({ store, clock, bus: inProcessBus() }, row, 0);
  const runners = new Map([[row.id, runner]]);
  intake = new Intake({
    runners,
    clock,
    secrets: (events, now) => [secret, ...(events.oldSecret !== null && now < events.oldUntilMs ? [old] : [])],
  });
  server = createServer((req, res) => void intake.take(runner.id, req, res));
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
});
afterEach(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await runner.stop();
});

type Answer = {
  status: number;
  ok: boolean;
  taken?: number;
  duplicates?: number;
  code?: string;
  why?: string;
  refused?: { why: string }[];
};
let n = 0;
async function send(
  body: string,
  type: string,
  { id = `msg_${(n += 1)}`, at = nowMs, key = secret, headers = {} as Record<string, string> } = {},
): Promise<Answer> {
  const timestamp = Math.floor(at / 1000);
  const response = await fetch(url, {
    method: "POST",
    headers: {
      "content-type": type,
      "webhook-id": id,
      "webhook-timestamp": String(timestamp),
      "webhook-signature": sign(key, id, timestamp, body),
      ...headers,
    },
    body,
  });
  return { status: response.status, ...((await response.json()) as Omit<Answer, "status">) };
}
const event = (type: string, data: unknown, id = `e${(n += 1)}`) => ({
  specversion: "1.0",
  id,
  source: "urn:t",
  type: `app.izzam.${type}.v1`,
  data,
});
const one = (type: string, data: unknown, id?: string, more = {}) =>
  send(JSON.stringify(event(type, data, id)), "application/cloudevents+json", more);
const many = (events: unknown[], more = {}) => send(JSON.stringify(events), "application/cloudevents-batch+json", more);
const health = (): unknown => runner.standing().games[0]!.view["health"];

describe("signatures", () => {
  test("are those of Standard Webhooks: what its own library signs is taken, and what we sign it accepts", async () => {
    const body = JSON.stringify(event("follow", { viewer: ada }));
    const theirs = new Webhook(secret).sign("msg_x", new Date(nowMs), body);
    expect(
      verify([secret], { id: "msg_x", timestamp: String(Math.floor(nowMs / 1000)), signature: theirs }, Buffer.from(body), nowMs).ok,
    ).toBe(true);
    const ours = sign(secret, "msg_y", Math.floor(nowMs / 1000), body);
    const headers = { "webhook-id": "msg_y", "webhook-timestamp": String(Math.floor(nowMs / 1000)), "webhook-signature": ours };
    expect(new Webhook(secret).verify(body, headers)).toEqual(JSON.parse(body));
  });
  test("of the old secret are taken while it changes, and not after", async () => {
    expect((await one("follow", { viewer: ada }, undefined, { key: old })).status).toBe(200);
    nowMs += 61_000;
    expect(await one("follow", { viewer: ada }, undefined, { key: old })).toMatchObject({ status: 401, code: "event/bad-signature" });
    expect((await one("follow", { viewer: ada })).status).toBe(200);
  });
  test.each<[string, Record<string, string>, string]>([
    ["none at all", { "webhook-signature": "", "webhook-id": "" }, "event/unsigned"],
    ["of another body", { "webhook-signature": sign(secret, "z", 1, "{}") }, "event/bad-signature"],
    ["of an unknown version", { "webhook-signature": "v9,AAAA" }, "event/bad-signature"],
    ["with a time that is no time", { "webhook-timestamp": "soon" }, "event/unsigned"],
  ])("%s: refused, and nothing happens", async (_, headers, code) => {
    expect(await one("follow", { viewer: ada }, undefined, { headers })).toMatchObject({ status: 401, code });
    expect(health()).toBe(1_000);
    expect(intake.refused(runner.id)[0]).toMatchObject({ code, count: 1 });
  });
  test("too old or from the future: refused with how far off it is", async () => {
    expect(await one("follow", { viewer: ada }, undefined, { at: nowMs - (windowS + 9) * 1000 })).toMatchObject({
      code: "event/stale",
      why: expect.stringContaining("309 s old"),
    });
    expect(await one("follow", { viewer: ada }, undefined, { at: nowMs + (windowS + 9) * 1000 })).toMatchObject({
      code: "event/stale",
      why: expect.stringContaining("309 s ahead"),
    });
    expect((await one("follow", { viewer: ada }, undefined, { at: nowMs - (windowS - 9) * 1000 })).status).toBe(200);
  });
});

describe("modes", () => {
  test("structured, batch and binary do the same, as CloudEvents' own library sends them", async () => {
    const made = new CloudEvent({ id: "c1", source: "urn:t", type: "app.izzam.follow.v1", data: { viewer: ada } });
    const structured = HTTP.structured(made);
    expect((await send(String(structured.body), "application/cloudevents+json")).taken).toBe(1);
    const binary = HTTP.binary(made.cloneWith({ id: "c2" }));
    const headers = Object.fromEntries(Object.entries(binary.headers).filter(([k]) => k.startsWith("ce-"))) as Record<string, string>;
    expect((await send(String(binary.body), "application/json", { headers })).taken).toBe(1);
    expect((await many([event("follow", { viewer: ada }), event("follow", { viewer: ada })])).taken).toBe(2);
    expect(health()).toBe(960);
  });
  test("a batch takes what is good and names what is not, each with its reason", async () => {
    const answer = await many([
      event("follow", { viewer: ada }, "good"),
      event("tip", { viewer: ada, amountMinor: 0, currency: "EUR" }, "zero"),
      event("dance", {}, "what"),
      7,
    ]);
    expect(answer).toMatchObject({ status: 200, ok: false, taken: 1, refused: [{ id: "zero" }, { id: "what" }, { id: "" }] });
    expect(answer.refused?.map((r) => r.why).join(" ")).toMatch(/amountMinor.*no type Izzam knows/);
    expect(health()).toBe(990);
  });
  test.each<[string, string, string, number, string]>([
    ["what is not JSON", "{", "application/cloudevents+json", 400, "event/not-json"],
    ["what is no CloudEvent", "{}", "text/plain", 415, "event/not-cloudevents"],
    ["a batch that is none", "{}", "application/cloudevents-batch+json", 415, "event/not-cloudevents"],
    ["an envelope without an id", '{"specversion":"1.0","source":"s","type":"t"}', "application/cloudevents+json", 422, ""],
    [
      "an older envelope",
      '{"specversion":"0.3","id":"1","source":"s","type":"app.izzam.live.v1"}',
      "application/cloudevents+json",
      422,
      "",
    ],
    ["what is nested a hundred deep", `${"[".repeat(100)}${"]".repeat(100)}`, "application/cloudevents-batch+json", 400, "event/too-deep"],
    ["a million brackets", "[".repeat(1_000_000), "application/cloudevents-batch+json", 400, "event/too-deep"],
    ["three megabytes", JSON.stringify({ x: "y".repeat(3_000_000) }), "application/cloudevents+json", 413, "event/too-large"],
  ])("%s is refused in words, and the server goes on", async (_, body, type, status, code) => {
    const answer = await send(body, type);
    expect(answer.status).toBe(status);
    if (code !== "") expect(answer.code).toBe(code);
    expect((await one("follow", { viewer: ada })).taken).toBe(1);
  });
  test(`10,000 events in one batch are refused as a whole; ${mostEvents} are taken`, async () => {
    const lots = (count: number) =>
      Array.from({ length: count }, (_, i) => ({ specversion: "1.0", id: `l${i}`, source: "s", type: "app.izzam.live.v1" }));
    expect(await many(lots(10_000))).toMatchObject({ status: 413, code: "event/too-many" });
    expect(store.log(runner.id)).toHaveLength(0);
    expect(await many(lots(mostEvents))).toMatchObject({ status: 200, taken: mostEvents });
  });
});

describe("strangers", () => {
  test("whatever an event says, it is taken or refused for good, and never asked to come again", async () => {
    const chance = chanceFrom(21);
    let taken = 0;
    for (let i = 0; i < 300; i += 1) {
      const viewer = { id: stranger(chance), name: stranger(chance) };
      const kinds = [
        ["follow", { viewer }],
        ["tip", { viewer, amountMinor: 500, currency: "EUR", text: stranger(chance) }],
        ["purchase", { viewer, item: stranger(chance), title: stranger(chance), text: stranger(chance) }],
        ["gift", { viewer: null, count: 1, recipients: [stranger(chance)] }],
      ] as const;
      const [kind, data] = kinds[i % kinds.length]!;
      const answer = await one(kind, data, `${i}-${stranger(chance)}`.slice(0, 90));
      expect([200, 400, 422]).toContain(answer.status);
      taken += answer.taken ?? 0;
    }
    expect(taken).toBeGreaterThan(60);
  });
  test("half an emoji in one event drags nothing with it, and the next sender's goes through", async () => {
    const half = String.raw`{"specversion":"1.0","id":"h1","source":"urn:test","type":"app.izzam.tip.v1","data":{"viewer":{"id":"bo","name":"cut \ud83d"},"amountMinor":500,"currency":"EUR","text":"\udd25"}}`;
    const good = JSON.stringify(event("follow", { viewer: ada }, "h2"));
    expect(await send(`[${half},${good}]`, "application/cloudevents-batch+json")).toMatchObject({ status: 200, taken: 2 });
    expect(await one("follow", { viewer: ada }, "h3")).toMatchObject({ status: 200, taken: 1 });
  });
  test("one that can't be stored is refused with its reason and listed; the others of its batch are kept", async () => {
    store.unfit.add("poison");
    const tip = (text: string, id: string) => event("tip", { viewer: ada, amountMinor: 500, currency: "EUR", text }, id);
    const answer = await many([tip("fine", "u1"), tip("poison", "u2"), tip("well", "u3")]);
    expect(answer).toMatchObject({
      status: 200,
      ok: false,
      taken: 2,
      refused: [{ why: "it could not be stored; the log of the engine says why" }],
    });
    expect(intake.refused(runner.id)).toMatchObject([{ code: "store/unfit", id: "u2" }]);
    expect(store.log(runner.id).filter((r) => r.kind === "tip")).toHaveLength(2);
    expect(await many([tip("poison", "u4")])).toMatchObject({ status: 422, taken: 0 });
  });
  test("one person, in whatever capitals an event writes their id", async () => {
    await one("follow", { viewer: { id: "Oatcake_Ada", name: "Oatcake_Ada" } });
    expect(store.log(runner.id)[0]!.viewer!.id).toBe("oatcake_ada");
  });
});

describe("while it is not ready, and by whose clock", () => {
  test("before every channel is taken up a sender is asked to come again; afterwards an unknown channel is unknown", async () => {
    let absent = true;
    const other = new Intake({ runners: new Map(), clock: { now: () => nowMs }, secrets: () => [secret], absent: () => absent });
    const early = createServer((req, res) => void other.take(runner.id, req, res));
    await new Promise<void>((resolve) => early.listen(0, "127.0.0.1", resolve));
    const post = () => fetch(`http://127.0.0.1:${(early.address() as AddressInfo).port}/`, { method: "POST", body: "{}" });
    const first = await post();
    expect([first.status, first.headers.get("retry-after")]).toEqual([503, "2"]);
    absent = false;
    expect((await post()).status).toBe(404);
    await new Promise((resolve) => early.close(resolve));
  });
  test("signatures go by the wall clock: one that leapt ahead and was set right refuses nobody", async () => {
    const ahead = new Intake({
      runners: new Map([[runner.id, runner]]),
      // Ours runs on from where the leap brought it.
      clock: { now: () => nowMs + 86_400_000, wall: () => nowMs },
      secrets: () => [secret],
    });
    server.removeAllListeners("request");
    server.on("request", (req, res) => void ahead.take(runner.id, req, res));
    expect(await one("follow", { viewer: ada }, "leap")).toMatchObject({ status: 200, taken: 1 });
  });
});

describe("duplicates", () => {
  test("change nothing: the same event again, in one batch, by another delivery, after a restart", async () => {
    await one("follow", { viewer: ada }, "dup");
    expect(await one("follow", { viewer: ada }, "dup")).toMatchObject({ status: 200, taken: 0, duplicates: 1 });
    expect(await many([event("follow", { viewer: ada }, "d2"), event("follow", { viewer: ada }, "d2")])).toMatchObject({
      taken: 1,
      duplicates: 1,
    });
    expect(health()).toBe(980);
    const row = (await store.channel(runner.id))!;
    const again = new Runner({ store, clock: { now: () => nowMs }, bus: inProcessBus() }, row, await store.lastSeq(row.id));
    const id = store.log(row.id)[0]!.id ?? "";
    expect(await again.inbox.platform([{ id, signal: { kind: "follow", viewer: { ...ada, roles: [] } } }])).toEqual({
      ok: true,
      value: ["duplicate"],
    });
    expect(again.standing().games[0]!.view["health"]).toBe(980);
    await again.stop();
  });
  test("the same id of another source is another event", async () => {
    const a = { ...event("follow", { viewer: ada }, "same"), source: "urn:a" };
    const b = { ...a, source: "urn:b" };
    expect((await many([a, b])).taken).toBe(2);
  });
  test("a delivery that is played again does nothing, and is listed", async () => {
    await one("follow", { viewer: ada }, "r1", { id: "msg_once" });
    expect(await one("follow", { viewer: ada }, "r1", { id: "msg_once" })).toMatchObject({ status: 200, taken: 0 });
    expect(intake.refused(runner.id)[0]).toMatchObject({ code: "event/replayed" });
    expect(health()).toBe(990);
  });
});

describe("while the database is away", () => {
  test("nothing is taken, the sender is told to try again, and then it counts once", async () => {
    store.away = true;
    expect(await one("follow", { viewer: ada }, "later", { id: "msg_l" })).toMatchObject({ status: 503, code: "store/away" });
    store.away = false;
    for (let i = 0; i < 100 && runner.standing().recovering; i += 1) await new Promise((r) => setTimeout(r, 20));
    expect(await one("follow", { viewer: ada }, "later", { id: "msg_l" })).toMatchObject({ status: 200, taken: 1 });
    expect(health()).toBe(990);
  });
  test("what was refused the same way again and again is one line with a count", async () => {
    for (let i = 0; i < 5; i += 1) await send("{", "application/cloudevents+json");
    expect(intake.refused(runner.id)).toMatchObject([{ code: "event/not-json", count: 5 }]);
  });
});
