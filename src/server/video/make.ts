import { mkdtemp, readFile, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { FlashWatch } from "../../core/pictures/flash-watch";
import { gainFor } from "../../core/props/settings";
import {
  fitted,
  type Flashes,
  leastVideoMs,
  mostVideoMs,
  posterOf,
  stretchOf,
  type VideoFacts,
  type VideoSettings,
} from "../../core/props/video";
import { compose, sha256 } from "../pictures/sheet";
import { integrated, peakRate, peaksOf } from "../sounds/sound";
import { probe, type Probed } from "./probe";
import { containers, runProgram } from "./run";

/**
 * Moving pictures with sound are made into WebM (VP9 with transparency where there is any, and Opus) at the size of the
 * stage and at one level, with a poster, a strip of stills, the sound alone, and the checks that say whether it flashes
 * (WCAG 2.3.1), is black, or is silent. Times are milliseconds.
 */
export type VideoUse = Readonly<{
  settings: VideoSettings;
  /** The stage's size, pixels. */
  most: Readonly<{ width: number; height: number }>;
  mostMs: number;
  /** Longest source; one that is longer is refused, not cut. */
  mostSourceMs: number;
  /** Of a long source just this stretch is opened, milliseconds; what else is in it nobody looks at. */
  only?: Readonly<{ fromMs: number; ms: number }>;
}>;
export type MadeFile = Readonly<{ sha: string; mime: string; bytes: Buffer }>;
export type MadeVideo = Readonly<{ facts: VideoFacts; files: readonly MadeFile[]; sourceKind: string }>;
export const videoPropUse = (settings: VideoSettings): VideoUse => ({
  settings,
  most: { width: 1_280, height: 720 },
  mostMs: mostVideoMs,
  mostSourceMs: 600_000,
});
const mostRate = 30;
const stripHeight = 90;
const mostStills = 24;
const stillSide = 640;
const lookWidth = 64;
const lookHeight = 36;

type Size = Readonly<{ width: number; height: number }>;
type Work = Readonly<{
  folder: string;
  source: string;
  use: VideoUse;
  told: Probed;
  signal?: AbortSignal;
  onShare: (share: number) => void;
}>;

/** `onShare`: how much of the work is done, 0 to 1. */
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
  const { ms, flashes, flashesAtMs, black, poster } = checked.value;
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
    url: keep("video/webm", webm),
    poster: keep("image/webp", poster),
    sound: sound === null ? "" : keep("audio/ogg", sound),
    strip: { ...strip.cells, url: keep("image/webp", strip.webp) },
    still: keep("image/webp", still),
  };
  onShare(1);
  return ok({ facts, files, sourceKind: told.container });
}

const input = ({ told, source, use }: Work): string[] => [
  "-format_whitelist",
  containers,
  "-max_pixels",
  String(4_096 * 4_096),
  ...(told.decoder === null ? [] : ["-c:v", told.decoder]),
  "-threads",
  "2",
  ...opened(source, use),
];
const opened = (source: string, { only }: VideoUse): string[] => [
  ...(only === undefined ? [] : ["-ss", String(only.fromMs / 1000), "-t", String(only.ms / 1000)]),
  "-i",
  source,
];
/** So many times as long as the stretch lasts, and a little more: what takes longer is not worth waiting for. */
const patience = ({ signal }: Work, ms: number, times: number) => ({
  timeoutMs: Math.round(20_000 + ms * times),
  ...(signal === undefined ? {} : { signal }),
});

