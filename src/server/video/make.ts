import { mkdtemp, readFile, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { fitted, leastVideoMs, mostVideoMs, stretchOf, type VideoFacts, type VideoSettings } from "../../core/props/video";
import { sha256 } from "../hash";
import { check } from "./check";
import { listen, look, silence } from "./look";
import { probe } from "./probe";
import { runProgram } from "./run";
import { input, patience, type VideoUse, type Work } from "./work";

export type MadeFile = Readonly<{ sha: string; mime: string; bytes: Buffer }>;
export type MadeVideo = Readonly<{ facts: VideoFacts; files: readonly MadeFile[]; sourceKind: string }>;
export const videoPropUse = (settings: VideoSettings): VideoUse => ({
  settings,
  most: { width: 1_280, height: 720 },
  mostMs: mostVideoMs,
  mostSourceMs: 600_000,
});
const mostRate = 30;

/**
 * Moving pictures with sound are made into WebM (VP9 with transparency where there is any, and Opus) at the size of the
 * stage and at one level, with a poster, a strip of stills, the sound alone, and the checks that say whether it flashes
 * (WCAG 2.3.1), is black, or is silent. Times are milliseconds. `onShare`: how
 * much of the work is done, 0 to 1.
 */
export async function makeVideo(
  source: string,
  use: VideoUse,
  onShare: (share: number) => void = () => undefined,
  signal?: AbortSignal,
): Promise<Result<MadeVideo>> {
  const told = await probe(source);
  if (!told.ok) return told;
  if (told.value.ms > use.mostSourceMs + 250) return refused("video/too-long", { mostS: Math.round(use.mostSourceMs / 1000) });
  const folder = await mkdtemp(join(tmpdir(), "izzam-video-"));
  try {
    return await made({ folder, source, use, told: told.value, onShare, ...(signal === undefined ? {} : { signal }) });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function made(work: Work): Promise<Result<MadeVideo>> {
  const { use, folder, told, onShare } = work;
  const survey = await look(work);
  if (!survey.ok) return survey;
  onShare(0.25);
  const { sourceMs, strip, still, seenThrough } = survey.value;
  const { from, to } = stretchOf(use.settings, sourceMs, use.mostMs);
  if (to - from < leastVideoMs / 2) return refused("video/too-short");
  const heard = told.hasSound && !use.settings.muted ? await listen(work, from, to) : silence;
  const path = join(folder, "made.webm");
  const alpha = told.mayBeClear && seenThrough;
  const cut = use.settings.crop;
  const size = fitted(told.width * cut.width, told.height * cut.height, use.most);
  const rate = told.rate > 0 && told.rate < mostRate ? told.rate : mostRate;
  const filters = [
    `fps=${rate.toFixed(3)}`,
    `crop=iw*${cut.width.toFixed(5)}:ih*${cut.height.toFixed(5)}:iw*${cut.x.toFixed(5)}:ih*${cut.y.toFixed(5)}`,
    `scale=${size.width}:${size.height}`,
    "setsar=1",
    `format=${alpha ? "yuva420p" : "yuv420p"}`,
  ];
  const audible = heard.most >= 0.001;
  const done = await runProgram(
    "ffmpeg",
    // prettier-ignore
    [
      ...input(work), "-ss", String(from / 1000), "-t", String((to - from) / 1000), "-map", "0:v:0", ...(audible ? ["-map", "0:a:0"] : []),
      "-map_metadata", "-1", "-map_chapters", "-1", "-sn", "-dn", "-vf", filters.join(","),
      "-c:v", "libvpx-vp9", "-deadline", "realtime", "-cpu-used", "6", "-row-mt", "1", "-threads", "2", "-crf", "33", "-b:v", "2M", "-g", "60",
      ...(alpha ? ["-auto-alt-ref", "0"] : []),
      ...(audible ? ["-af", `volume=${heard.gainDb}dB,alimiter=limit=0.89:level=false,aresample=48000`, "-ac", "2", "-c:a", "libopus", "-b:a", "112k"] : []),
      "-f", "webm", "-fs", "80000000", path,
    ],
    { ...patience(work, to - from, 12), onProgress: (ms) => onShare(0.3 + 0.5 * Math.min(1, ms / Math.max(1, to - from))) },
  );
  if (done.late) return refused("file/too-heavy");
  if (done.code !== 0) return refused("video/broken");
  onShare(0.82);
  const checked = await check(path, alpha, size, rate, work);
  if (!checked.ok) return checked;
  onShare(0.94);
  const sound = audible ? await soundOf(path, folder, work) : null;
  const webm = await readFile(path);
  const files: MadeFile[] = [];
  const keep = (mime: string, bytes: Buffer): string => {
    const sha = sha256(bytes);
    files.push({ sha, mime, bytes });
    return `/props/${sha}`;
  };
  const { ms, flashes, flashesAtMs, flashing, black, poster } = checked.value;
  const facts: VideoFacts = {
    ms,
    sourceMs,
    ...size,
    sourceWidth: told.width,
    sourceHeight: told.height,
    rate: Math.round(rate * 100) / 100,
    alpha,
    audible: sound !== null,
    black,
    lufs: heard.lufs,
    gainDb: heard.gainDb,
    peaks: heard.peaks,
    flashes,
    flashesAtMs,
    flashing,
    url: keep("video/webm", webm),
    poster: keep("image/webp", poster),
    sound: sound === null ? "" : keep("audio/ogg", sound),
    strip: { ...strip.cells, url: keep("image/webp", strip.webp) },
    still: keep("image/webp", still),
  };
  onShare(1);
  return ok({ facts, files, sourceKind: told.container });
}

async function soundOf(path: string, folder: string, work: Work): Promise<Buffer | null> {
  const ogg = join(folder, "sound.ogg");
  const ran = await runProgram(
    "ffmpeg",
    ["-i", path, "-vn", "-c:a", "libvorbis", "-q:a", "5", "-f", "ogg", ogg],
    patience(work, work.use.mostMs, 1),
  );
  return ran.code === 0 ? readFile(ogg) : null;
}
