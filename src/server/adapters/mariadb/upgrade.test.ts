import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { knex, type Knex } from "knex";
import { channelId } from "../../../core/kernel/ids";
import { rewardBookSchema } from "../../../core/rewards/settings";
import { Modules } from "../../engine/modules";
import { openDatabase } from "./database";
import { migrate } from "./migrate";
import { mariadbEngineStore } from "./engine-store";
import { checkLedgerOf } from "./ledger-check";
import { mariadbOperatorStore } from "./operator-store";

/** An installation of the version before, as it was kept: its data come along, to the point. */
let db: Knex;
let before: { people: Map<string, number>; sales: number; signals: number; records: number; waiting: number };
const channel = channelId("saltmarsh-kiln");
const database = "izzam_unit_upgrade";

beforeAll(async () => {
  const at = {
    host: "127.0.0.1",
    port: Number(process.env["IZZAM_TEST_DB_PORT"]),
    user: "izzam",
    password: process.env["IZZAM_TEST_DB_PASSWORD"] ?? "",
  };
  const admin = knex({ client: "mysql2", connection: at });
  await admin.raw(`DROP DATABASE IF EXISTS ${database}`);
  await admin.raw(`CREATE DATABASE ${database} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  await admin.destroy();
  const kept = gunzipSync(readFileSync(new URL("./kept/version-4.sql.gz", import.meta.url))).toString("utf8");
  const old = knex({ client: "mysql2", connection: { ...at, database }, pool: { min: 1, max: 1 } });
  for (const statement of kept.split(";\n")) if (statement.trim() !== "") await old.raw(statement.replaceAll("?", "\\?"));
  const done = (seq: number, kind: string, source: string, viewer: string | null, body: unknown) =>
    old("signals").insert({
      channel_id: channel,
      seq,
      at_ms: 1_795_703_871_000 + seq,
      kind,
      source,
      signal_id: `k${seq}`,
      viewer,
      body: JSON.stringify(body),
    });
  await done(901, "hand", "operator", null, { by: "maria", gameId: "old-spall", hand: { do: "damage", amount: 30 }, notes: [] });
  await done(902, "wish", "page", "nadia", { rewardId: "note", notes: [] });
  const one = async (sql: string): Promise<number> => Number(((await old.raw(sql)) as [{ n: number }[]])[0][0]?.n ?? 0);
  const [people] = (await old.raw("select account, balance from point_balances where account like 'v:%'")) as [
    { account: string; balance: number }[],
  ];
  before = {
    people: new Map(people.map((p) => [p.account.slice(2), Number(p.balance)])),
    sales: await one("select count(*) as n from sales"),
    signals: await one("select count(*) as n from signals"),
    records: await one("select count(*) as n from game_records"),
    waiting: await one("select count(*) as n from sales where state = 'waiting'"),
  };
  await old.destroy();
  db = openDatabase({ ...at, name: database }, 4, true);
  expect(await migrate(db)).toEqual([
    "005-lean-rows-and-keys",
    "006-removed-and-brought-back",
    "007-commands-and-purchase-requests",
    "008-stakes-and-winnings",
    "009-overlays-are-dressed",
    "010-who-was-in-which-show",
    "011-faces",
    "012-studio",
    "013-moving-pictures",
    "014-odds-lab",
    "015-shows-reviewed",
    "016-chat-from-outside",
    "017-shows-shared",
    "018-shows-from-outside",
    "019-public-names",
  ]);
});
afterAll(() => db.destroy());

describe("an installation of the version before", () => {
  test("keeps every module's settings and state, as this version reads them: what each rule, cue and reward did it does", async () => {
    const row = (await mariadbEngineStore(db).channel(channel))!;
    const modules = new Modules();
    modules.load(row);
    expect(modules.unreadable).toEqual([]);
    expect(modules.list).toHaveLength(row.games.length);
    const rewards = rewardBookSchema.parse(modules.named("rewards")!.settings).rewards;
    const acts = rewards.flatMap((r) => r.effects.filter((d) => d.do === "act").map((d) => [r.price, d.act, d.input["amount"]]));
    // Five for every point of its price, as it was.
    expect(acts).toContainEqual([40, "damage", 200]);
  });
  test("keeps everybody's points; who had two accounts by two spellings has one, with both", async () => {
    const store = mariadbEngineStore(db);
    const { accounts, sales } = await store.ledgerView(channel, { showId: "", sinceMs: 0 });
    const after = new Map(accounts.map((a) => [a.account, a.balance]));
    expect(before.people.get("Oatcake_Ada")).toBeGreaterThan(0);
    const twice = (before.people.get("Oatcake_Ada") ?? 0) + (before.people.get("oatcake_ada") ?? 0);
    expect(after.get("v:oatcake_ada")).toBe(twice);
    for (const [id, balance] of before.people)
      if (id.toLowerCase() !== "oatcake_ada") expect([id, after.get(`v:${id}`)]).toEqual([id, balance]);
    // Who only look alike stay two.
    expect([after.get("v:nadia"), after.get("v:nádia")]).toEqual([100, 100]);
    expect(sales.filter((s) => s.state === "waiting")).toHaveLength(before.waiting);
  });
  test("has a ledger that balances, and every sale, signal and record it had", async () => {
    expect((await checkLedgerOf(db, channel)).faults).toEqual([]);
    const many = async (table: string): Promise<number> => Number(((await db(table).count("* as n").first()) as { n: number }).n);
    expect(await many("sales")).toBe(before.sales);
    expect((await many("chat_log")) + (await many("log"))).toBe(before.signals);
    expect(await many("records")).toBe(before.records);
    const [tables] = (await db.raw("show tables like 'point_%'")) as [unknown[]];
    expect(tables).toEqual([]);
  });
  test("calls what was done by its new name", async () => {
    const rows = (await db("log").whereIn("seq", [901, 902]).orderBy("seq").select("kind", "body")) as { kind: string; body: string }[];
    expect(rows.map((r) => [r.kind, JSON.parse(r.body)])).toEqual([
      ["command", { by: "maria", gameId: "old-spall", notes: [], command: { do: "damage", amount: 30 } }],
      ["purchase-request", { rewardId: "note", notes: [] }],
    ]);
    const counts = (await db("daily_counts").whereIn("kind", ["hand", "wish", "command", "purchase-request"]).select("kind", "n")) as {
      kind: string;
      n: number;
    }[];
    expect(counts.map((c) => [c.kind, Number(c.n)]).sort()).toEqual([
      ["command", 1],
      ["purchase-request", 1],
    ]);
  });
  test("knows what came before: numbers go on, and an event that was taken is not taken again", async () => {
    const store = mariadbEngineStore(db);
    const seq = await store.lastSeq(channel);
    expect(seq).toBeGreaterThan(10);
    const [row] = (await db("log").where({ source: "event", kind: "follow" }).limit(1)) as { seq: number; body: string }[];
    expect(row!.seq).toBeLessThanOrEqual(seq);
    const fresh = await mariadbOperatorStore(db).shows.viewer(channel, "oatcake_ada");
    expect(fresh).toMatchObject({ name: "oatcake_ada", messages: 3 });
    const charts = await mariadbOperatorStore(db).points.charts(channel, 0);
    expect(charts.shows).toHaveLength(24);
    expect(charts.shows.every((s) => s.made > 0)).toBe(true);
  });
});