type Survey = Readonly<{
  sourceMs: number;
  seenThrough: boolean;
  still: Buffer;
  strip: Readonly<{ webp: Buffer; cells: Readonly<{ frames: number; columns: number; width: number; height: number }> }>;
}>;
/** Goes through the whole source once, small: how long it really is, whether one sees through it, and its stills. */
async function look(work: Work): Promise<Result<Survey>> {
  const { told, use } = work;
  const width = Math.max(2, Math.min(320, Math.round((told.width / told.height) * stripHeight)));
  const cell = width * stripHeight * 4;
  const likelyMs = use.only?.ms ?? (told.ms > 0 ? Math.min(told.ms, use.mostSourceMs) : use.mostSourceMs);
  // Twice as many as are kept, so that they are evenly apart even where the container is wrong about the length.
  const every = Math.max(100, likelyMs / (mostStills * 2));
  const frames: Buffer[] = [];
  let rest: Buffer = Buffer.alloc(0);
  let sourceMs = 0;
  const ran = await runProgram(
    "ffmpeg",
    // prettier-ignore
    [
      ...input(work), "-t", String(use.mostSourceMs / 1000 + 1), "-map", "0:v:0", "-an", "-sn", "-dn", "-vf",
      `fps=${(1000 / every).toFixed(5)}:round=up:start_time=0,scale=${width}:${stripHeight},format=rgba`, "-f", "rawvideo", "-",
    ],
    {
      ...patience(work, likelyMs, 4),
      onProgress: (ms) => {
        sourceMs = Math.max(sourceMs, ms);
        work.onShare(0.25 * Math.min(1, ms / likelyMs));
      },
      onOut: (part) => {
        rest = rest.length === 0 ? part : Buffer.concat([rest, part]);
        while (rest.length >= cell) {
          if (frames.length < 400) frames.push(Buffer.from(rest.subarray(0, cell)));
          rest = rest.subarray(cell);
        }
      },
    },
  );
  if (ran.late) return refused("file/too-heavy");
  const [first] = frames;
  if (first === undefined && use.only !== undefined && told.ms > 0 && told.ms <= use.only.fromMs)
    return refused("video/ends-before", { atS: Math.floor(told.ms / 1000) });
  if (first === undefined) return refused(ran.code === 0 ? "video/no-picture" : "video/broken");
  const measured = await lengthOf(work, likelyMs);
  if (measured === null) return refused("file/too-heavy");
  sourceMs = measured > 0 ? measured : Math.round(sourceMs);
  if (sourceMs > use.mostSourceMs + 500) return refused("video/too-long", { mostS: Math.round(use.mostSourceMs / 1000) });
  if (sourceMs < leastVideoMs / 2) return refused("video/too-short");
  const kept =
    frames.length <= mostStills
      ? frames
      : Array.from({ length: mostStills }, (_, i) => frames[Math.floor((i * frames.length) / mostStills)] ?? first);
  const { webp, columns } = await compose(kept, width, stripHeight);
  const seenThrough = told.mayBeClear && frames.some((f) => f.some((value, i) => i % 4 === 3 && value < 250));
  const still = await stillOf(work, Math.min(sourceMs - 1, sourceMs * 0.25));
  if (still === null) return refused("video/broken");
  return ok({ sourceMs, seenThrough, still, strip: { webp, cells: { frames: kept.length, columns, width, height: stripHeight } } });
}

/** How long it really is: where its last frame ends. Only what can be decoded counts; null: it took too long. */
async function lengthOf(work: Work, likelyMs: number): Promise<number | null> {
  let ms = 0;
  // Copied, not decoded: quick, and past the end of a cut-off file there is nothing to copy.
  const ran = await runProgram(
    "ffmpeg",
    // prettier-ignore
    ["-format_whitelist", containers, ...opened(work.source, work.use), "-t", String(work.use.mostSourceMs / 1000 + 1), "-map", "0:v:0", "-c", "copy", "-f", "null", "-"],
    { ...patience(work, likelyMs, 1), onProgress: (at) => (ms = Math.max(ms, at)) },
  );
  // It tells where its last frame begins.
  const frameMs = ms > 0 && work.told.rate > 0 ? 1000 / work.told.rate : 0;
  return ran.late ? null : Math.round(ms + frameMs);
}

async function stillOf(work: Work, atMs: number): Promise<Buffer | null> {
  const side = fitted(work.told.width, work.told.height, { width: stillSide, height: stillSide });
  const base = work.use.only?.fromMs ?? 0;
  const take = (fromMs: number) =>
    runProgram(
      "ffmpeg",
      // prettier-ignore
      [...input({ ...work, use: { ...work.use, only: { fromMs: base + fromMs, ms: 5_000 } } }), "-frames:v", "1", "-an", "-vf", `scale=${side.width}:${side.height},format=rgba`, "-f", "rawvideo", "-"],
      { ...patience(work, 0, 0) },
    );
  const size = side.width * side.height * 4;
  for (const at of [atMs, 0]) {
    const { out } = await take(at);
    if (out.length >= size)
      return sharp(out.subarray(0, size), { raw: { ...side, channels: 4 } })
        .webp({ quality: 86 })
        .toBuffer();
  }
  return null;
}

