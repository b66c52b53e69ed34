import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { gameId } from "../../core/kernel/ids";
import type { Viewer } from "../../core/signals/names";
import type { LogRow } from "../ports/engine-store";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";
import { hashToken } from "../secrets";
import type { testDatabase } from "../testing/database";
import { offerPairing, pair } from "./remotes";
import { type Action, mayRemote, rights } from "./rights";
import { createGame } from "./games";
import { nowMs, openedWeb } from "../testing/web";

let web: WebServices;
let owner: Session;
let db: Awaited<ReturnType<typeof testDatabase>>["db"];
let end: () => Promise<void>;

beforeAll(async () => {
  ({ web, db, end, owner } = await openedWeb("phone_and_past"));
});
afterAll(() => end());

describe("a paired phone", () => {
  test("is paired by a code that works once, in any writing, and is told apart from its owner", async () => {
    const offer = await offerPairing(web, owner);
    if (!offer.ok) throw new Error(offer.refusal.code);
    const { code } = offer.value;
    expect(code).toMatch(/^[A-HJKMNP-TV-Z2-9]{8}$/);
    expect(JSON.stringify(await db("pairings").select())).not.toContain(code);
    const typed = `${code.slice(0, 4)}-${code.slice(4)}`.toLowerCase();
    const paired = await pair(web, typed, "Tom’s phone", "7.7.7.1");
    if (!paired.ok) throw new Error(paired.refusal.code);
    const session = (await web.store.accounts.session(hashToken(paired.value.token), nowMs))!;
    expect(session).toMatchObject({ remote: true, login: "Kiln Keeper (Tom’s phone)", channelId: owner.channelId });
    expect(owner.remote).toBe(false);
    expect(await pair(web, typed, "Another", "7.7.7.1")).toMatchObject({ refusal: { code: "pairing/wrong" } });
    const [phone] = await web.store.accounts.remotes(owner.channelId, nowMs);
    expect(phone).toMatchObject({ label: "Tom’s phone", by: "Kiln Keeper" });
    expect(await web.store.accounts.revokeRemote(owner.channelId, phone!.id)).toBe(true);
    expect(await web.store.accounts.session(session.tokenHash, nowMs)).toBeNull();
    expect(await web.store.accounts.revokeRemote(owner.channelId, phone!.id)).toBe(false);
  });
  test("of two phones with one code at once, one is paired", async () => {
    const offer = await offerPairing(web, owner);
    const code = offer.ok ? offer.value.code : "";
    const both = await Promise.all(["a", "b", "c"].map((label) => pair(web, code, label, "7.7.7.2")));
    expect(both.filter((p) => p.ok)).toHaveLength(1);
  });
  test("ten minutes later the code is worth nothing", async () => {
    await web.store.accounts.offerPairing(hashToken("ABCDEFGH"), {
      operatorId: owner.operatorId,
      channelId: owner.channelId,
      expiresMs: nowMs,
    });
    expect(await pair(web, "ABCDEFGH", "late", "7.7.7.3")).toMatchObject({ refusal: { code: "pairing/wrong" } });
  });
  test("guessing is slowed down", async () => {
    const tries = await Promise.all(Array.from({ length: 13 }, () => pair(web, "GUESSED2", "x", "7.7.7.4")));
    expect(tries.at(-1)).toMatchObject({ refusal: { code: "sign-in/too-often" } });
  });
  test("may do what the booth's hands do, and nothing that sets anything up", () => {
    const may = (Object.keys(rights) as Action[]).filter(mayRemote);
    expect(may.sort()).toEqual(["command", "cue.fire", "held.decide", "hush", "queue.act"]);
  });
});

describe("what the booth reads of the past", () => {
  test("the tape holds what can become a mark, oldest first, and the newest when there is too much", async () => {
    const ada: Viewer = { id: "ada", name: "Ada", roles: ["member"] };
    const event = (seq: number, kind: string, viewer: Viewer, body: Record<string, unknown>, source = "event"): LogRow => ({
      seq,
      atMs: 1_000 * seq,
      kind,
      source,
      id: `past-${seq}`,
      viewer,
      body,
    });
    const bo = { ...ada, id: "bo", name: "Bo" };
    await mariadbEngineStore(db).commit(owner.channelId, {
      rows: [
        event(1, "raid", ada, { viewer: ada, viewers: 4 }),
        event(2, "message", ada, { text: "hello" }, "chat"),
        event(3, "follow", ada, { viewer: ada }),
        event(4, "raid", bo, { viewer: bo, viewers: 9 }),
      ],
      states: [],
      kept: [],
    });
    const { shows } = web.store;
    expect((await shows.tape(owner.channelId, 0, 9_000, 10)).map((r) => r.seq)).toEqual([1, 3, 4]);
    expect((await shows.tape(owner.channelId, 0, 9_000, 2)).map((r) => r.seq)).toEqual([3, 4]);
    expect((await shows.tape(owner.channelId, 3_000, 3_000, 9)).map((r) => r.seq)).toEqual([3]);
  });
  test("a viewer's card counts what they did, and a viewer nobody knows has none", async () => {
    const game = await createGame(web, owner, { kind: "boss-battle", name: "Boss" });
    const id = game.ok ? game.value.id : "";
    const hit = (viewer: string, amount: number, atMs: number, after: number) => ({
      gameId: gameId(id),
      seq: 1,
      kind: "hit",
      viewer: { id: viewer, name: viewer === "ada" ? "Ada" : viewer },
      fromMs: atMs,
      toMs: atMs,
      body: { amount, after },
    });
    await mariadbEngineStore(db).commit(owner.channelId, {
      rows: [],
      states: [],
      kept: [hit("ada", 30, 100_000, 70), hit("bo", 50, 200_000, 20), hit("ada", 15, 700_000, 5)],
    });
    const { shows } = web.store;
    expect(await shows.viewer(owner.channelId, "ada")).toMatchObject({
      name: "Ada",
      roles: ["member"],
      messages: 1,
      hits: { count: 2, damage: 45 },
      reigns: 0,
      firstMs: 1_000,
    });
    expect(await shows.viewer(owner.channelId, "nobody")).toBeNull();
    const fight = await shows.fight(owner.channelId, id, 0, 900_000);
    expect(fight).toMatchObject({
      points: [{ health: 70 }, { health: 20 }, { health: 5 }],
      leader: { name: "bo", damage: 50 },
      recent: { damage: 15, minutes: 10 },
    });
    expect((await shows.fight(owner.channelId, id, 500_000, 900_000)).leader).toEqual({ name: "Ada", damage: 15 });
  });
});
