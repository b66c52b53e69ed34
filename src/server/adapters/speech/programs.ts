import { spawn } from "node:child_process";
import { mkdtemp, readFile, rm, stat, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ok, refused } from "../../../core/kernel/refusal";
import type { Voice } from "../../../core/speech/voice";
import type { Speaker } from "../../ports/speech";

/** Where the text lies and where the sound is to be put. */
type Files = Readonly<{ text: string; sound: string }>;
/** The two engines from Debian: which program, and how a voice is told to it. The text is a file: never a word of a command line. */
export type Programs = Readonly<Record<Voice["engine"], (voice: Voice, files: Files) => readonly [program: string, ...args: string[]]>>;
export const programs: Programs = {
  espeak: ({ mark, timbre, pitch, pace }, { text, sound }) => [
    "espeak-ng",
    "-f",
    text,
    "-w",
    sound,
    "-b",
    "1",
    "-v",
    timbre === "" ? mark : `${mark}+${timbre}`,
    "-p",
    String(Math.round(pitch * 0.99)),
    "-s",
    String(pace),
  ],
  flite: ({ mark, pitch, pace }, { text, sound }) => [
    "flite",
    "-voice",
    mark,
    "--setf",
    `duration_stretch=${(160 / pace).toFixed(2)}`,
    "--setf",
    // Around the hundred hertz and more that these speak at.
    `int_f0_target_mean=${Math.round(70 + pitch * (mark === "slt" ? 2.2 : 1.1))}`,
    "-f",
    text,
    "-o",
    sound,
  ],
};
const timeoutMs = 5_000;
/** Two minutes of 22 kHz and a little more. */
const mostBytes = 6 * 1024 * 1024;

export function speaker(run: Programs = programs, limitMs = timeoutMs): Speaker {
  return {
    speak: async (text, voice) => {
      const folder = await mkdtemp(join(tmpdir(), "izzam-speech-"));
      const files = { text: join(folder, "text"), sound: join(folder, "sound.wav") };
      try {
        await writeFile(files.text, `${text}\n`, { mode: 0o600 });
        const why = await spoken(run[voice.engine](voice, files), limitMs, files.sound);
        if (why !== null) return refused(why);
        const { size } = await stat(files.sound);
        return size > 44 && size <= mostBytes ? ok(await readFile(files.sound)) : refused("speech/failed");
      } catch {
        return refused("speech/failed");
      } finally {
        await rm(folder, { recursive: true, force: true });
      }
    },
  };
}

/** Runs an engine to its end; null when it spoke. It is ended when it takes too long, or writes without end. */
function spoken([program, ...args]: readonly [string, ...string[]], limitMs: number, sound: string): Promise<string | null> {
  return new Promise((resolve) => {
    // In a group of its own, so that what it started ends with it.
    const child = spawn(program, args, {
      stdio: "ignore",
      detached: true,
      env: { PATH: process.env["PATH"] ?? "", NODE_ENV: "production", LANG: "C.UTF-8", HOME: "/nonexistent" },
    });
    let done = false;
    const finish = (why: string | null): void => {
      if (done) return;
      done = true;
      clearTimeout(late);
      clearInterval(look);
      if (why !== null)
        try {
          if (child.pid !== undefined) process.kill(-child.pid, "SIGKILL");
        } catch {
          // It is gone already.
        }
      resolve(why);
    };
    const late = setTimeout(() => finish("speech/late"), limitMs);
    const look = setInterval(() => {
      void stat(sound).then(
        ({ size }) => size > mostBytes && finish("speech/failed"),
        () => undefined,
      );
    }, 100);
    child.on("error", () => finish("speech/none"));
    child.on("close", (code) => finish(code === 0 ? null : "speech/failed"));
  });
}
