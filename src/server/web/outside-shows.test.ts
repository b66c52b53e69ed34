import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { deflateRawSync } from "node:zlib";
import { strToU8, zipSync } from "fflate";
import { channelId } from "../../core/kernel/ids";
import type { Refusal } from "../../core/kernel/refusal";
import { showFormat } from "../../core/review/bundle";
import { forgetInOutsideShows } from "../adapters/mariadb/outside-shows";
import type { Session } from "../ports/operator-store";
import { testWeb } from "../testing/web";
import { inMemory } from "./brought";
import { actOnOutsideShow, addOutsideShow, outsideLines, outsideLinesSchema } from "./outside-shows";
import { refusalInWords } from "./words";

const kiln = channelId("kiln");
const session = { channelId: kiln, login: "kilnkeeper" } as Session;
const fromMs = Date.UTC(2026, 10, 20, 19);
const iso = (afterMs: number): string => new Date(fromMs + afterMs).toISOString();
let at: Awaited<ReturnType<typeof testWeb>>;
beforeAll(async () => {
  at = await testWeb("outside_shows");
  for (const id of [kiln, channelId("other")])
    await at.db("channels").insert({ id, name: id, salt: 7, revision: 1, hushed: false, created_ms: 1 });
});
afterAll(() => at.end());

const manifest = (part: object = {}) => ({
  format: showFormat,
  madeBy: "Izzam",
  channel: "Marram Pottery",
  show: { name: "A long evening", from: iso(0), to: iso(7_200_000), recordingOffsetMs: 0 },
  points: "shells",
  currency: "EUR",
  files: [],
  ...part,
});
const said = (afterMs: number, name: string, text: string): string =>
  JSON.stringify({ at: iso(afterMs), seq: afterMs, kind: "message", source: "chat", viewer: { id: name, name }, roles: [], text });
const zipOf = (log: readonly string[], part: object = {}, more: Record<string, Uint8Array> = {}): Buffer =>
  Buffer.from(zipSync({ "manifest.json": strToU8(JSON.stringify(manifest(part))), "log.ndjson": strToU8(log.join("\n")), ...more }));
/** A ZIP of one file of nothing, so large; made by the platform, since a library in script takes half a minute for it. */
function bomb(name: string, size: number): Buffer {
  const packed = deflateRawSync(Buffer.alloc(size), { level: 1 });
  const sizes = Buffer.alloc(12);
  sizes.writeUInt32LE(packed.length, 4);
  sizes.writeUInt32LE(size, 8);
  const named = Buffer.from([name.length, 0, 0, 0]);
  const both = Buffer.concat([Buffer.from([20, 0, 0, 0, 8, 0, 0, 0, 33, 90]), sizes, named]);
  const local = Buffer.concat([Buffer.from("PK\u0003\u0004"), both, Buffer.from(name), packed]);
  const central = Buffer.concat([Buffer.from("PK\u0001\u0002"), Buffer.from([20, 0]), both, Buffer.alloc(14), Buffer.from(name)]);
  const end = Buffer.alloc(22);
  end.write("PK\u0005\u0006", "latin1");
  end.writeUInt16LE(1, 8);
  end.writeUInt16LE(1, 10);
  end.writeUInt32LE(central.length, 12);
  end.writeUInt32LE(local.length, 16);
  return Buffer.concat([local, central, end]);
}
const usual = [
  ...Array.from({ length: 450 }, (_, i) => said(i * 1_000, i % 2 === 0 ? "ada" : "__proto__", `hello ${i}`)),
  JSON.stringify({ at: iso(460_000), kind: "raid", viewer: { id: "mo", name: "mo" }, body: { viewers: 40, notes: [] } }),
  "{half",
];
const add = (bytes: Buffer) => addOutsideShow(at.web, session, inMemory(bytes));
const idOf = async (bytes: Buffer): Promise<string> => {
  const added = await add(bytes);
  if (!added.ok) throw new Error(added.refusal.code);
  return added.value.id;
};
const wordsOf = (refusal: Refusal): string => refusalInWords(refusal);

