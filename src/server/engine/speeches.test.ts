import { describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { offered, timbres } from "../../core/speech/catalogue";
import type { Voice } from "../../core/speech/voice";
import { type Programs, programs, speaker } from "../adapters/speech/programs";
import { inProcessDecoder } from "../testing/decoder";
import { emojiName } from "../speech/emoji-names";
import { Speeches } from "./speeches";

const voice = (part: Partial<Voice> = {}): Voice => ({
  id: "v",
  name: "V",
  engine: "espeak",
  mark: "en",
  timbre: "",
  pitch: 50,
  pace: 160,
  level: 90,
  ...part,
});
const both = (run: (voice: Voice, files: Readonly<{ sound: string }>) => readonly [string, ...string[]]): Programs => ({
  espeak: run,
  flite: run,
});
/** The loudest sample of a WAV or OGG, 0 to 1. */
function loudest(bytes: Buffer): number {
  const raw = execFileSync("ffmpeg", ["-hide_banner", "-loglevel", "error", "-i", "pipe:0", "-f", "s16le", "-ac", "1", "pipe:1"], {
    input: bytes,
    maxBuffer: 1e8,
  });
  const samples = new Int16Array(raw.buffer, raw.byteOffset, Math.floor(raw.length / 2));
  return samples.reduce((most, s) => Math.max(most, Math.abs(s)), 0) / 32_768;
}

describe("the engines from Debian", () => {
  test("every voice that is offered speaks", async () => {
    for (const { engine, mark } of offered) {
      const made = await speaker().speak("good evening from the kiln", voice({ engine, mark }));
      expect([mark, made.ok]).toEqual([mark, true]);
      if (made.ok) expect([mark, loudest(made.value) > 0.02]).toEqual([mark, true]);
    }
  }, 60_000);
  test("every timbre is another sound; pitch and pace are heard", async () => {
    const of = async (part: Partial<Voice>): Promise<string> => {
      const made = await speaker().speak("good evening", voice(part));
      return made.ok ? made.value.toString("base64") : "";
    };
    const all = await Promise.all(timbres.map((timbre) => of({ timbre })));
    expect(new Set(all).size).toBe(timbres.length);
    expect(new Set(await Promise.all([of({}), of({ pitch: 90 }), of({ pace: 250 })])).size).toBe(3);
    const slow = await of({ engine: "flite", mark: "slt", pace: 90 });
    expect(slow.length).toBeGreaterThan((await of({ engine: "flite", mark: "slt", pace: 250 })).length * 1.5);
  }, 60_000);
  test.each([
    "--help",
    "-f /etc/passwd",
    "$(touch /tmp/izzam-was-here)",
    "`id`; rm -rf ~",
    "<speak><audio src='http://127.0.0.1/x'/></speak>",
    "a\u0000b",
    "\u202e\u200b",
    "ab".repeat(250),
    "日本語 русский العربية",
  ])("%j is text, whatever it looks like", async (text) => {
    for (const engine of ["espeak", "flite"] as const) {
      const made = await speaker().speak(text, voice({ engine, mark: engine === "flite" ? "rms" : "en" }));
      expect(made.ok || made.refusal.code === "speech/failed").toBe(true);
    }
  });
  test("one that hangs is ended; one that is not there, dies, or never stops talking is refused", async () => {
    const from = performance.now();
    const hung = await speaker(
      both(() => ["sh", "-c", "sleep 60 & sleep 60"]),
      300,
    ).speak("hi", voice());
    expect(hung).toMatchObject({ ok: false, refusal: { code: "speech/late" } });
    expect(performance.now() - from).toBeLessThan(3_000);
    const missing = await speaker(both(() => ["no-such-voice-engine"])).speak("hi", voice());
    expect(missing).toMatchObject({ ok: false, refusal: { code: "speech/none" } });
    const dead = await speaker(both(() => ["sh", "-c", "kill -9 $$"])).speak("hi", voice());
    expect(dead).toMatchObject({ ok: false, refusal: { code: "speech/failed" } });
    const endless = await speaker(both((_, { sound }) => ["sh", "-c", `yes > ${sound}`])).speak("hi", voice());
    expect(endless).toMatchObject({ ok: false, refusal: { code: "speech/failed" } });
  });
});

describe("texts as sound", () => {
  test("made once for all who want it, at one level, and kept by text and voice", async () => {
    let spoken = 0;
    const real = speaker(programs);
    const speeches = new Speeches({ speak: (text, v) => ((spoken += 1), real.speak(text, v)) }, inProcessDecoder);
    const all = await Promise.all(Array.from({ length: 20 }, () => speeches.of("the vase is whole", voice())));
    expect([spoken, new Set(all.map((s) => s?.url)).size]).toEqual([1, 1]);
    const { url, ms } = all[0]!;
    expect(ms).toBeGreaterThan(500);
    const sound = speeches.sound(url.slice("/speech/".length))!;
    expect(sound.mime).toBe("audio/ogg");
    expect(loudest(sound.bytes)).toBeGreaterThan(0.05);
    await speeches.of("the vase is whole", voice({ level: 40 }));
    expect(spoken).toBe(1);
    await speeches.of("the vase is whole", voice({ pitch: 80 }));
    expect(spoken).toBe(2);
  }, 20_000);
  test("what can't be made is none, counted, and asked for again the next time", async () => {
    const speeches = new Speeches(speaker(both(() => ["no-such-voice-engine"])), inProcessDecoder);
    expect([await speeches.of("hi", voice()), await speeches.of("hi", voice())]).toEqual([null, null]);
    expect(speeches.unspoken).toEqual({ count: 2, why: "speech/none" });
  });
  test("silence is no speech, and a thousand at once are not all taken", async () => {
    const silence = Buffer.concat([
      Buffer.from("524946462408000057415645666d74201000000001000100401f0000803e00000200100064617461", "hex"),
      Buffer.from([0, 8, 0, 0]),
      Buffer.alloc(2_048),
    ]);
    const mute = new Speeches({ speak: async () => ({ ok: true, value: silence }) }, inProcessDecoder);
    expect(await mute.of("hi", voice())).toBeNull();
    const none = new Speeches({ speak: async () => ({ ok: false, refusal: { code: "speech/failed", facts: {} } }) }, inProcessDecoder);
    const all = await Promise.all(Array.from({ length: 1_000 }, (_, i) => none.of(`text ${i}`, voice())));
    expect(all.every((s) => s === null)).toBe(true);
    expect(none.unspoken.count).toBeLessThan(100);
  });
});

describe("what emoji are called", () => {
  test.each([
    ["🔥", "fire"],
    ["🫖", "teapot"],
    ["👍🏽", "thumbs up"],
    ["❤", "red heart"],
    ["❤️", "red heart"],
    ["__proto__", null],
    ["constructor", null],
  ])("%s is %s", (emoji, name) => expect(emojiName(emoji)).toBe(name));
});
