import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { channelId, gameId } from "../../core/kernel/ids";
import { frameOf, frameRateOf } from "../../core/review/timecode";
import { markersSchema } from "../../core/review/markers";
import { forgetInMoments } from "../adapters/mariadb/forget-records";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import type { LogRow } from "../ports/engine-store";
import { testWeb } from "../testing/web";
import { actOnShow, markersOut, reviewActSchema, reviewView, showMoments } from "./review";
import { linesSchema, showLines } from "./show-lines";
import { recordIn, titleOf } from "./show-names";

const kiln = channelId("kiln");
const owner = { channelId: kiln, login: "keeper" };
// A show over midnight, and over the hour that comes twice in Europe.
const fromMs = Date.UTC(2026, 9, 24, 22, 30);
const toMs = fromMs + 3 * 3_600_000;
let at: Awaited<ReturnType<typeof testWeb>>;
let show = 0;
let rehearsal = 0;
let seq = 0;
const ada = { id: "ada", name: "ada", roles: ["viewer" as const] };
const row = (afterMs: number, kind: string, body: unknown, viewer: LogRow["viewer"] = ada): LogRow => ({
  seq: (seq += 1),
  atMs: fromMs + afterMs,
  kind,
  source: kind === "message" ? "chat" : "platform",
  id: null,
  viewer,
  body,
});
beforeAll(async () => {
  at = await testWeb("review");
  await at.db("channels").insert({ id: kiln, name: "Saltmarsh Kiln", salt: 7, revision: 1, hushed: false, created_ms: 1 });
  const store = mariadbEngineStore(at.db);
  const kept = (id: string, isRehearsal: boolean, by: number) => ({
    kind: "show",
    viewer: null,
    fromMs: fromMs + by,
    toMs: toMs + by,
    body: { id, rehearsal: isRehearsal, by: "keeper" },
    gameId: gameId("show"),
    seq: (seq += 1),
  });
  await store.commit(kiln, { rows: [], states: [], kept: [kept("show1", false, 0), kept("show2", true, 86_400_000)] });
  const rows: LogRow[] = [];
  for (let i = 0; i < 1_000; i += 1) rows.push(row(i * 10_800, "message", { text: i % 4 === 0 ? `hello ${i} 🔥` : `hello ${i}` }));
  // A rush, an hour in.
  for (let i = 0; i < 120; i += 1) rows.push(row(3_600_000 + i * 400, "message", { text: `kiln ${i} 🔥 🔥` }));
  rows.push(row(3_605_000, "raid", { viewer: ada, viewers: 412 }));
  rows.push(row(7_000_000, "tip", { viewer: ada, amountMinor: 500, currency: "EUR", homeMinor: 500, text: "<b>=1+1</b>" }));
  rows.push(row(8_000_000, "follow", { viewer: { of: "another age" } }, null));
  await store.append(
    kiln,
    rows.sort((a, b) => a.seq - b.seq),
  );
  const records = (await at.db("records").where({ kind: "show" }).orderBy("id").select("id")) as { id: number }[];
  [show, rehearsal] = records.map((r) => Number(r.id)) as [number, number];
});
afterAll(() => at.end());
beforeEach(async () => {
  await at.db("show_moments").delete();
  await at.db("show_reviews").delete();
});

describe("a past show", () => {
  test("opens with its numbers, its curve and its marks", async () => {
    const view = await reviewView(at.web, kiln, show);
    expect(view?.numbers).toMatchObject({
      messages: 1_120,
      people: 1,
      raids: 1,
      raiders: 412,
      tips: 1,
      tipped: 500,
      follows: 1,
      refunds: 0,
    });
    expect(view?.numbers.busiest).toBeGreaterThan(100);
    expect(view?.series.chat).toHaveLength(1_080);
    expect(view?.series.chat.reduce((sum, n) => sum + n, 0)).toBe(1_120);
    expect(view?.marks.map((m) => m.label)).toEqual(
      expect.arrayContaining(["Raid · ada brought 412", "ada tipped 5.00 EUR", "someone followed"]),
    );
    expect(titleOf({ name: "", fromMs })).toBe("Show of 2026-10-24");
  });
  test("of another channel, a rehearsal, or none: there is none", async () => {
    expect(await reviewView(at.web, channelId("elsewhere"), show)).toBeNull();
    expect(await reviewView(at.web, kiln, rehearsal)).toBeNull();
    for (const given of ["0", "-1", "1e3", "constructor", "NaN", "9".repeat(30), undefined]) expect(recordIn(given)).toBe(0);
    expect(await reviewView(at.web, kiln, 0)).toBeNull();
    expect(await actOnShow(at.web, { ...owner, channelId: channelId("elsewhere") }, show, { do: "name", name: "mine" })).toMatchObject({
      ok: false,
    });
  });
  test("is named, and the name is there when it is opened again", async () => {
    expect((await actOnShow(at.web, owner, show, { do: "name", name: "The night of the raid" })).ok).toBe(true);
    expect((await reviewView(at.web, kiln, show))?.show.name).toBe("The night of the raid");
    expect((await at.web.store.shows.past(kiln, 10)).find((s) => s.id === show)?.name).toBe("The night of the raid");
  });
});

