import { z } from "zod";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { containers, runProgram } from "./run";

/** What a file says of itself. None of it is believed but the size of the picture, and that is held to by the decoder. */
export type Probed = Readonly<{
  container: string;
  width: number;
  height: number;
  /** As the container says; 0 where it doesn't. */
  ms: number;
  rate: number;
  mayBeClear: boolean;
  hasSound: boolean;
  decoder: string | null;
}>;
export const mostSide = 4_096;
export const mostTracks = 24;

const num = z.union([z.number(), z.string().transform(Number)]).catch(0);
const schema = z.object({
  streams: z
    .array(
      z.object({
        codec_type: z.string().optional(),
        codec_name: z.string().optional(),
        pix_fmt: z.string().optional(),
        width: num.optional(),
        height: num.optional(),
        avg_frame_rate: z.string().optional(),
        tags: z.record(z.string(), z.string()).optional(),
        side_data_list: z.array(z.object({ rotation: num.optional() })).optional(),
      }),
    )
    .default([]),
  format: z.object({ format_name: z.string().default(""), duration: num.optional() }).default({ format_name: "" }),
});

const rateOf = (text = ""): number => {
  const [over = 0, under = 1] = text.split("/").map(Number);
  const rate = over / under;
  return Number.isFinite(rate) && rate > 0 ? rate : 0;
};
const seeThrough = /^(yuva|rgba|argb|abgr|bgra|gbrap|ya|pal8)/;

/** Refused: what is no moving picture, too large a one, or one with more tracks than any of ours needs. */
export async function probe(path: string): Promise<Result<Probed>> {
  const read = await runProgram(
    "ffprobe",
    // prettier-ignore
    ["-v", "error", "-format_whitelist", containers, "-probesize", "8000000", "-analyzeduration", "5000000", "-show_streams", "-show_format", "-of", "json", path],
    { timeoutMs: 15_000, mostOut: 4 * 1024 * 1024 },
  );
  if (read.late) return refused("file/too-heavy");
  let given: unknown = null;
  try {
    given = JSON.parse(read.out.toString("utf8"));
  } catch {
    return refused("video/broken");
  }
  const told = schema.safeParse(given);
  if (read.code !== 0 || !told.success) return refused("video/broken");
  const { streams, format } = told.data;
  if (streams.length > mostTracks) return refused("video/too-many-tracks", { most: mostTracks });
  const picture = streams.find((s) => s.codec_type === "video" && (s.width ?? 0) > 0);
  if (picture === undefined) return refused("video/no-picture");
  const turned = Math.abs(picture.side_data_list?.find((d) => d.rotation !== undefined)?.rotation ?? 0) % 180 === 90;
  const [w, h] = [picture.width ?? 0, picture.height ?? 0];
  if (w > mostSide || h > mostSide) return refused("video/too-many-pixels", { most: mostSide });
  const clear = picture.tags?.["alpha_mode"] === "1" || picture.tags?.["ALPHA_MODE"] === "1";
  const decoder = clear ? (picture.codec_name === "vp9" ? "libvpx-vp9" : picture.codec_name === "vp8" ? "libvpx" : null) : null;
  return ok({
    container: format.format_name.split(",")[0] ?? "",
    width: turned ? h : w,
    height: turned ? w : h,
    ms: Math.max(0, Math.round((format.duration ?? 0) * 1000)) || 0,
    rate: rateOf(picture.avg_frame_rate),
    mayBeClear: clear || seeThrough.test(picture.pix_fmt ?? "") || picture.codec_name === "gif",
    hasSound: streams.some((s) => s.codec_type === "audio"),
    decoder,
  });
}
