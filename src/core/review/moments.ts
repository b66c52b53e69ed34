import type { TimelineEvent } from "../show/timeline";
import { counted } from "../words/sentence";

/** What a show was like, bin by bin; `fromMs` is when the first began. */
export type Series = Readonly<{
  fromMs: number;
  binMs: number;
  chat: readonly number[];
  emotes: readonly number[];
  signals: readonly number[];
}>;
/** Something that stands out of its evening: where, what it is called, and why. */
export type Moment = Readonly<{ id: string; atMs: number; toMs: number; name: string; why: string; score: number }>;

const leastScore = 4;
/** It lasts while it is at least this much of its height over the usual. */
const tail = 0.35;
const apartMs = 60_000;
/** An editor wants what came just before it, too. */
const beforeMs = 10_000;
const most = 12;
const smoothed = (values: readonly number[]): number[] => values.map((v, i) => ((values[i - 1] ?? v) + v + (values[i + 1] ?? v)) / 3);
const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted.length === 0 ? 0 : ((sorted[(sorted.length - 1) >> 1] ?? 0) + (sorted[sorted.length >> 1] ?? 0)) / 2;
};

type Peak = { from: number; to: number; at: number; score: number; kind: "chat" | "emotes" | "signals"; times: number };
/** Where a row of counts stands out of its own usual: by so many of its usual spreads, and by no less than chance alone would. */
function peaksOf(values: readonly number[], kind: Peak["kind"]): Peak[] {
  const smooth = smoothed(values);
  const usual = middle(smooth);
  const spread = Math.max(1.4826 * middle(smooth.map((v) => Math.abs(v - usual))), Math.sqrt(Math.max(usual, 0) / 3), 0.6);
  const over = smooth.map((v) => (v - usual) / spread);
  const found: Peak[] = [];
  for (let i = 0; i < over.length; i += 1) {
    const height = over[i] ?? 0;
    if (height < leastScore || height < (over[i - 1] ?? 0) || height <= (over[i + 1] ?? -1)) continue;
    let [from, to] = [i, i];
    while (from > 0 && (over[from - 1] ?? 0) > height * tail) from -= 1;
    while (to < over.length - 1 && (over[to + 1] ?? 0) > height * tail) to += 1;
    found.push({ from, to, at: i, score: height, kind, times: (smooth[i] ?? 0) / Math.max(usual, 1 / 3) });
  }
  return found;
}

const whyOf = ({ kind, times }: Peak): string => {
  const much = times >= 10 ? String(Math.round(times)) : times.toFixed(1).replace(/\.0$/, "");
  return kind === "chat"
    ? `chat was ${much} × its usual`
    : kind === "emotes"
      ? `${much} × the usual emotes`
      : `${much} × the usual follows, tips and the like`;
};

/**
 * Moments worth keeping, the strongest first come, told in their order: where chat, emotes or what was given stand out of
 * that evening's own usual. What happened there gives them their names.
 */
export function momentsOf(series: Series, marks: readonly TimelineEvent[]): readonly Moment[] {
  const { fromMs, binMs } = series;
  const peaks = [...peaksOf(series.chat, "chat"), ...peaksOf(series.emotes, "emotes"), ...peaksOf(series.signals, "signals")].sort(
    (a, b) => b.score - a.score || a.at - b.at,
  );
  const taken: { from: number; to: number; peaks: Peak[] }[] = [];
  for (const peak of peaks) {
    const [from, to] = [fromMs + peak.from * binMs, fromMs + (peak.to + 1) * binMs];
    const near = taken.find((t) => from <= t.to + apartMs && to >= t.from - apartMs);
    if (near === undefined) taken.push({ from, to, peaks: [peak] });
    else {
      // Together they are one moment, but none that swallows half the evening.
      if (Math.max(near.to, to) - Math.min(near.from, from) <= 5 * apartMs) {
        near.from = Math.min(near.from, from);
        near.to = Math.max(near.to, to);
      }
      if (!near.peaks.some((p) => p.kind === peak.kind)) near.peaks.push(peak);
    }
  }
  return taken
    .slice(0, most)
    .map(({ from, to, peaks: [first, ...rest] }): Moment => {
      const there = marks.filter((m) => m.atMs >= from - beforeMs && m.atMs <= to && m.turned === "");
      const named = [...there].sort((a, b) => b.weight - a.weight || a.seq - b.seq)[0];
      const more = there.length > 1 ? [`${counted(there.length - 1, "more thing")} happened`] : [];
      const why = [...[first, ...rest].flatMap((p) => (p === undefined ? [] : [whyOf(p)])), ...more].join("; ");
      return {
        id: `f${Math.round(from / binMs)}`,
        atMs: Math.max(fromMs, from - beforeMs),
        toMs: to,
        name:
          named !== undefined && named.weight >= 2
            ? named.label
            : first?.kind === "chat"
              ? "Chat rushed"
              : first?.kind === "emotes"
                ? "Emotes everywhere"
                : "Much was given",
        why,
        score: first?.score ?? 0,
      };
    })
    .sort((a, b) => a.atMs - b.atMs);
}