describe("its moments", () => {
  const act = async (body: unknown) => actOnShow(at.web, owner, show, reviewActSchema.parse(body));
  test("the rush is found, with the raid’s name and both reasons", async () => {
    const found = await showMoments(at.web, kiln, show);
    expect(found).toHaveLength(1);
    expect(found?.[0]).toMatchObject({ state: "found", name: "Raid · ada brought 412" });
    expect(found?.[0]?.why).toMatch(/chat was .* × its usual/);
    expect(found?.[0]?.why).toMatch(/emotes/);
    expect(Math.abs((found?.[0]?.atMs ?? 0) - (fromMs + 3_590_000))).toBeLessThanOrEqual(20_000);
  });
  test("is kept by another name, dropped, and back as it was found", async () => {
    const [m] = (await showMoments(at.web, kiln, show)) ?? [];
    if (m === undefined) throw new Error("nothing was found");
    const moment = { id: m.id, atMs: m.atMs, toMs: m.toMs, why: m.why, name: "The ferry arrives" };
    await act({ do: "keep", moment });
    expect((await showMoments(at.web, kiln, show))?.[0]).toMatchObject({ state: "kept", name: "The ferry arrives", by: "keeper" });
    await act({ do: "drop", moment });
    expect((await showMoments(at.web, kiln, show))?.map((x) => x.state)).toEqual(["dropped"]);
    await act({ do: "undecide", moment: m.id });
    expect((await showMoments(at.web, kiln, show))?.[0]).toMatchObject({ state: "found", name: m.name });
  });
  test("one of one’s own lies within the show, and ends after it begins", async () => {
    await act({ do: "add", atMs: fromMs + 60_000, toMs: fromMs + 90_000, name: "" });
    expect((await showMoments(at.web, kiln, show))?.[0]).toMatchObject({ state: "kept", name: "A moment", atMs: fromMs + 60_000 });
    for (const [a, b] of [
      [fromMs + 10, fromMs],
      [fromMs - 7_200_000, fromMs - 7_000_000],
      [toMs + 3_600_000, toMs + 3_700_000],
    ])
      expect(await act({ do: "add", atMs: a, toMs: b, name: "x" })).toMatchObject({ ok: false, refusal: { code: "review/moment" } });
    expect(reviewActSchema.safeParse({ do: "keep", moment: { id: "../x", atMs: 1, toMs: 2, name: "", why: "" } }).success).toBe(false);
  });
});

test("who is forgotten is named by no moment, and nobody else is touched whose name holds theirs", async () => {
  const keep = (name: string, n: number) => actOnShow(at.web, owner, show, { do: "add", atMs: fromMs + n, toMs: fromMs + n + 1, name });
  await keep("Raid · a.da brought 412", 1);
  await keep("a.da_two fell, to a.da", 2);
  await keep("axda waves", 3);
  const { num } = (await at.db("channels").where({ id: kiln }).first("num"))!;
  await forgetInMoments(at.db, num, "a.da");
  expect((await at.web.store.reviews.moments(kiln, show)).map((m) => m.name)).toEqual([
    "Raid · somebody brought 412",
    "a.da_two fell, to somebody",
    "axda waves",
  ]);
});

describe("its lines", () => {
  const lines = (given: object) => showLines(at.web, kiln, linesSchema.parse({ from: fromMs, to: toMs, ...given }));
  test("come page by page, each once, in order, whatever table they lie in", async () => {
    const seen: string[] = [];
    let page = await lines({});
    for (let i = 0; i < 20; i += 1) {
      seen.push(...page.lines.map((l) => `${l.atMs}.${l.seq}`));
      const last = page.lines.at(-1);
      if (!page.more || last === undefined) break;
      page = await lines({ at: last.atMs, seq: last.seq });
    }
    expect(seen).toHaveLength(1_123);
    expect(new Set(seen).size).toBe(seen.length);
    expect(
      [...seen].sort((a, b) => Number(a.split(".")[0]) - Number(b.split(".")[0]) || Number(a.split(".")[1]) - Number(b.split(".")[1])),
    ).toEqual(seen);
  });
  test("are found by a word, and what looks like a pattern is none", async () => {
    expect((await lines({ words: "hello 999" })).lines.map((l) => l.text)).toEqual(["hello 999"]);
    expect((await lines({ words: "%" })).lines).toEqual([]);
    expect((await lines({ words: "hello_9" })).lines).toEqual([]);
    expect((await lines({ only: "rest" })).lines.map((l) => l.text)).toEqual([
      "raided with 412",
      "tipped 5.00 EUR “<b>=1+1</b>”",
      "followed",
    ]);
  });
});

describe("out of it", () => {
  test("the kept moments, at the right frames of a recording that began three seconds earlier", async () => {
    await actOnShow(at.web, owner, show, { do: "add", atMs: fromMs + 600_000, toMs: fromMs + 610_000, name: "=cmd|the kiln opens" });
    await actOnShow(at.web, owner, show, { do: "offset", offsetMs: 3_000 });
    const out = async (as: "vtt" | "csv" | "edl" | "json", which: "kept" | "all" = "kept") =>
      (await markersOut(at.web, kiln, show, { as, rate: "29.97", which }))?.text ?? "";
    const code = /AX {7}V {5}C {8}(\S+)/.exec(await out("edl"))?.[1] ?? "";
    // 603 s of 30,000 frames in 1,001 s.
    expect(frameOf(code, frameRateOf("29.97"))).toBe(Math.floor((603 * 30_000) / 1_001));
    const json = markersSchema.parse(JSON.parse(await out("json")));
    expect(json.markers.map((m) => m.timecode)).toEqual([code]);
    expect(json.offsetMs).toBe(3_000);
    expect(await out("vtt")).toContain("00:10:03.000 --> 03:00:03.000");
    // A table program must not run what somebody wrote.
    expect(await out("csv")).toContain("'=cmd|the kiln opens");
    expect((JSON.parse(await out("json", "all")) as { markers: unknown[] }).markers).toHaveLength(2);
    expect(await markersOut(at.web, kiln, rehearsal, { as: "vtt", rate: "25", which: "all" })).toBeNull();
  });
});
