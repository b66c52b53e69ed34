import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { channelId, gameId } from "../../core/kernel/ids";
import type { ChannelRow, EngineStore, LogRow } from "../ports/engine-store";
import { testDatabase } from "../testing/database";
import { testChannel } from "../testing/channel";
import { type Database, openDatabase } from "./mariadb/database";
import { mariadbEngineStore } from "./mariadb/engine-store";
import { memoryEngineStore } from "./memory/engine-store";

/** One suite for every implementation of the port. */
type Made = Readonly<{
  store: EngineStore;
  put: (channel: ChannelRow) => Promise<void>;
  kept: (id: ChannelRow["id"]) => Promise<string[]>;
  /** All leases run out by the store's clock. */
  expire: () => Promise<void>;
  end: () => Promise<void>;
}>;
const row = (seq: number, id = `id-${seq}`, source = "chat"): LogRow => ({
  seq,
  atMs: 1_700_000_000_000 + seq,
  kind: "message",
  source,
  id,
  viewer: { id: "ada", name: "Ada", roles: ["member"] },
  body: { text: "wobble 🔥" },
});

async function putInto(db: Database, c: ChannelRow): Promise<void> {
  await db("channels").insert({ id: c.id, name: c.name, salt: c.salt, revision: c.revision, hushed: c.hushed, created_ms: 1 });
  for (const g of c.games) {
    const id = `${g.id}-${c.id}`.slice(0, 26);
    await db("games").insert({
      id,
      channel_id: c.id,
      kind: g.kind,
      name: g.name,
      draft: JSON.stringify(g.settings),
      version: g.version,
      created_ms: 1,
    });
    await db("game_versions").insert({ game_id: id, version: g.version, settings: JSON.stringify(g.settings), by: "x", at_ms: 1 });
  }
}

const makers: [string, () => Promise<Made>][] = [
  [
    "memory",
    async () => {
      const store = memoryEngineStore();
      return {
        store,
        put: async (c) => store.put({ ...c, games: c.games.map((g) => ({ ...g, id: gameId(`${g.id}-${c.id}`.slice(0, 26)) })) }),
        kept: async (id) => store.keptRows(id).map((k) => `${k.kind} ${k.viewer?.id ?? "-"}`),
        expire: async () => void (store.time.nowMs += 60_000),
        end: async () => undefined,
      };
    },
  ],
  [
    "MariaDB",
    async () => {
      const { db, at, end } = await testDatabase("engine");
      const kept = async (id: ChannelRow["id"]): Promise<string[]> =>
        (
          (await db("records as r")
            .join("channels as c", "c.num", "r.channel")
            .leftJoin("viewers as v", "v.id", "r.viewer")
            .where("c.id", id)
            .orderBy("r.id")
            .select("r.kind", "v.ext")) as { kind: string; ext: string | null }[]
        ).map((r) => `${r.kind} ${r.ext ?? "-"}`);
      const expire = async (): Promise<void> => void (await db("leases").update({ until_ms: 1 }));
      // Both owners of these tests live as long as the test does.
      const living = [0, 1].map(() => openDatabase(at, 1));
      const of = new Map<string, Database>();
      const alive = async (lock: string): Promise<void> => {
        const mine = of.get(lock) ?? living[of.size % 2]!;
        of.set(lock, mine);
        await mine.raw("select get_lock(?, 0)", [lock]);
      };
      const stop = async (): Promise<void> => {
        for (const one of living) await one.destroy();
        await end();
      };
      return { store: mariadbEngineStore(db, { alive }), put: (c) => putInto(db, c), kept, expire, end: stop };
    },
  ],
];

