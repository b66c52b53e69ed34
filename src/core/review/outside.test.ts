import { describe, expect, test } from "@jest/globals";
import type { ShowManifest } from "./bundle";
import { OutsideLog, readManifest, readMoments, readResults } from "./outside";

const manifest: ShowManifest = {
  format: "izzam-show-1",
  madeBy: "Izzam",
  channel: "Saltmarsh Kiln",
  show: { name: "Friday", from: "2026-10-24T22:30:00.000Z", to: "2026-10-25T00:30:00.000Z", recordingOffsetMs: 0 },
  points: "clay",
  currency: "EUR",
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
    const log = new OutsideLog(manifest);
    const line = (min: number, part: object): string =>
      JSON.stringify({ at: new Date(Date.parse(manifest.show.from) + min * 60_000).toISOString(), seq: 1, source: "x", ...part });
    log.add(line(0, { kind: "message", viewer: { id: "a", name: "ada" }, text: "hello" }));
    log.add(line(0, { kind: "message", viewer: { id: "p", name: "__proto__" }, text: "x".repeat(900) }));
    log.add(line(1, { kind: "tip", viewer: { id: "a", name: "ada" }, body: { text: "for clay", amountMinor: 5 } }));
    log.add(line(1, { kind: "command", viewer: null, body: { by: "keeper" } }));
    log.add(line(9_999, { kind: "message", viewer: null, text: "after" }));
    for (const bad of ["", "  ", "{", "null", '{"at":"never","kind":"message"}', '{"kind":"message"}']) log.add(bad);
    expect([log.lines.length, log.messages, log.people, log.bad]).toEqual([5, 3, 3, 4]);
    expect(log.lines[1]?.text).toHaveLength(500);
    expect(log.lines.map((l) => l.name)).toEqual(["ada", "__proto__", "ada", "keeper", ""]);
    expect([log.curve.chat.reduce((a, b) => a + b, 0), log.curve.rest[6], log.curve.chat.length]).toEqual([2, 2, 720]);
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
