import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { videoDefaults, type VideoSettings } from "../../core/props/video";
import { film, films } from "../testing/films";
import { makeVideo, type MadeVideo, videoPropUse } from "./make";
import { probe } from "./probe";

let folder: string;
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), "izzam-test-"))));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let files = 0;
const put = (bytes: Buffer): string => {
  const path = join(folder, `f${(files += 1)}`);
  writeFileSync(path, bytes);
  return path;
};
const settings = (part: Partial<VideoSettings> = {}): VideoSettings => ({ ...videoDefaults, ...part });
const take = async (bytes: Buffer, part: Partial<VideoSettings> = {}): Promise<MadeVideo> => {
  const done = await makeVideo(put(bytes), videoPropUse(settings(part)));
  if (!done.ok) throw new Error(done.refusal.code);
  return done.value;
};
const refusalOf = async (bytes: Buffer): Promise<string> => {
  const done = await makeVideo(put(bytes), videoPropUse(settings()));
  return done.ok ? "taken" : done.refusal.code;
};
const fileOf = (made: MadeVideo, url: string): Buffer => made.files.find((f) => url.endsWith(f.sha))?.bytes ?? Buffer.alloc(0);

describe("what becomes of a moving picture", () => {
  test("WebM at one level, with its poster, its stills, its sound alone, and how far it is", async () => {
    const shares: number[] = [];
    const done = await makeVideo(put(film(films.plain(3))), videoPropUse(settings()), (share) => shares.push(share));
    if (!done.ok) throw new Error(done.refusal.code);
    const { facts, sourceKind } = done.value;
    expect([sourceKind, facts.width, facts.height, facts.alpha, facts.audible, facts.black, facts.flashes]).toEqual([
      "mov",
      320,
      180,
      false,
      true,
      false,
      "none",
    ]);
    expect(Math.abs(facts.ms - 3_000)).toBeLessThan(120);
    expect(Math.abs(facts.sourceMs - 3_000)).toBeLessThan(120);
    // Even loudness: what is made is 18 LUFS below full scale, whatever came.
    expect(Math.abs((facts.lufs ?? 0) + facts.gainDb + 18)).toBeLessThan(0.6);
    const webm = fileOf(done.value, facts.url);
    expect(webm.subarray(0, 4).toString("hex")).toBe("1a45dfa3");
    const again = await probe(put(webm));
    expect(again).toMatchObject({ ok: true, value: { width: 320, height: 180, hasSound: true } });
    expect(await sharp(fileOf(done.value, facts.poster)).metadata()).toMatchObject({ format: "webp", width: 320 });
    expect(facts.strip.frames).toBeGreaterThanOrEqual(15);
    expect(fileOf(done.value, facts.sound).subarray(0, 4).toString()).toBe("OggS");
    expect(shares.at(-1)).toBe(1);
    expect(shares.every((s, i) => s >= (shares[i - 1] ?? 0) - 0.001)).toBe(true);
  }, 60_000);

  test("cut in time and in space, muted", async () => {
    const made = await take(film(films.plain(3)), {
      startMs: 1_000,
      endMs: 2_000,
      crop: { x: 0.5, y: 0, width: 0.25, height: 0.5 },
      muted: true,
    });
    expect([made.facts.width, made.facts.height, made.facts.audible, made.facts.sound]).toEqual([80, 90, false, ""]);
    expect(Math.abs(made.facts.ms - 1_000)).toBeLessThan(80);
    expect(Math.abs(made.facts.sourceMs - 3_000)).toBeLessThan(120);
  }, 60_000);

  test.each(["seeThrough", "clearWebm"] as const)(
    "one sees through what was seen through (%s)",
    async (name) => {
      const made = await take(film(films[name]()));
      expect(made.facts.alpha).toBe(true);
      const { data, info } = await sharp(fileOf(made, made.facts.poster)).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      const alphaAt = (x: number): number => data[(60 * info.width + x) * 4 + 3] ?? -1;
      expect([alphaAt(20) > 240, alphaAt(140) < 15]).toEqual([true, true]);
    },
    60_000,
  );

  test("a GIF that moves, a thousand frames a second, no sound at all", async () => {
    const [gif, fast] = [await take(film(films.gif(1))), await take(film(films.fast(1)))];
    expect([gif.facts.audible, gif.facts.rate, fast.facts.rate]).toEqual([false, 10, 30]);
    expect(Math.abs(fast.facts.ms - 1_000)).toBeLessThan(100);
  }, 60_000);

  test("what flashes, is black or says nothing is told", async () => {
    const strobing = await take(film(films.strobing(3)));
    expect(strobing.facts.flashes).toBe("general");
    expect(strobing.facts.flashesAtMs).toBeLessThan(500);
    const [[fromMs, toMs] = [-1, -1], ...more] = strobing.facts.flashing;
    expect([more, fromMs < 500, toMs > strobing.facts.ms - 600]).toEqual([[], true, true]);
    expect((await take(film(films.strobing(3, 1)))).facts.flashes).toBe("none");
    const black = await take(film(films.black()));
    expect([black.facts.black, black.facts.audible]).toEqual([true, true]);
    expect((await take(film(films.silent()))).facts.audible).toBe(false);
  }, 60_000);
});

describe("what is refused, in words", () => {
  const text = (said: string): Buffer => Buffer.from(said);
  test.each<[string, () => Buffer, string]>([
    ["nothing", () => Buffer.alloc(0), "video/broken"],
    ["a page", () => text("<!doctype html><p>no film here"), "video/broken"],
    ["a playlist", () => text("#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXTINF:10,\nhttp://127.0.0.1:1/a.ts\n"), "video/broken"],
    ["a list of files of this computer", () => text("ffconcat version 1.0\nfile /etc/passwd\n"), "video/broken"],
    ["one that was cut off before it begins", () => film(films.plain(3)).subarray(0, 9_000), "video/broken"],
    ["sound alone", () => film(films.soundOnly()), "video/no-picture"],
    ["8K", () => film(films.wide()), "video/too-many-pixels"],
    ["longer than may be", () => film(films.long()), "video/too-long"],
    ["forty tracks", () => film(films.manyTracks()), "video/too-many-tracks"],
  ])("%s", async (_, made, code) => expect(await refusalOf(made())).toBe(code), 60_000);

  test("a container that says an hour and holds three seconds: what is there counts", async () => {
    const bytes = Buffer.from(film(films.plain(3)));
    // The movie header's duration, in its own units, an hour of them.
    const at = bytes.indexOf("mvhd");
    bytes.writeUInt32BE(500_000, at + 20);
    const done = await makeVideo(put(bytes), videoPropUse(settings()));
    expect(done.ok && Math.abs(done.value.facts.sourceMs - 3_000) < 120).toBe(true);
  }, 60_000);

  test("nobody wants it any more: it ends at once", async () => {
    const stop = new AbortController();
    setTimeout(() => stop.abort(), 300);
    const from = Date.now();
    expect((await makeVideo(put(film(films.plain(20))), videoPropUse(settings()), undefined, stop.signal)).ok).toBe(false);
    expect(Date.now() - from).toBeLessThan(8_000);
  }, 60_000);
});