describe("a show from outside", () => {
  test("comes in as its ZIP and is read in pages, by a stretch and by words", async () => {
    const added = await add(zipOf(usual));
    expect(added).toMatchObject({ ok: true, value: { bad: 1 } });
    const [row] = await at.web.store.outsideShows.list(kiln);
    expect(row).toMatchObject({ name: "A long evening · Marram Pottery", by: "kilnkeeper", removedMs: null });
    const id = row?.id ?? "";
    const found = await at.web.store.outsideShows.show(kiln, id);
    expect(found?.show).toMatchObject({ messages: 450, people: 2, bad: 1 });
    expect(found?.show.marks.map((m) => m.label)).toEqual(["Raid · mo brought 40"]);
    const ask = (part: object) => outsideLines(at.web, kiln, id, outsideLinesSchema.parse(part));
    const first = await ask({});
    expect([first?.lines.length, first?.more, first?.lines[1]?.name]).toEqual([200, true, "__proto__"]);
    const last = await ask({ skip: "400" });
    expect([last?.lines.length, last?.more, last?.lines.at(-1)?.text]).toEqual([51, false, "raided with 40"]);
    expect((await ask({ from: String(fromMs + 10_000), to: String(fromMs + 12_000) }))?.lines.map((l) => l.text)).toEqual([
      "hello 10",
      "hello 11",
      "hello 12",
    ]);
    expect((await ask({ words: "HELLO 44" }))?.lines).toHaveLength(11);
  });
  test("is nobody else’s; renamed, removed and brought back", async () => {
    const id = await idOf(zipOf(usual));
    const other = channelId("other");
    expect(await at.web.store.outsideShows.show(other, id)).toBeNull();
    expect(await outsideLines(at.web, other, id, outsideLinesSchema.parse({}))).toBeNull();
    for (const act of [{ do: "remove" }, { do: "rename", name: "mine" }] as const)
      expect(await actOnOutsideShow(at.web, other, id, act)).toMatchObject({ ok: false, refusal: { code: "outside/unknown" } });
    expect((await outsideLines(at.web, kiln, id, outsideLinesSchema.parse({})))?.lines).toHaveLength(200);
    expect(await actOnOutsideShow(at.web, kiln, id, { do: "rename", name: "The neighbours" })).toMatchObject({ ok: true });
    expect(await actOnOutsideShow(at.web, kiln, id, { do: "remove" })).toMatchObject({ ok: true });
    // What was unpacked before is gone with it.
    expect(await outsideLines(at.web, kiln, id, outsideLinesSchema.parse({}))).toBeNull();
    expect(await actOnOutsideShow(at.web, kiln, id, { do: "restore" })).toMatchObject({ ok: true });
    expect((await at.web.store.outsideShows.show(kiln, id))?.name).toBe("The neighbours");
    expect(await actOnOutsideShow(at.web, kiln, "constructor", { do: "restore" })).toMatchObject({ ok: false });
  });
  test("names nobody any more who is forgotten", async () => {
    const raid = JSON.stringify({ at: iso(5_000), kind: "raid", viewer: { id: "mo", name: "Mo" }, body: { viewers: 40, notes: [] } });
    const id = await idOf(zipOf([said(1_000, "mo", "mine"), said(2_000, "ada", "hello mo, and molly"), raid]));
    const { num } = (await at.db("channels").where({ id: kiln }).first("num")) as { num: number };
    await forgetInOutsideShows(at.db, num, "mo");
    const page = await outsideLines(at.web, kiln, id, outsideLinesSchema.parse({}));
    expect(page?.lines.map((l) => [l.name, l.text])).toEqual([["ada", "hello somebody, and molly"]]);
    await forgetInOutsideShows(at.db, num, "Mo");
    expect((await at.web.store.outsideShows.show(kiln, id))?.show.marks.map((m) => m.label)).toEqual(["Raid · somebody brought 40"]);
  });
  test("that is none, of a newer version, damaged or without end is refused in words, and leaves nothing", async () => {
    const before = (await at.web.store.outsideShows.list(kiln)).length;
    const given: readonly [Buffer, string][] = [
      [Buffer.from("hello"), "prop/bad-zip"],
      [zipOf(usual).subarray(0, 900), "prop/bad-zip"],
      [Buffer.from(zipSync({ "cat.png": strToU8("x") })), "outside/no-manifest"],
      [Buffer.from(zipSync({ "log.ndjson": strToU8(usual.join("\n")) })), "outside/no-manifest"],
      [zipOf(usual, { format: "izzam-show-2" }), "outside/newer"],
      [zipOf(usual, { show: { name: "x", from: iso(0), to: iso(9 * 86_400_000), recordingOffsetMs: 0 } }), "outside/no-manifest"],
      // A file that unpacks to more than may be.
      [bomb("log.ndjson", 260 * 1024 * 1024), "prop/bad-zip"],
    ];
    for (const [bytes, code] of given) {
      const said = await add(bytes);
      expect(said.ok ? "taken" : said.refusal.code).toBe(code);
      if (!said.ok) expect(wordsOf(said.refusal)).toMatch(/^[A-Z].*\.$/);
    }
    expect(await at.web.store.outsideShows.list(kiln)).toHaveLength(before);
  });
  test("one without a log, and one whose tables are nonsense, are looked at as far as they go", async () => {
    const id = await idOf(
      Buffer.from(
        zipSync({
          "manifest.json": strToU8(
            JSON.stringify(manifest({ show: { name: "\u0000\ud800 x", from: iso(0), to: iso(0), recordingOffsetMs: 0 } })),
          ),
          "moments.json": strToU8("[{]"),
          "results.csv": strToU8("a,b\r\n1"),
        }),
      ),
    );
    const found = await at.web.store.outsideShows.show(kiln, id);
    expect(found?.show).toMatchObject({ messages: 0, moments: [], results: [], marks: [] });
    expect(await outsideLines(at.web, kiln, id, outsideLinesSchema.parse({}))).toEqual({ lines: [], more: false });
  });
  test("of twenty-five at once, twenty are kept and the rest is told why not", async () => {
    await at.db("outside_shows").delete();
    const all = await Promise.all(Array.from({ length: 25 }, () => add(zipOf(usual.slice(0, 3)))));
    expect(all.filter((a) => a.ok)).toHaveLength(20);
    expect(all.flatMap((a) => (a.ok ? [] : [a.refusal.code]))).toEqual(Array(5).fill("outside/too-many"));
    // Nor do they come in by the back door: what is brought back counts, and what was removed does not pile up.
    const [first] = await at.web.store.outsideShows.list(kiln);
    const id = first?.id ?? "";
    await actOnOutsideShow(at.web, kiln, id, { do: "remove" });
    expect((await add(zipOf(usual.slice(0, 3)))).ok).toBe(true);
    expect(await actOnOutsideShow(at.web, kiln, id, { do: "restore" })).toMatchObject({ refusal: { code: "outside/too-many" } });
    for (let i = 0; i < 25; i += 1) {
      const live = (await at.web.store.outsideShows.list(kiln)).find((s) => s.removedMs === null);
      await actOnOutsideShow(at.web, kiln, live?.id ?? "", { do: "remove" });
      expect((await add(zipOf(usual.slice(0, 3)))).ok).toBe(true);
    }
    const rows = (await at.db("outside_shows").count({ n: "*" }).first()) as { n: number };
    expect(Number(rows.n)).toBeLessThanOrEqual(41);
  });
});
