import sharp from "sharp";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { FlashWatch } from "../../core/pictures/flash-watch";
import { flashedAt, type Flashes, type Flashing, posterOf } from "../../core/props/video";
import { runProgram } from "./run";
import { patience, type Size, type Work } from "./work";

const lookWidth = 64;
const lookHeight = 36;

type Checked = Readonly<{ ms: number; flashes: Flashes; flashesAtMs: number; flashing: Flashing; black: boolean; poster: Buffer }>;
/** Looks at what was made, frame by frame: it is what is shown. */
export async function check(path: string, alpha: boolean, size: Size, rate: number, work: Work): Promise<Result<Checked>> {
  const decoder = alpha ? ["-c:v", "libvpx-vp9"] : [];
  const cell = lookWidth * lookHeight * 4;
  const watch = new FlashWatch(lookWidth, lookHeight);
  let frames = 0;
  let firstSeen = -1;
  let brightest = 0;
  let flashes: Flashes = "none";
  let flashesAtMs = 0;
  let flashing: Flashing = [];
  let rest: Buffer = Buffer.alloc(0);
  const take = (frame: Buffer): void => {
    const atMs = (frames * 1000) / rate;
    const found = watch.take(frame, atMs);
    if (found !== null) flashing = flashedAt(flashing, atMs);
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
  return poster === null ? refused("video/broken") : ok({ ms, flashes, flashesAtMs, flashing, black: brightest <= 0.02, poster });
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
