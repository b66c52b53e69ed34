import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { channelId, gameId } from "../../core/kernel/ids";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import { testWeb } from "../testing/web";
import { airedIn } from "./aired";
import { winnersIn } from "./past-rounds";
import { showTable } from "./show-out";

const kiln = channelId("kiln");
const fromMs = Date.UTC(2026, 10, 20, 19);
const toMs = fromMs + 7_200_000;
let at: Awaited<ReturnType<typeof testWeb>>;
let seq = 0;
const mo = { id: "mo", name: "mo" };
const kept = (game: string, kind: string, afterMs: number, body: object, viewer: typeof mo | null = null, sinceMs = afterMs) => ({
  kind,
  viewer,
  fromMs: fromMs + sinceMs,
  toMs: fromMs + afterMs,
  body,
  gameId: gameId(game),
  seq: (seq += 1),
});
const stake = (id: string, outcome: number, points: number) =>
  kept("will", "stake", 100_000, { stake: { id, name: id, outcome, stake: points, order: 1 } }, { id, name: id });

beforeAll(async () => {
  at = await testWeb("aired");
  await at.db("channels").insert({ id: kiln, name: "Saltmarsh Kiln", salt: 7, revision: 1, hushed: false, created_ms: 1 });
  for (const [id, kind] of [
    ["voice", "voices"],
    ["films", "clips"],
    ["who", "presenting"],
    ["wheel", "wheel"],
    ["draw", "raffle"],
    ["will", "prediction"],
  ] as const)
    await at.db("games").insert({ id, channel_id: kiln, kind, name: id, draft: "{}", version: 1, created_ms: 1 });
  const store = mariadbEngineStore(at.db);
  await store.commit(kiln, {
    rows: [],
    states: [],
    kept: [
      kept("show", "show", 7_200_000, { id: "s", rehearsal: false, by: "keeper" }, null, 0),
      kept("voice", "spoken", 60_000, { text: "good evening", voice: "a", how: "spoken" }, mo),
      kept(
        "films",
        "clip",
        120_000,
        { title: "my first sail", address: "javascript:alert(1)", seenMs: 9_000, skipped: false, paid: 0 },
        mo,
      ),
      kept("who", "presented", 180_000, {
        name: "seaglass_sia",
        page: "https://watch.invalid/sia",
        topic: "glass",
        about: "",
        by: "keeper",
      }),
      // Before the show began, and of a kind that this version does not know.
      kept("voice", "spoken", -5_000, { text: "too early", voice: "a", how: "spoken" }, mo),
      kept("voice", "constructor", 70_000, { text: "never" }, mo),
      kept("wheel", "spin", 200_000, { round: "r1", n: 3, label: "Celadon", by: "mo" }, mo),
      kept("draw", "round", 300_000, {
        round: "r2",
        title: "Supper",
        people: 9,
        winners: [
          { name: "__proto__", state: "claimed", prize: "a cup" },
          { name: "late", state: "passed", prize: "a cup" },
        ],
      }),
      stake("ada", 0, 50),
      stake("bo", 1, 70),
      kept(
        "will",
        "result",
        400_000,
        { title: "Will it hold?", result: 0, label: "It holds", winners: 1, pot: 120, stakes: true, returned: false, outcomes: [] },
        null,
        90_000,
      ),
    ],
  });
  const row = (afterMs: number, body: object) => ({
    seq: (seq += 1),
    atMs: fromMs + afterMs,
    kind: "cue",
    source: "operator",
    id: null,
    viewer: null,
    body,
  });
  const note = (did: string) => [{ game: "cues", note: { did, count: 1, subject: "Kiln roar" } }];
  await store.append(kiln, [
    row(50_000, { cue: "roar", by: "keeper", notes: note("cue/on") }),
    row(55_000, { cue: "roar", by: "keeper", notes: note("cue/off") }),
    row(58_000, { cue: "roar", by: "keeper", notes: [] }),
  ]);
});
afterAll(() => at.end());

describe("what was put before the audience in a show", () => {
  test("is listed with who it was by, newest first; addresses that are none of the web lead nowhere", async () => {
    const { rows, more } = await airedIn(at.web, kiln, { fromMs, toMs });
    expect(more).toBe(false);
    expect(rows.map((r) => [r.how, r.what, r.by, r.link])).toEqual([
      ["presented", "seaglass_sia, glass", "", "https://watch.invalid/sia"],
      ["a clip", expect.stringMatching(/^my first sail: /), "mo", ""],
      ["spoken", "good evening", "mo", ""],
      ["a cue", "Kiln roar", "keeper", ""],
    ]);
    expect(await airedIn(at.web, channelId("elsewhere"), { fromMs, toMs })).toEqual({ rows: [], more: false });
    expect(await airedIn(at.web, kiln, { fromMs, toMs }, 2)).toMatchObject({ rows: { length: 2 }, more: true });
  });
});

describe("who won in a show", () => {
  test("by wheel, by draw and by being right; whoever was passed over or wrong did not", async () => {
    const winners = await winnersIn(at.web, kiln, [fromMs, toMs]);
    expect(winners.map((w) => [w.title, w.viewer, w.prize, w.check])).toEqual([
      ["Will it hold?", "ada", "right with A It holds", ""],
      ["Supper", "__proto__", "a cup", "r2"],
      ["Spin 3, for mo", "mo", "Celadon", "r1"],
    ]);
  });
  test("as tables", async () => {
    const [record] = (await at.db("records").where({ kind: "show" }).select("id")) as { id: number }[];
    const id = Number(record?.id);
    const csv = (await showTable(at.web, kiln, id, { what: "winners", as: "csv" }))?.text ?? "";
    expect(csv.split("\r\n")[0]).toBe("when,game,title,viewer,prize,proof");
    expect(csv).toContain("Supper,__proto__,a cup,r2");
    const aired = JSON.parse((await showTable(at.web, kiln, id, { what: "aired", as: "json" }))?.text ?? "[]") as unknown[];
    expect(aired).toHaveLength(4);
  });
});
