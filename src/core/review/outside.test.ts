import { describe, expect, test } from "@jest/globals";
import type { ShowManifest } from "./bundle";
import { OutsideLog, type OutsideRow, readManifest, readMoments, readResults } from "./outside";

const manifest: ShowManifest = {
  format: "izzam-show-1",
  madeBy: "Izzam",
  channel: "Saltmarsh Kiln",
  show: { name: "Friday", from: "2026-10-24T22:30:00.000Z", to: "2026-10-25T00:30:00.000Z", recordingOffsetMs: 0 },
  points: "clay",
  currency: "EUR",
  games: [{ id: "spall", kind: "boss-battle", name: "Old Spall" }],
  files: [],
};

describe("a show of another installation", () => {
  test("says what it is; one of a newer version, of another kind, and none at all are refused", () => {
    expect(readManifest(JSON.stringify(manifest))).toEqual({ ok: true, value: manifest });
    const code = (given: unknown) => {
      const read = readManifest(given === null ? null : JSON.stringify(given));
      return read.ok ? "" : read.refusal.code;
    };
    expect([code(null), code({}), code({ ...manifest, format: "izzam-show-7" }), code({ ...manifest, format: "else-1" })]).toEqual([
      "outside/no-manifest",
      "outside/no-manifest",
      "outside/newer",
      "outside/no-manifest",
    ]);
    expect(code({ ...manifest, show: { ...manifest.show, to: "2020-01-01T00:00:00.000Z" } })).toBe("outside/no-manifest");
    expect(readManifest("{").ok).toBe(false);
  });
  test("its log is read line by line; what can't be read is counted and keeps none of the others out", () => {
    const hits = [
      { game: "spall", note: { did: "damage/dealt", count: 4 } },
      { game: "__proto__", note: { did: "constructor", count: 1 } },
      { game: "spall", note: null },
    ];
    const say = (row: OutsideRow): string => {
      if (row.kind === "odd") throw new Error("of another version");
      return `${row.kind} by ${row.name}`;
    };
    const log = new OutsideLog(manifest, say);
    const line = (min: number, part: object): string =>
      JSON.stringify({ at: new Date(Date.parse(manifest.show.from) + min * 60_000).toISOString(), seq: 1, source: "x", ...part });
    log.add(line(0, { kind: "message", viewer: { id: "a", name: "ada" }, text: "hello" }));
    log.add(line(0, { kind: "message", viewer: { id: "p", name: "__proto__" }, text: "x".repeat(900) }));
    log.add(line(1, { kind: "tip", viewer: { id: "a", name: "ada" }, body: { text: "for clay", amountMinor: 500, currency: "EUR" } }));
    log.add(line(1, { kind: "command", viewer: null, body: { by: "keeper" } }));
    log.add(line(2, { kind: "odd", viewer: null, body: { notes: "none" } }));
    log.add(line(2, { kind: "raid", viewer: { id: "c", name: "constructor" }, body: { viewers: 40, notes: hits } }));
    log.add(line(9_999, { kind: "message", viewer: null, text: "after" }));
    for (const bad of ["", "  ", "{", "null", '{"at":"never","kind":"message"}', '{"kind":"message"}']) log.add(bad);
    expect([log.lines.length, log.messages, log.people, log.bad]).toEqual([6, 3, 3, 4]);
    expect(log.lines[1]?.text).toHaveLength(500);
    expect(log.lines.map((l) => l.name)).toEqual(["ada", "__proto__", "ada", "keeper", "constructor", ""]);
    expect(log.lines.map((l) => l.text).slice(2)).toEqual(["tip by ada", "command by keeper", "raid by constructor", "after"]);
    expect(log.marks.map((m) => m.label)).toEqual(["ada tipped 5.00 EUR", "Raid · constructor brought 40"]);
    expect([log.curve.chat.reduce((a, b) => a + b, 0), log.curve.rest[6], log.curve.chat.length]).toEqual([2, 2, 720]);
  });
  test("what is too long is cut between two characters, never within one", () => {
    const log = new OutsideLog(manifest, () => "");
    const line = (kind: string, part: object): string => JSON.stringify({ at: manifest.show.from, kind, ...part });
    log.add(line("message", { viewer: { name: `${"n".repeat(79)}\u{1f525}` }, text: `${"x".repeat(499)}\u{1f525}` }));
    log.add(line("follow", { viewer: { name: `${"n".repeat(499)}\u{1f525}` }, body: {} }));
    const [said] = log.lines;
    expect([said?.name.length, said?.text.length]).toEqual([79, 499]);
    expect([...log.lines.flatMap((l) => [l.name, l.text]), ...log.marks.map((m) => m.label)].some((t) => /\p{Surrogate}/u.test(t))).toBe(
      false,
    );
    const [result] = readResults([{ when: manifest.show.from, title: `${"t".repeat(299)}\u{1f525}` }]);
    expect(result?.title).toHaveLength(299);
  });
  test("moments and results that can be read; others are none", () => {
    const at = "2026-10-24T22:31:00.000Z";
    expect(
      readMoments(
        JSON.stringify([
          { at, to: at, name: "The ferry", why: "", state: "kept" },
          { at, to: at, name: "x", state: "dropped" },
        ]),
      ),
    ).toEqual([{ atMs: Date.parse(at), toMs: Date.parse(at), name: "The ferry", why: "", state: "kept" }]);
    expect([readMoments(null), readMoments("{}"), readMoments('[{"at":1}]')]).toEqual([[], [], []]);
    expect(readResults([{ when: at, game: "Wheel", title: "A spin", result: "tea" }, { when: "no" }])).toEqual([
      { atMs: Date.parse(at), game: "Wheel", title: "A spin", result: "tea" },
    ]);
  });
});
