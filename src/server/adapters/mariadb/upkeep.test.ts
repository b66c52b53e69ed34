import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { channelId, gameId } from "../../../core/kernel/ids";
import type { LogRow } from "../../ports/engine-store";
import type { OperatorStore } from "../../ports/operator-store";
import { testDatabase } from "../../testing/database";
import type { Database } from "./database";
import { mariadbEngineStore } from "./engine-store";
import { mariadbOperatorStore } from "./operator-store";
import { upkeep } from "./upkeep";

/** What goes, what stays, and that it can be had before it goes. */
let db: Database;
let end: () => Promise<void>;
let store: OperatorStore;
const channel = channelId("kept");
const day = 86_400_000;
const now = Date.now();
const person = { id: "ada", name: "Ada", roles: ["member"] as const };
const said = (seq: number, atMs: number, text: string): LogRow => ({
  seq,
  atMs,
  kind: "message",
  source: "chat",
  id: null,
  viewer: person,
  body: { text },
});
const happened = (seq: number, atMs: number, id: string): LogRow => ({
  seq,
  atMs,
  kind: "follow",
  source: "event",
  id,
  viewer: person,
  body: { viewer: person },
});
const months = async (): Promise<string[]> => (await store.data.months(channel)).map((m) => m.month);
const monthOf = (atMs: number): string => new Date(atMs).toISOString().slice(0, 7);
const exported = async (month: string): Promise<Readonly<Record<string, unknown>>[]> => {
  const all: Readonly<Record<string, unknown>>[] = [];
  for await (const rows of store.data.month(channel, month)) all.push(...rows);
  return all;
};

beforeAll(async () => {
  ({ db, end } = await testDatabase("upkeep"));
  store = mariadbOperatorStore(db);
  await db("channels").insert({ id: channel, name: "Kept", salt: 1, revision: 1, hushed: false, created_ms: 1 });
  // Months for what was long ago, as an installation that has run for long has them.
  const old = new Date(now - 200 * day);
  const oldEnd = Date.UTC(old.getUTCFullYear(), old.getUTCMonth() + 1, 1);
  const first = `p${old.getUTCFullYear()}${String(old.getUTCMonth() + 1).padStart(2, "0")}`;
  for (const table of ["log", "chat_log"]) {
    const [[part]] = (await db.raw(
      "select partition_name as p, partition_description as d from information_schema.partitions where table_schema = database() and table_name = ? order by partition_ordinal_position limit 1",
      [table],
    )) as [[{ p: string; d: string }]];
    await db.raw(
      `alter table ${table} reorganize partition ${part.p} into (partition ${first} values less than (${oldEnd}), partition ${part.p} values less than (${part.d}))`,
    );
  }
  const engine = mariadbEngineStore(db);
  const oldMs = now - 200 * day;
  await engine.commit(channel, {
    rows: [
      said(1, oldMs, "long ago"),
      happened(2, oldMs + 5, "old"),
      said(3, now - 9, "just now"),
      happened(4, now - 5, "new"),
      said(5, now - 5, "and now"),
    ],
    states: [],
    kept: [
      { kind: "hit", viewer: person, fromMs: oldMs, toMs: oldMs, body: {}, gameId: gameId("g"), seq: 1 },
      { kind: "reign", viewer: person, fromMs: oldMs, toMs: oldMs, body: {}, gameId: gameId("g"), seq: 1 },
      { kind: "hit", viewer: person, fromMs: now, toMs: now, body: {}, gameId: gameId("g"), seq: 4 },
    ],
  });
  await db("audit").insert([
    { channel_id: channel, operator_id: "o", action: "x", detail: "{}", at_ms: now - 400 * day },
    { channel_id: channel, operator_id: "o", action: "y", detail: "{}", at_ms: now },
  ]);
  const file = (sha: string, age: number) => ({
    sha: sha.repeat(64),
    mime: "image/webp",
    bytes: Buffer.from("x"),
    created_ms: now - age * day,
  });
  await db("prop_files").insert([file("a", 9), file("b", 9), file("c", 0), file("d", 9)]);
  const prop = (id: string, sha: string, removed: number | null) => ({
    id,
    channel_id: channel,
    name: id,
    kind: "picture",
    source_sha: sha.repeat(64),
    source_kind: "png",
    made_sha: sha.repeat(64),
    settings: "{}",
    facts: "{}",
    created_ms: 1,
    removed_ms: removed,
  });
  await db("props").insert([prop("used", "a", null), prop("trash", "b", now - 40 * day), prop("lately", "d", now - 3 * day)]);
  for (const [id, removed] of [
    ["here", null],
    ["lately", now - 3 * day],
    ["long-ago", now - 9 * day],
  ] as const)
    await db("chat_files").insert({
      id,
      channel_id: channel,
      name: id,
      line_count: 0,
      people: 0,
      ms: 0,
      body: Buffer.from(""),
      rates: "{}",
      brought_by: "keeper",
      created_ms: 1,
      removed_ms: removed,
    });
});
afterAll(() => end());

