import { z } from "zod";
import { frameAt, type FrameRate, timecode } from "./timecode";

/** A moment of a show as editors get it: times count from the first frame of their recording. */
export type Marker = Readonly<{ fromMs: number; toMs: number; name: string; why: string }>;
/** CMX 3600 numbers its events with three digits. */
export const mostEvents = 999;

/**
 * Moments on the clock of a recording. `offsetMs`: how far into the recording the show begins; less than 0 where it began
 * before it. What lies before the recording is left out, what reaches into it is cut.
 */
export function onRecording(
  moments: readonly Readonly<{ atMs: number; toMs: number; name: string; why: string }>[],
  { fromMs, offsetMs }: Readonly<{ fromMs: number; offsetMs: number }>,
): Readonly<{ markers: readonly Marker[]; before: number }> {
  const shifted = moments.map(({ atMs, toMs, name, why }) => ({
    fromMs: atMs - fromMs + offsetMs,
    toMs: toMs - fromMs + offsetMs,
    name,
    why,
  }));
  const there = shifted.filter((m) => m.toMs > 0 || m.fromMs >= 0).map((m) => ({ ...m, fromMs: Math.max(0, m.fromMs) }));
  return { markers: there.sort((a, b) => a.fromMs - b.fromMs || a.toMs - b.toMs), before: shifted.length - there.length };
}

const oneLine = (text: string): string => text.replace(/[\p{Cc}\p{Zl}\p{Zp}\s]+/gu, " ").trim();
const clock = (ms: number): string => {
  const t = Math.round(ms);
  const two = (n: number): string => String(n).padStart(2, "0");
  return `${two(Math.floor(t / 3_600_000))}:${two(Math.floor(t / 60_000) % 60)}:${two(Math.floor(t / 1_000) % 60)}.${String(t % 1_000).padStart(3, "0")}`;
};
/** Text of a cue can hold no arrow, no tag and no empty line (WebVTT). */
const cueText = (text: string): string => oneLine(text).replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");

/** Chapters (WebVTT): each lasts until the next begins, the last until the end, so that none overlaps another. */
export function asChapters(markers: readonly Marker[], endMs: number, title: string): string {
  const starts = markers.filter((m, i) => i === 0 || m.fromMs > (markers[i - 1]?.fromMs ?? -1));
  const all = (starts[0]?.fromMs ?? 1) > 0 ? [{ fromMs: 0, name: title }, ...starts] : starts;
  const cues = all.map((m, i) => {
    const until = Math.max(all[i + 1]?.fromMs ?? endMs, m.fromMs + 1);
    return `${i + 1}\n${clock(m.fromMs)} --> ${clock(until)}\n${cueText(m.name) || "A moment"}\n`;
  });
  return `WEBVTT\n\n${cues.join("\n")}`;
}

/** One line a moment: its time on the clock and on the counter. */
export const asRows = (markers: readonly Marker[], rate: FrameRate) =>
  markers.map((m) => {
    const [from, to] = [frameAt(m.fromMs, rate), Math.max(frameAt(m.fromMs, rate) + 1, frameAt(m.toMs, rate))];
    return {
      name: oneLine(m.name),
      start: clock(m.fromMs),
      end: clock(m.toMs),
      start_timecode: timecode(from, rate),
      end_timecode: timecode(to, rate),
      start_frame: from,
      end_frame: to,
      frame_rate: `${rate.num === rate.nominal ? rate.nominal : (rate.num / rate.den).toFixed(3)}${rate.drop > 0 ? " drop-frame" : ""}`,
      why: oneLine(m.why),
    };
  });

/** Decision lists are read by old machines: letters without marks, no longer than a line. */
const plainLetters = (text: string, most: number): string =>
  oneLine(
    text
      .normalize("NFKD")
      .replace(/[\u0300-\u036f]/g, "")
      .replace(/[’‘]/g, "'")
      .replace(/[“”]/g, '"')
      .replace(/[–—]/g, "-")
      .replace(/[^\x20-\x7e]/g, "?"),
  )
    .slice(0, most)
    .trim();

/** An edit decision list (CMX 3600): each moment an event cut from the recording at its own place. */
export function asEdl(markers: readonly Marker[], rate: FrameRate, title: string): string {
  const lines = [`TITLE: ${plainLetters(title, 60) || "SHOW"}`, `FCM: ${rate.drop > 0 ? "DROP FRAME" : "NON-DROP FRAME"}`, ""];
  for (const [i, m] of markers.slice(0, mostEvents).entries()) {
    const from = frameAt(m.fromMs, rate);
    const to = Math.max(from + 1, frameAt(m.toMs, rate));
    const [a, b] = [timecode(from, rate), timecode(to, rate)];
    lines.push(`${String(i + 1).padStart(3, "0")}  AX       V     C        ${a} ${b} ${a} ${b}`);
    lines.push(`* FROM CLIP NAME: ${plainLetters(m.name, 60) || "MOMENT"}`);
    if (m.why !== "") lines.push(`* COMMENT: ${plainLetters(m.why, 100)}`);
    lines.push("");
  }
  return lines.join("\r\n");
}

export const markersFormat = "izzam-markers-1";
export const markersSchema = z.object({
  format: z.literal(markersFormat),
  show: z.object({ name: z.string(), from: z.iso.datetime(), to: z.iso.datetime() }),
  /** Milliseconds into the recording at which the show begins. */
  offsetMs: z.number(),
  frameRate: z.object({ num: z.int(), den: z.int(), dropFrame: z.boolean() }),
  markers: z.array(
    z.object({
      name: z.string(),
      why: z.string(),
      fromMs: z.number(),
      toMs: z.number(),
      fromFrame: z.int(),
      toFrame: z.int(),
      timecode: z.string(),
    }),
  ),
});
export function asJson(
  markers: readonly Marker[],
  rate: FrameRate,
  about: Readonly<{ name: string; fromMs: number; toMs: number; offsetMs: number }>,
): z.infer<typeof markersSchema> {
  return {
    format: markersFormat,
    show: { name: about.name, from: new Date(about.fromMs).toISOString(), to: new Date(about.toMs).toISOString() },
    offsetMs: about.offsetMs,
    frameRate: { num: rate.num, den: rate.den, dropFrame: rate.drop > 0 },
    markers: markers.map((m) => {
      const from = frameAt(m.fromMs, rate);
      return {
        name: m.name,
        why: m.why,
        fromMs: m.fromMs,
        toMs: m.toMs,
        fromFrame: from,
        toFrame: Math.max(from + 1, frameAt(m.toMs, rate)),
        timecode: timecode(from, rate),
      };
    }),
  };
}
