import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { unzipSync } from "fflate";
import { channelId, gameId } from "../../core/kernel/ids";
import { showManifestSchema } from "../../core/review/bundle";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import type { LogRow } from "../ports/engine-store";
import { testWeb } from "../testing/web";
import { actOnShow } from "./review";
import { showBundle, showTable } from "./show-out";
import { showFigures } from "./trends";

const kiln = channelId("kiln");
const fromMs = Date.UTC(2026, 9, 24, 22, 30);
const hour = 3_600_000;
let at: Awaited<ReturnType<typeof testWeb>>;
let shows: readonly number[] = [];
let seq = 0;
const viewer = (name: string) => ({ id: name, name, roles: ["viewer" as const] });
beforeAll(async () => {
  at = await testWeb("show_out");
  await at.db("channels").insert({ id: kiln, name: "Saltmarsh Kiln", salt: 7, revision: 1, hushed: false, created_ms: 1 });
  const store = mariadbEngineStore(at.db);
  const kept = (id: string, by: number) => ({
    kind: "show",
    viewer: null,
    fromMs: fromMs + by,
    toMs: fromMs + by + 2 * hour,
    body: { id, rehearsal: false, by: "keeper" },
    gameId: gameId("show"),
    seq: (seq += 1),
  });
  await store.commit(kiln, { rows: [], states: [], kept: [kept("show1", 0), kept("show2", 5 * hour)] });
  const row = (afterMs: number, kind: string, body: unknown, who: LogRow["viewer"]): LogRow => ({
    seq: (seq += 1),
    atMs: fromMs + afterMs,
    kind,
    source: kind === "message" ? "chat" : "event",
    id: null,
    viewer: who,
    body,
  });
  const rows: LogRow[] = [];
  for (let i = 0; i < 4_500; i += 1)
    rows.push(row(i * 1_000, "message", { text: i === 7 ? "=HYPERLINK(1)" : `hello ${i} 🔥` }, viewer(i % 3 === 0 ? "ada" : "mo")));
  rows.push(row(5_000, "tip", { amountMinor: 500, currency: "EUR", homeMinor: 500, text: "<b>" }, viewer("=cmd")));
  // Of another evening, and of just outside.
  rows.push(row(-1, "message", { text: "before" }, viewer("ada")), row(2 * hour + 5_000, "message", { text: "after" }, viewer("ada")));
  await store.append(kiln, rows);
  shows = ((await at.db("records").where({ kind: "show" }).orderBy("id").select("id")) as { id: number }[]).map((r) => Number(r.id));
});
afterAll(() => at.end());

const first = (): number => shows[0] ?? 0;
async function whole(id: number): Promise<ReturnType<typeof unzipSync>> {
  const bundle = await showBundle(at.web, kiln, "Saltmarsh Kiln", id);
  const pieces: Uint8Array[] = [];
  for await (const piece of bundle!.pieces) pieces.push(piece);
  return unzipSync(Buffer.concat(pieces));
}

describe("tables of a show", () => {
  test("people, as CSV and JSON: who wrote or gave, most first; what begins like a formula is text", async () => {
    const json = JSON.parse((await showTable(at.web, kiln, first(), { what: "people", as: "json" }))!.text) as {
      name: string;
      messages: number;
      given: number;
    }[];
    expect(json.map(({ name, messages, given }) => [name, messages, given])).toEqual([
      ["mo", 3_000, 0],
      ["ada", 1_500, 0],
      ["=cmd", 0, 1],
    ]);
    const { text, name } = (await showTable(at.web, kiln, first(), { what: "people", as: "csv" }))!;
    expect(text.split("\r\n")[0]).toBe("id,name,messages,given,first,last");
    expect(text).toContain("'=cmd");
    expect(name).toBe("show-of-2026-10-24-people.csv");
  });
  test("with nothing in them, and of no show", async () => {
    expect((await showTable(at.web, kiln, first(), { what: "sales", as: "csv" }))?.text).toBe(
      "when,reward,viewer,price,text,state,decidedBy\r\n",
    );
    expect(await showTable(at.web, kiln, 999_999, { what: "results", as: "json" })).toBeNull();
    expect(await showTable(at.web, channelId("other"), first(), { what: "results", as: "json" })).toBeNull();
  });
});

describe("a whole show as a ZIP", () => {
  test("holds its log and says what is in it, by its published schema", async () => {
    const owner = { channelId: kiln, login: "keeper" };
    await actOnShow(at.web, owner, first(), { do: "name", name: "Härbour / night ../.." });
    await actOnShow(at.web, owner, first(), { do: "add", atMs: fromMs + 10_000, toMs: fromMs + 20_000, name: "The ferry" });
    const files = await whole(first());
    const text = (name: string): string => new TextDecoder().decode(files[name]);
    const manifest = showManifestSchema.parse(JSON.parse(text("manifest.json")));
    expect(manifest).toMatchObject({ format: "izzam-show-1", channel: "Saltmarsh Kiln", show: { name: "Härbour / night ../.." } });
    expect(Object.keys(files).sort()).toEqual([...manifest.files.map((f) => f.name), "manifest.json"].sort());
    const log = text("log.ndjson")
      .trimEnd()
      .split("\n")
      .map((l) => JSON.parse(l) as { text?: string; kind: string; viewer: { name: string } });
    expect(log).toHaveLength(4_501);
    expect(manifest.files.find((f) => f.name === "log.ndjson")?.rows).toBe(4_501);
    expect(log.filter((l) => l.text === "before" || l.text === "after")).toEqual([]);
    expect(log.some((l) => l.text === "=HYPERLINK(1)")).toBe(true);
    expect(JSON.parse(text("moments.json"))).toContainEqual(expect.objectContaining({ name: "The ferry", state: "kept" }));
    expect(JSON.parse(text("numbers.json"))).toMatchObject({ messages: 4_500, tips: 1 });
    expect((await showBundle(at.web, kiln, "Saltmarsh Kiln", first()))?.name).toBe("h-rbour-night.zip");
  });
  test("stopped in the middle it reads no further; of no show there is none", async () => {
    const bundle = (await showBundle(at.web, kiln, "Saltmarsh Kiln", first()))!;
    expect((await bundle.pieces.next()).done).toBe(false);
    await bundle.pieces.return(undefined);
    expect((await bundle.pieces.next()).done).toBe(true);
    expect(await showBundle(at.web, kiln, "Saltmarsh Kiln", 0)).toBeNull();
  });
});

test("shows as figures, oldest first, by their names of now", async () => {
  const figures = await showFigures(at.web, kiln);
  expect(figures.map((f) => [f.id, f.messages, f.people, f.hours])).toEqual([
    [shows[0], 4_500, 2, 2],
    [shows[1], null, null, 2],
  ]);
  await actOnShow(at.web, { channelId: kiln, login: "keeper" }, first(), { do: "name", name: "Another name" });
  expect((await showFigures(at.web, kiln))[0]?.name).toBe("Another name");
});