type Heard = Readonly<{ lufs: number | null; gainDb: number; peaks: number[]; most: number }>;
const silence: Heard = { lufs: null, gainDb: 0, peaks: [], most: 0 };
/** How loud the stretch is, by EBU R128, and its waveform. A track that can't be read is as none. */
async function listen(work: Work, from: number, to: number): Promise<Heard> {
  const cut = ["-ss", String(from / 1000), "-t", String((to - from) / 1000), "-map", "0:a:0", "-vn"];
  const ran = await runProgram(
    "ffmpeg",
    // prettier-ignore
    [
      "-format_whitelist", containers, ...opened(work.source, work.use), ...cut, "-af", "ebur128=peak=sample", "-ac", "1", "-ar", String(peakRate), "-f", "s16le", "-",
    ],
    patience(work, to, 1),
  );
  if (ran.out.length < 2) return silence;
  const { peaks, most } = peaksOf(new Int16Array(ran.out.buffer, ran.out.byteOffset, Math.floor(ran.out.length / 2)));
  const lufs = integrated(ran.said);
  return { lufs, gainDb: most < 0.001 ? 0 : gainFor(lufs, 20 * Math.log10(most)), peaks, most };
}

type Checked = Readonly<{ ms: number; flashes: Flashes; flashesAtMs: number; black: boolean; poster: Buffer }>;
/** Looks at what was made, frame by frame: it is what is shown. */
async function check(path: string, alpha: boolean, size: Size, rate: number, work: Work): Promise<Result<Checked>> {
  const decoder = alpha ? ["-c:v", "libvpx-vp9"] : [];
  const cell = lookWidth * lookHeight * 4;
  const watch = new FlashWatch(lookWidth, lookHeight);
  let frames = 0;
  let firstSeen = -1;
  let brightest = 0;
  let flashes: Flashes = "none";
  let flashesAtMs = 0;
  let rest: Buffer = Buffer.alloc(0);
  const take = (frame: Buffer): void => {
    const atMs = (frames * 1000) / rate;
    const found = watch.take(frame, atMs);
    if (found !== null && flashes === "none") {
      flashes = found;
      flashesAtMs = Math.max(0, Math.round(atMs - 1_000));
    }
    const light = meanLight(frame);
    brightest = Math.max(brightest, light);
    if (firstSeen < 0 && light > 0.03) firstSeen = frames;
    frames += 1;
  };
  const ran = await runProgram(
    "ffmpeg",
    // prettier-ignore
    [...decoder, "-i", path, "-an", "-vf", `scale=${lookWidth}:${lookHeight}:flags=area,format=rgba`, "-vsync", "passthrough", "-f", "rawvideo", "-"],
    {
      ...patience(work, work.use.mostMs, 1),
      onOut: (part) => {
        rest = rest.length === 0 ? part : Buffer.concat([rest, part]);
        while (rest.length >= cell) {
          take(rest.subarray(0, cell));
          rest = rest.subarray(cell);
        }
      },
    },
  );
  if (ran.late) return refused("file/too-heavy");
  if (ran.code !== 0 || frames === 0) return refused("video/broken");
  const ms = Math.round((frames * 1000) / rate);
  const poster = await drawnPoster(path, decoder, size, Math.max(0, firstSeen) / rate, work);
  return poster === null ? refused("video/broken") : ok({ ms, flashes, flashesAtMs, black: brightest <= 0.02, poster });
}

/** Mean of red, green and blue over what is not clear, 0 to 1. */
function meanLight(rgba: Buffer): number {
  let sum = 0;
  let seen = 0;
  for (let i = 0; i < rgba.length; i += 4) {
    const alpha = (rgba[i + 3] ?? 0) / 255;
    sum += (((rgba[i] ?? 0) + (rgba[i + 1] ?? 0) + (rgba[i + 2] ?? 0)) / 765) * alpha;
    seen += alpha;
  }
  return seen < 1 ? 0 : sum / seen;
}

async function drawnPoster(path: string, decoder: readonly string[], size: Size, atS: number, work: Work): Promise<Buffer | null> {
  const { width, height } = posterOf(size);
  const ran = await runProgram(
    "ffmpeg",
    // prettier-ignore
    [...decoder, "-i", path, "-ss", String(atS), "-frames:v", "1", "-an", "-vf", `scale=${width}:${height}`, "-f", "image2pipe", "-c:v", "png", "-pix_fmt", "rgba", "-"],
    patience(work, 20_000, 1),
  );
  return ran.out.length === 0 ? null : sharp(ran.out).webp({ quality: 86 }).toBuffer();
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