describe.each(makers)("the engine's store, %s", (_, make) => {
  let made: Made;
  let n = 0;
  const fresh = async (): Promise<{ store: EngineStore; id: ReturnType<typeof channelId>; game: ReturnType<typeof gameId> }> => {
    n += 1;
    const id = channelId(`c${n}`);
    await made.put(testChannel({ id, overlays: [], words: [] }));
    return { store: made.store, id, game: gameId(`wall-${id}`) };
  };
  beforeAll(async () => void (made = await make()));
  afterAll(() => made.end());

  test("what is committed is there: rows, states, the last number", async () => {
    const { store, id, game } = await fresh();
    expect(await store.lastSeq(id)).toBe(0);
    expect(
      await store.commit(id, { rows: [row(1), row(2)], states: [{ gameId: game, seq: 2, durable: { on: false } }], kept: [] }),
    ).toEqual({ is: "committed" });
    expect(await store.lastSeq(id)).toBe(2);
    expect((await store.channel(id))!.games[0]!.durable).toEqual({ on: false });
    await store.commit(id, { rows: [row(3)], states: [{ gameId: game, seq: 3, durable: { on: true } }], kept: [] });
    expect((await store.channel(id))!.games[0]!.durable).toEqual({ on: true });
  });
  test("what is logged between two times comes oldest first, page by page, chat and the rest together", async () => {
    const { store, put } = made;
    const id = channelId(`kiln-${(n += 1)}`);
    await put(testChannel({ id }));
    const follow = (seq: number): LogRow => ({ ...row(seq, `f-${seq}`, "event"), kind: "follow", body: { at: seq } });
    await store.commit(id, { rows: [row(1), follow(2), row(3), follow(4), row(5)], states: [], kept: [] });
    const [fromMs, toMs] = [1_700_000_000_002, 1_700_000_000_004];
    const first = await store.logged(id, { fromMs, toMs, after: null, limit: 2 });
    expect(first.map((r) => [r.seq, r.kind, r.source, r.viewer?.id, r.body])).toEqual([
      [2, "follow", "event", "ada", { at: 2 }],
      [3, "message", "chat", "ada", { text: "wobble 🔥" }],
    ]);
    expect(first[1]?.viewer?.roles).toEqual(["member"]);
    const at = first.at(-1)!;
    const rest = await store.logged(id, { fromMs, toMs, after: { atMs: at.atMs, seq: at.seq }, limit: 2 });
    expect(rest.map((r) => r.seq)).toEqual([4]);
    expect(await store.logged(id, { fromMs: 1, toMs: 2, after: null, limit: 9 })).toEqual([]);
  });
  test("ids that were seen are told, of their own source and channel only", async () => {
    const { store, id } = await fresh();
    const other = await fresh();
    await store.commit(id, { rows: [row(1, "a", "event"), row(2, "b", "chat")], states: [], kept: [] });
    const came = await store.came(id, "event", ["a", "b", "c", "A"]);
    expect([...came].map(([one, { seq }]) => [one, seq])).toEqual([["a", 1]]);
    expect((await store.came(other.id, "event", ["a"])).size).toBe(0);
    expect((await store.came(id, "event", [])).size).toBe(0);
  });
  test("what is kept for good is committed with its signal, or not at all", async () => {
    const { store, id, game } = await fresh();
    const hit = { kind: "hit", viewer: { id: "ada", name: "Ada" }, fromMs: 1, toMs: 2, body: { amount: 5 }, gameId: game, seq: 1 };
    await store.commit(id, { rows: [row(1)], states: [], kept: [hit, { ...hit, viewer: null }] });
    expect(await made.kept(id)).toEqual(["hit ada", "hit -"]);
    expect(await store.commit(id, { rows: [row(2, "id-1")], states: [], kept: [hit] })).toEqual({ is: "twice", seqs: [2] });
    expect(await made.kept(id)).toHaveLength(2);
  });
  test("thousands at once are one commit", async () => {
    const { store, id } = await fresh();
    expect(await store.commit(id, { rows: Array.from({ length: 2_500 }, (_, i) => row(i + 1)), states: [], kept: [] })).toEqual({
      is: "committed",
    });
    expect(await store.lastSeq(id)).toBe(2_500);
  });
  test("a signal that is there already refuses the whole commit, and nothing of it stays", async () => {
    const { store, id, game } = await fresh();
    await store.commit(id, { rows: [row(1)], states: [], kept: [] });
    expect(
      await store.commit(id, { rows: [row(2), row(3, "id-1")], states: [{ gameId: game, seq: 3, durable: { on: false } }], kept: [] }),
    ).toEqual({ is: "twice", seqs: [3] });
    expect(await store.lastSeq(id)).toBe(1);
    expect((await store.channel(id))!.games[0]!.durable).toBeNull();
  });
  test("one id may come from two sources, and in two channels", async () => {
    const [a, b] = [await fresh(), await fresh()];
    expect(await a.store.commit(a.id, { rows: [row(1, "same", "chat"), row(2, "same", "operator")], states: [], kept: [] })).toEqual({
      is: "committed",
    });
    expect(await b.store.commit(b.id, { rows: [row(1, "same", "chat")], states: [], kept: [] })).toEqual({ is: "committed" });
  });
  test("what is transient is appended in bulk; what is there already changes nothing", async () => {
    const { store, id } = await fresh();
    await store.append(
      id,
      Array.from({ length: 2_500 }, (_, i) => row(i + 1)),
    );
    await store.append(id, [row(2_500), row(2_501)]);
    expect(await store.lastSeq(id)).toBe(2_501);
  });
  test("one owner holds a channel until its lease runs out, and each change of hands is an epoch of its own", async () => {
    const { store, id } = await fresh();
    const first = await store.lease(id, "one", 60_000);
    expect(first?.owner).toBe("one");
    expect(await store.lease(id, "two", 60_000)).toBeNull();
    expect(await store.lease(id, "one", 60_000)).toEqual({ owner: "one", epoch: first!.epoch });
    await made.expire();
    const second = await store.lease(id, "two", 60_000);
    expect(second!.epoch).toBe(first!.epoch + 1);
    expect(await store.lease(id, "one", 60_000)).toBeNull();
    await store.release(id, "one");
    expect(await store.lease(id, "one", 60_000)).toBeNull();
    await store.release(id, "two");
    const third = (await store.lease(id, "one", 60_000))!;
    expect(third.epoch).toBe(second!.epoch + 1);
    // Since when nobody had it is known: never for the first, when it was let go for the third.
    expect(first!.idleFromMs).toBeNull();
    expect(Number.isInteger(third.idleFromMs)).toBe(true);
  });
  test("an owner who lost the channel writes nothing any more, whatever it believes", async () => {
    const { store, id, game } = await fresh();
    const mine = (await store.lease(id, "one", 60_000))!;
    expect(await store.commit(id, { rows: [row(1)], states: [], kept: [] }, mine)).toEqual({ is: "committed" });
    await made.expire();
    const theirs = (await store.lease(id, "two", 60_000))!;
    expect(await store.commit(id, { rows: [row(2)], states: [{ gameId: game, seq: 2, durable: { on: false } }], kept: [] }, mine)).toEqual({
      is: "lost",
    });
    expect(await store.lastSeq(id)).toBe(1);
    expect((await store.channel(id))!.games[0]!.durable).toBeNull();
    expect(await store.commit(id, { rows: [row(2)], states: [], kept: [] }, theirs)).toEqual({ is: "committed" });
  });
  test("what came of a signal the first time is told with its notes", async () => {
    const { store, id } = await fresh();
    const notes = [{ game: "g", note: { did: "boss/hit", count: 5 } }];
    await store.commit(id, { rows: [{ ...row(7, "w-1", "page"), kind: "purchase-request", body: { notes } }], states: [], kept: [] });
    expect((await store.came(id, "page", ["w-1"])).get("w-1")).toEqual({ seq: 7, notes });
  });
  test("viewers whose ids differ by case, accent or a blank are different people", async () => {
    const { store, id, game } = await fresh();
    const people = ["ada", "Ada", "áda", "ad a", "__proto__", "constructor", "100%", "a_a"];
    const hits = people.map((who, i) => ({
      kind: "hit",
      viewer: { id: who, name: who },
      fromMs: 1,
      toMs: 2,
      body: {},
      gameId: game,
      seq: i,
    }));
    expect(
      await store.commit(id, {
        rows: people.map((who, i) => ({ ...row(i + 1), viewer: { id: who, name: who, roles: [] } })),
        states: [],
        kept: hits,
      }),
    ).toEqual({ is: "committed" });
    expect(await made.kept(id)).toEqual(people.map((who) => `hit ${who}`));
  });
  test("hush is kept, and an unknown channel is null", async () => {
    const { store, id } = await fresh();
    await store.setHushed(id, true);
    expect((await store.channel(id))!.hushed).toBe(true);
    expect(await store.channel(channelId("nowhere"))).toBeNull();
    expect((await store.revisions()).get(id)).toBe(1);
  });
});
