import sharp from "sharp";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { gainFor } from "../../core/props/settings";
import { fitted, leastVideoMs } from "../../core/props/video";
import { compose } from "../pictures/sheet";
import { integrated, peakRate, peaksOf } from "../sounds/sound";
import { containers, runProgram } from "./run";
import { input, opened, patience, type Work } from "./work";

const stripHeight = 90;
const mostStills = 24;
const stillSide = 640;

type Survey = Readonly<{
  sourceMs: number;
  seenThrough: boolean;
  still: Buffer;
  strip: Readonly<{ webp: Buffer; cells: Readonly<{ frames: number; columns: number; width: number; height: number }> }>;
}>;
/** Goes through the whole source once, small: how long it really is, whether one sees through it, and its stills. */
export async function look(work: Work): Promise<Result<Survey>> {
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

/** How long it really is: where its last frame ends, whatever the container says; null: it took too long. */
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
export const silence: Heard = { lufs: null, gainDb: 0, peaks: [], most: 0 };
/** How loud the stretch is, by EBU R128, and its waveform. A track that can't be read is as none. */
export async function listen(work: Work, from: number, to: number): Promise<Heard> {
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
