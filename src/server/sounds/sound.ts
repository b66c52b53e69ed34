import { mostPropBytes } from "../../core/props/sizes";
import { spawn } from "node:child_process";
import { mkdtemp, readFile, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileTypeFromBuffer } from "file-type";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { beatOf } from "../../core/props/beat";
import { gainFor, type SoundFacts, type SoundSettings } from "../../core/props/settings";

/**
 * Sounds are measured, trimmed and brought to one level by FFmpeg (its `ebur128` filter is EBU R128). It
 * reads files only, never addresses, and is stopped when it takes too long.
 */
export const mostSoundMs = 120_000;
const peaksWanted = 240;
export const peakRate = 8_000;

export type MadeSound = Readonly<{ ogg: Buffer; facts: SoundFacts; kind: "wav" | "ogg" | "mp3" }>;

function ffmpeg(args: readonly string[], timeoutMs = 30_000): Promise<{ code: number; said: string; out: Buffer }> {
  return new Promise((resolve, reject) => {
    const child = spawn("ffmpeg", ["-hide_banner", "-nostdin", "-protocol_whitelist", "file,pipe", "-threads", "1", ...args], {
      stdio: ["ignore", "pipe", "pipe"],
      timeout: timeoutMs,
      killSignal: "SIGKILL",
    });
    const out: Buffer[] = [];
    let size = 0;
    let said = "";
    child.stdout.on("data", (part: Buffer) => {
      size += part.length;
      if (size < 40 * 1024 * 1024) out.push(part);
    });
    child.stderr.on("data", (part: Buffer) => (said = (said + part.toString("utf8")).slice(-60_000)));
    child.on("error", reject);
    child.on("close", (code) => resolve({ code: code ?? 1, said, out: Buffer.concat(out) }));
  });
}

async function kindOf(bytes: Buffer): Promise<MadeSound["kind"] | null> {
  switch ((await fileTypeFromBuffer(bytes))?.mime) {
    case "audio/wav":
      return "wav";
    case "audio/ogg":
    case "audio/ogg; codecs=opus":
      return "ogg";
    case "audio/mpeg":
      return "mp3";
    default:
      return null;
  }
}

/** Refused: empty, too large, not one of the three kinds, broken, too long, nothing to hear. */
export async function toSound(bytes: Buffer, settings: SoundSettings): Promise<Result<MadeSound>> {
  if (bytes.length === 0) return refused("sound/empty");
  if (bytes.length > mostPropBytes) return refused("sound/too-large");
  const kind = await kindOf(bytes);
  if (kind === null) return refused("sound/unknown-kind");
  const folder = await mkdtemp(join(tmpdir(), "izzam-sound-"));
  try {
    const source = join(folder, `source.${kind}`);
    await writeFile(source, bytes, { mode: 0o600 });
    // Mono samples for the waveform and the length; a little over the limit is enough to know that it is too long.
    const heard = await ffmpeg([
      "-i",
      source,
      "-map",
      "0:a:0",
      "-t",
      String(mostSoundMs / 1000 + 1),
      "-ac",
      "1",
      "-ar",
      String(peakRate),
      "-f",
      "s16le",
      "-",
    ]);
    if (heard.code !== 0 || heard.out.length < 2) return refused("sound/broken");
    const samples = new Int16Array(heard.out.buffer, heard.out.byteOffset, Math.floor(heard.out.length / 2));
    const sourceMs = Math.round((samples.length / peakRate) * 1000);
    if (sourceMs > mostSoundMs) return refused("sound/too-long", { mostS: mostSoundMs / 1000 });
    const { peaks, most } = peaksOf(samples);
    if (most < 0.001) return refused("sound/silent");
    const endMs = settings.endMs === 0 ? sourceMs : Math.min(sourceMs, settings.endMs);
    const startMs = Math.min(settings.startMs, Math.max(0, endMs - 50));
    const heardPart = samples.subarray(Math.floor((startMs / 1000) * peakRate), Math.ceil((endMs / 1000) * peakRate));
    const beat = beatOf(envelopeOf(heardPart), envelopeStepMs);
    const cut = ["-ss", String(startMs / 1000), "-to", String(endMs / 1000)];
    const measured = await ffmpeg([...cut, "-i", source, "-map", "0:a:0", "-af", "ebur128=peak=sample", "-f", "null", "-"]);
    const lufs = integrated(measured.said);
    const gainDb = gainFor(lufs, 20 * Math.log10(most));
    const made = join(folder, "made.ogg");
    const done = await ffmpeg([
      ...cut,
      "-i",
      source,
      "-map",
      "0:a:0",
      "-map_metadata",
      "-1",
      "-af",
      // The limiter keeps a quiet recording with one loud click from clipping when it is raised.
      `volume=${gainDb}dB,alimiter=limit=0.89:level=false,aresample=48000`,
      "-ac",
      "2",
      "-c:a",
      "libvorbis",
      "-q:a",
      "5",
      "-f",
      "ogg",
      made,
    ]);
    if (done.code !== 0) return refused("sound/broken");
    return ok({ ogg: await readFile(made), kind, facts: { ms: endMs - startMs, sourceMs, lufs, gainDb, peaks, beat } });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Integrated loudness from the filter's summary; −70 is its word for "too quiet to tell". */
export function integrated(said: string): number | null {
  const found = /Integrated loudness:\s*I:\s*(-?\d+(?:\.\d+)?) LUFS/.exec(said.slice(said.lastIndexOf("Summary:")))?.[1];
  const value = found === undefined ? null : Number(found);
  return value === null || value <= -69 ? null : value;
}

export function peaksOf(samples: Int16Array): { peaks: number[]; most: number } {
  const each = Math.max(1, Math.ceil(samples.length / peaksWanted));
  const peaks: number[] = [];
  let most = 0;
  for (let from = 0; from < samples.length; from += each) {
    let peak = 0;
    for (let i = from; i < Math.min(samples.length, from + each); i += 1) peak = Math.max(peak, Math.abs(samples[i] ?? 0));
    most = Math.max(most, peak / 32_768);
    peaks.push(Math.round((peak / 32_768) * 100));
  }
  return { peaks, most };
}

const envelopeStepMs = 20;
/** How loud each step is, 0 to 1: the root of its mean square. */
function envelopeOf(samples: Int16Array): number[] {
  const each = (peakRate * envelopeStepMs) / 1000;
  return Array.from({ length: Math.floor(samples.length / each) }, (_, step) => {
    let sum = 0;
    for (let i = step * each; i < (step + 1) * each; i += 1) sum += ((samples[i] ?? 0) / 32_768) ** 2;
    return Math.sqrt(sum / each);
  });
}

const words: Readonly<Record<string, string>> = {
  "sound/empty": "The file is empty.",
  "sound/too-large": "The file is larger than 12 MB. Shorten it and add it again.",
  "sound/unknown-kind": "This is not a WAV, OGG or MP3 sound, whatever its name says.",
  "sound/broken": "The sound can’t be read: the file is damaged.",
  "sound/too-long": "The sound is longer than 2 minutes. Shorten it and add it again.",
  "sound/silent": "There is nothing to hear in it.",
};
export const soundRefusalInWords = (code: string): string => words[code] ?? code;
