"use client";
import { chakra } from "@chakra-ui/react";
import { scaleLinear } from "d3-scale";
import type { Summary } from "../../../../core/lab/statistics";
import type { LabUnit } from "../../../../core/module/lab";
import { count } from "../../../../core/words/sentence";

const [width, height] = [540, 168];
const [left, bottom, top] = [8, 26, 34];
const Svg = chakra("svg", {
  base: { width: "100%", height: "auto", display: "block", "& text": { fontSize: "14px", fill: "inkSoft", fontFamily: "mono" } },
});
const Mark = chakra("g");

/** How evenings are spread, with where 5, 50 and 95 of 100 of them lie. Two of the same question share one scale. */
export function Histogram({
  summary,
  other,
  unit,
  points,
  label,
}: Readonly<{ summary: Summary; other: Summary | null; unit: LabUnit; points: string; label: string }>) {
  const all = [...summary.bins, ...(other?.bins ?? [])];
  const from = Math.min(...all.map((b) => b.from));
  const to = Math.max(...all.map((b) => b.to));
  const perUnit = (s: Summary): number => Math.max(0, ...s.bins.map((b) => b.count / (b.to - b.from) / Math.max(1, s.n)));
  const most = Math.max(perUnit(summary), other === null ? 0 : perUnit(other));
  if (all.length === 0 || !(most > 0)) return null;
  const x = scaleLinear([from, to], [left, width - left]);
  const y = scaleLinear([0, most], [height - bottom, top]);
  const marks = [
    { at: summary.p5, words: "5" },
    { at: summary.p50, words: "50" },
    { at: summary.p95, words: "95" },
  ].filter((m): m is { at: number; words: string } => m.at !== null);
  const apart = marks.map((m, i) => (i > 0 && Math.abs(x(m.at) - x(marks[i - 1]?.at ?? 0)) < 30 ? 14 : 0));
  // The last word on the line is what they count.
  const ticks = x.ticks(5).filter((t) => x(t) < width - 90);
  return (
    <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={label}>
      <Mark fill="slateText" opacity={0.8}>
        {summary.bins.map((b) => {
          const h = y(b.count / (b.to - b.from) / Math.max(1, summary.n));
          return (
            <rect
              key={b.from}
              x={x(b.from) + 0.5}
              y={h}
              width={Math.max(1, x(b.to) - x(b.from) - 1)}
              height={height - bottom - h}
              rx="1.5"
            />
          );
        })}
      </Mark>
      <Mark stroke="line" strokeWidth="1.5">
        <line x1={left} x2={width - left} y1={height - bottom} y2={height - bottom} />
      </Mark>
      <Mark stroke="ochreText" strokeWidth="2">
        {marks.map((m, i) => (
          <line
            key={m.words}
            x1={x(m.at)}
            x2={x(m.at)}
            y1={top - 14 + (apart[i] ?? 0)}
            y2={height - bottom}
            strokeDasharray={m.words === "50" ? undefined : "3 3"}
          />
        ))}
      </Mark>
      {marks.map((m, i) => (
        <text
          key={m.words}
          x={x(m.at) + (x(m.at) > width - 60 ? -4 : 4)}
          y={top - 4 + (apart[i] ?? 0)}
          textAnchor={x(m.at) > width - 60 ? "end" : "start"}
        >
          {m.words} %
        </text>
      ))}
      <text x={width - left} y={height - 8} textAnchor="end">
        {unitWords(unit, points)}
      </text>
      {ticks.map((t) => (
        <text key={t} x={Math.min(width - 26, Math.max(22, x(t)))} y={height - 8} textAnchor="middle">
          {short(t)}
        </text>
      ))}
    </Svg>
  );
}
const short = (value: number): string =>
  Math.abs(value) >= 10_000 ? `${Math.round(value / 100) / 10} k` : count(Math.round(value * 10) / 10);
/** What the numbers under the line count. */
const unitWords = (unit: LabUnit, points: string): string =>
  ({ minutes: "minutes", points, times: "times", people: "people", waiting: "waiting" })[unit];
