import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** Moving pictures drawn and synthesised for tests, each by FFmpeg from nothing. */
const lavfi = (...sources: string[]): string[] => sources.flatMap((s) => ["-f", "lavfi", "-i", s]);
const h264 = ["-c:v", "libx264", "-preset", "ultrafast", "-pix_fmt", "yuv420p"];
const half = "format=rgba,geq=r='r(X,Y)':g='g(X,Y)':b='b(X,Y)':a='if(gt(X,80),0,255)'";
/** Changes sides `times` a second. */
const blinks = (times: number): string => `geq=lum='if(mod(floor(T*${times * 2}),2),235,16)':cb=128:cr=128`;

export const films = {
  plain: (s = 3) => ({
    as: "mp4",
    args: [...lavfi(`testsrc2=size=320x180:rate=30:duration=${s}`, `sine=frequency=440:duration=${s}`), ...h264, "-c:a", "aac"],
  }),
  silent: (s = 2) => ({ as: "mp4", args: [...lavfi(`testsrc2=size=320x180:rate=30:duration=${s}`), ...h264] }),
  black: (s = 2) => ({
    as: "mp4",
    args: [...lavfi(`color=black:size=320x180:rate=30:duration=${s}`, `sine=frequency=300:duration=${s}`), ...h264, "-c:a", "aac"],
  }),
  strobing: (s = 3, times = 6) => ({
    as: "mp4",
    args: [...lavfi(`color=white:size=160x90:rate=30:duration=${s}`), "-vf", blinks(times), ...h264],
  }),
  seeThrough: (s = 1) => ({
    as: "mov",
    args: [...lavfi(`testsrc2=size=160x120:rate=20:duration=${s}`), "-vf", half, "-c:v", "qtrle"],
  }),
  clearWebm: (s = 1) => ({
    as: "webm",
    args: [
      ...lavfi(`testsrc2=size=160x120:rate=20:duration=${s}`),
      "-vf",
      half,
      "-c:v",
      "libvpx-vp9",
      "-deadline",
      "realtime",
      "-cpu-used",
      "8",
      "-pix_fmt",
      "yuva420p",
    ],
  }),
  gif: (s = 1) => ({ as: "gif", args: [...lavfi(`testsrc2=size=120x90:rate=10:duration=${s}`)] }),
  fast: (s = 1) => ({ as: "mp4", args: [...lavfi(`testsrc2=size=160x90:rate=1000:duration=${s}`), ...h264] }),
  wide: () => ({ as: "mp4", args: [...lavfi("color=red:size=7680x4320:rate=5:duration=0.4"), ...h264] }),
  long: (s = 800) => ({ as: "mp4", args: [...lavfi(`color=blue:size=64x36:rate=1:duration=${s}`), ...h264] }),
  manyTracks: (n = 40) => ({
    as: "mkv",
    args: [...lavfi("testsrc2=size=64x36:rate=5:duration=1"), ...Array.from({ length: n }, () => ["-map", "0:v"]).flat(), ...h264],
  }),
  soundOnly: (s = 1) => ({ as: "mp4", args: [...lavfi(`sine=frequency=440:duration=${s}`), "-c:a", "aac"] }),
} as const;

export function film({ as, args }: Readonly<{ as: string; args: readonly string[] }>): Buffer {
  const folder = mkdtempSync(join(tmpdir(), "izzam-film-"));
  try {
    const path = join(folder, `film.${as}`);
    execFileSync("ffmpeg", ["-hide_banner", "-loglevel", "error", "-y", ...args, path]);
    return readFileSync(path);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
