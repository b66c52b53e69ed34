import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { channelId, gameId } from "../../core/kernel/ids";
import type { ChannelRow, EngineStore, LogRow } from "../ports/engine-store";
import { testDatabase } from "../testing/database";
import { testChannel } from "../testing/channel";
import type { Database } from "./mariadb/database";
import { mariadbEngineStore } from "./mariadb/engine-store";
import { memoryEngineStore } from "./memory/engine-store";

/** One suite for every implementation of the port. */
type Made = Readonly<{
  store: EngineStore;
  put: (channel: ChannelRow) => Promise<void>;
  kept: (id: ChannelRow["id"]) => Promise<string[]>;
  end: () => Promise<void>;
}>;
const row = (seq: number, id = `id-${seq}`, source = "chat"): LogRow => ({
  seq,
  atMs: 1_700_000_000_000 + seq,
  kind: "message",
  source,
  id,
  viewer: "ada",
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
        kept: async (id) => store.kept(id).map((k) => `${k.kind} ${k.viewer?.id ?? "-"}`),
        end: async () => undefined,
      };
    },
  ],
  [
    "MariaDB",
    async () => {
      const { db, end } = await testDatabase("engine");
      const kept = async (id: ChannelRow["id"]): Promise<string[]> =>
        ((await db("game_records").where({ channel_id: id }).orderBy("id")) as { kind: string; viewer: string | null }[]).map(
          (r) => `${r.kind} ${r.viewer ?? "-"}`,
        );
      return { store: mariadbEngineStore(db), put: (c) => putInto(db, c), kept, end };
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
    expect(await store.commit(id, { rows: [row(1), row(2)], states: [{ gameId: game, seq: 2, durable: { on: false } }], kept: [] })).toBe(
      "committed",
    );
    expect(await store.lastSeq(id)).toBe(2);
    expect((await store.channel(id))!.games[0]!.durable).toEqual({ on: false });
    await store.commit(id, { rows: [row(3)], states: [{ gameId: game, seq: 3, durable: { on: true } }], kept: [] });
    expect((await store.channel(id))!.games[0]!.durable).toEqual({ on: true });
  });
  test("ids that were seen are told, of their own source and channel only", async () => {
    const { store, id } = await fresh();
    const other = await fresh();
    await store.commit(id, { rows: [row(1, "a", "event"), row(2, "b", "chat")], states: [], kept: [] });
    expect([...(await store.seen(id, "event", ["a", "b", "c"]))]).toEqual(["a"]);
    expect((await store.seen(other.id, "event", ["a"])).size).toBe(0);
    expect((await store.seen(id, "event", [])).size).toBe(0);
  });
  test("what is kept for good is committed with its signal, or not at all", async () => {
    const { store, id, game } = await fresh();
    const hit = { kind: "hit", viewer: { id: "ada", name: "Ada" }, fromMs: 1, toMs: 2, body: { amount: 5 }, gameId: game, seq: 1 };
    await store.commit(id, { rows: [row(1)], states: [], kept: [hit, { ...hit, viewer: null }] });
    expect(await made.kept(id)).toEqual(["hit ada", "hit -"]);
    expect(await store.commit(id, { rows: [row(2, "id-1")], states: [], kept: [hit] })).toBe("duplicate");
    expect(await made.kept(id)).toHaveLength(2);
  });
  test("thousands at once are one commit", async () => {
    const { store, id } = await fresh();
    expect(await store.commit(id, { rows: Array.from({ length: 2_500 }, (_, i) => row(i + 1)), states: [], kept: [] })).toBe("committed");
    expect(await store.lastSeq(id)).toBe(2_500);
  });
  test("a signal that is there already refuses the whole commit, and nothing of it stays", async () => {
    const { store, id, game } = await fresh();
    await store.commit(id, { rows: [row(1)], states: [], kept: [] });
    expect(
      await store.commit(id, { rows: [row(2), row(3, "id-1")], states: [{ gameId: game, seq: 3, durable: { on: false } }], kept: [] }),
    ).toBe("duplicate");
    expect(await store.lastSeq(id)).toBe(1);
    expect((await store.channel(id))!.games[0]!.durable).toBeNull();
  });
  test("one id may come from two sources, and in two channels", async () => {
    const [a, b] = [await fresh(), await fresh()];
    expect(await a.store.commit(a.id, { rows: [row(1, "same", "chat"), row(2, "same", "operator")], states: [], kept: [] })).toBe(
      "committed",
    );
    expect(await b.store.commit(b.id, { rows: [row(1, "same", "chat")], states: [], kept: [] })).toBe("committed");
  });
  test("dust is appended in bulk; what is there already changes nothing", async () => {
    const { store, id } = await fresh();
    await store.append(
      id,
      Array.from({ length: 2_500 }, (_, i) => row(i + 1)),
    );
    await store.append(id, [row(2_500), row(2_501)]);
    expect(await store.lastSeq(id)).toBe(2_501);
  });
  test("one owner holds a channel until its lease runs out", async () => {
    const { store, id } = await fresh();
    expect(await store.lease(id, "one", 1_000, 11_000)).toBe(true);
    expect(await store.lease(id, "two", 2_000, 12_000)).toBe(false);
    expect(await store.lease(id, "one", 3_000, 13_000)).toBe(true);
    expect(await store.lease(id, "one", 3_000, 13_000)).toBe(true);
    expect(await store.lease(id, "two", 13_000, 23_000)).toBe(true);
    expect(await store.lease(id, "one", 14_000, 24_000)).toBe(false);
    await store.release(id, "one");
    expect(await store.lease(id, "one", 14_000, 24_000)).toBe(false);
    await store.release(id, "two");
    expect(await store.lease(id, "one", 14_000, 24_000)).toBe(true);
  });
  test("hush is kept, and an unknown channel is null", async () => {
    const { store, id } = await fresh();
    await store.setHushed(id, true);
    expect((await store.channel(id))!.hushed).toBe(true);
    expect(await store.channel(channelId("nowhere"))).toBeNull();
    expect((await store.revisions()).get(id)).toBe(1);
  });
});