describe("what is kept, and for how long", () => {
  test("a month can be had as it was, in order, before it goes", async () => {
    const [newest] = await store.data.months(channel);
    expect(newest).toMatchObject({ month: monthOf(now), messages: 2, others: 1 });
    expect(newest!.bytes).toBeGreaterThan(0);
    expect(newest!.goesMs).toBeGreaterThan(now + 60 * day);
    expect((await exported(monthOf(now - 200 * day))).map((r) => r["text"] ?? r["kind"])).toEqual(["long ago", "follow"]);
    expect((await exported(monthOf(now))).map((r) => r["seq"])).toEqual([3, 4, 5]);
    expect((await exported(monthOf(now)))[0]).toMatchObject({
      kind: "message",
      viewer: { id: "ada", name: "Ada" },
      roles: ["member"],
      text: "just now",
    });
  });
  test("what is old enough goes; points, reigns, sums and what is in use stay", async () => {
    const swept = await upkeep(db, now);
    expect(swept).toMatchObject({ droppedMonths: [monthOf(now - 200 * day)], once: 1, audit: 1, hits: 1, files: 1, outside: 1 });
    expect(((await db("chat_files").select("id")) as { id: string }[]).map((r) => r.id).sort()).toEqual(["here", "lately"]);
    expect(await months()).toEqual([monthOf(now)]);
    expect(await exported(monthOf(now - 200 * day))).toEqual([]);
    expect(((await db("records").orderBy("id").select("kind")) as { kind: string }[]).map((r) => r.kind)).toEqual(["reign", "hit"]);
    expect(((await db("prop_files").orderBy("sha").select("sha")) as { sha: string }[]).map((r) => r.sha[0])).toEqual(["a", "c", "d"]);
    // How much there was is known for good.
    const sums = (await db("daily_counts").sum("n as n").first()) as unknown as { n: string };
    expect(Number(sums.n)).toBe(5);
    expect((await mariadbEngineStore(db).came(channel, "event", ["new", "old"])).size).toBe(1);
  });
  test("the months to come are there before they begin; once more changes nothing; two at once are one", async () => {
    const next = now + 70 * day;
    const both = await Promise.all([upkeep(db, next), upkeep(db, next)]);
    expect(both.filter((b) => b !== null).reduce((sum, b) => sum + (b?.made ?? 0), 0)).toBeGreaterThan(0);
    expect(await upkeep(db, next)).toMatchObject({ made: 0, droppedMonths: [] });
    await mariadbEngineStore(db).commit(channel, { rows: [said(9, next, "later")], states: [], kept: [] });
    expect(await months()).toContain(monthOf(next));
  });
  test("how long is a setting within its bounds", async () => {
    expect(await store.data.retention()).toEqual({ logDays: 90, auditDays: 365, hitDays: 180 });
    await store.data.setRetention({ logDays: 7, auditDays: 30, hitDays: 30 });
    expect(await store.data.retention()).toEqual({ logDays: 7, auditDays: 30, hitDays: 30 });
    await expect(store.data.setRetention({ logDays: 0, auditDays: 30, hitDays: 30 })).rejects.toThrow();
    expect((await store.data.sizes()).map((s) => s.what)).toContain("Sales");
  });
});
