import { describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { soundDefaults, soundSettingsSchema } from "../../core/props/settings";
import { mostPropBytes } from "../../core/props/sizes";
import { soundRefusalInWords, toSound } from "./sound";

/** A tone as an artist's program would save it. */
const tone = (kind: "wav" | "ogg" | "mp3", seconds: number, level: number, hz = 997): Buffer =>
  execFileSync(
    "ffmpeg",
    [
      "-v",
      "error",
      "-f",
      "lavfi",
      "-i",
      `aevalsrc=${level}*sin(2*PI*${hz}*t)|${level}*sin(2*PI*${hz}*t):s=48000:d=${seconds}`,
      "-f",
      kind,
      "-",
    ],
    {
      maxBuffer: 64 * 1024 * 1024,
    },
  );
/** Ten seconds, small: the frames of an MP3 can stand one after another for as long as one likes. */
const low = execFileSync("ffmpeg", [
  "-v",
  "error",
  "-f",
  "lavfi",
  "-i",
  "aevalsrc=0.2*sin(2*PI*300*t):s=8000:d=10",
  "-b:a",
  "8k",
  "-write_xing",
  "0",
  "-id3v2_version",
  "0",
  "-f",
  "mp3",
  "-",
]);
const loudness = (ogg: Buffer): number => {
  const said = execFileSync("sh", ["-c", "ffmpeg -hide_banner -nostats -i pipe:0 -af ebur128 -f null - 2>&1"], {
    input: ogg,
    encoding: "utf8",
  });
  return Number(/I:\s*(-?[\d.]+) LUFS/.exec(said.slice(said.lastIndexOf("Summary:")))?.[1]);
};
const made = async (bytes: Buffer, settings = soundDefaults) => {
  const sound = await toSound(bytes, settings);
  if (!sound.ok) throw new Error(sound.refusal.code);
  return sound.value;
};
const codeOf = async (bytes: Buffer): Promise<string> => {
  const sound = await toSound(bytes, soundDefaults);
  return sound.ok ? "taken" : sound.refusal.code;
};

describe("sounds", () => {
  test.each(["wav", "ogg", "mp3"] as const)("%s is taken by its content, and becomes what every page can play", async (kind) => {
    const { ogg, facts, kind: found } = await made(tone(kind, 1.2, 0.3));
    expect(found).toBe(kind);
    expect(ogg.subarray(0, 4).toString()).toBe("OggS");
    expect(Math.abs(facts.sourceMs - 1_200)).toBeLessThan(90);
    expect(facts.peaks.length).toBeGreaterThan(100);
  });
  test("a loud one and a quiet one come to one level, by EBU R128", async () => {
    const [loud, quiet] = [await made(tone("wav", 3, 0.7)), await made(tone("wav", 3, 0.03))];
    // A stereo sine of 997 Hz at amplitude a has 20·log10(a) LUFS.
    expect(loud.facts.lufs).toBeCloseTo(20 * Math.log10(0.7), 0);
    expect(quiet.facts.lufs).toBeCloseTo(20 * Math.log10(0.03), 0);
    expect(Math.abs(loudness(loud.ogg) - loudness(quiet.ogg))).toBeLessThan(1);
    expect(loudness(loud.ogg)).toBeCloseTo(-18, 0);
  });
  test("is trimmed from its untouched source, its waveform still shows the whole", async () => {
    const { facts } = await made(tone("wav", 2, 0.3), { startMs: 500, endMs: 900, volume: 50 });
    expect([facts.ms, facts.sourceMs]).toEqual([400, 2_000]);
  });
  test("a trim that leaves nothing can't be set", () => {
    expect(soundSettingsSchema.safeParse({ startMs: 900, endMs: 900, volume: 50 }).success).toBe(false);
  });
  test.each<[string, () => Buffer, string]>([
    ["nothing", () => Buffer.alloc(0), "sound/empty"],
    ["text under a sound's name", () => Buffer.from("RIFF is only a word here, and not more"), "sound/unknown-kind"],
    ["a picture", () => Buffer.from("89504e470d0a1a0a0000000d49484452", "hex"), "sound/unknown-kind"],
    ["a head without a body", () => tone("wav", 1, 0.3).subarray(0, 40), "sound/broken"],
    ["silence", () => tone("wav", 1, 0), "sound/silent"],
    ["an hour of it", () => Buffer.concat(Array.from({ length: 360 }, () => low)), "sound/too-long"],
    ["too many bytes", () => Buffer.alloc(mostPropBytes + 1, 1), "sound/too-large"],
  ])("%s is refused in words", async (_, make, code) => {
    expect(await codeOf(make())).toBe(code);
    expect(soundRefusalInWords(code)).toMatch(/^[A-Z].*\.$/);
  });
});
