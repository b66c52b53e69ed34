import { count } from "../words/sentence";

/** One show as a number among others. What only its log knows is null where that is gone, or was never kept. */
export type ShowFigures = Readonly<{
  id: number;
  name: string;
  fromMs: number;
  hours: number;
  messages: number | null;
  people: number | null;
  fresh: number | null;
  tipped: number | null;
  made: number;
  spent: number;
  sales: number;
}>;
/** What shows are compared by. `hourly`: by the hour, so that a long one does not look like a good one. */
export const measures = [
  { id: "messages", words: "messages an hour", of: (s: ShowFigures) => perHour(s.messages, s.hours) },
  { id: "people", words: "people who wrote", of: (s: ShowFigures) => s.people },
  { id: "fresh", words: "people here for the first time", of: (s: ShowFigures) => s.fresh },
  { id: "tipped", words: "tips an hour", of: (s: ShowFigures) => perHour(s.tipped, s.hours) },
  { id: "made", words: "{points} made an hour", of: (s: ShowFigures) => perHour(s.made, s.hours) },
  { id: "spent", words: "{points} spent an hour", of: (s: ShowFigures) => perHour(s.spent, s.hours) },
  { id: "hours", words: "hours on air", of: (s: ShowFigures) => s.hours },
] as const;
export type MeasureId = (typeof measures)[number]["id"];
type Measure = Readonly<{ id: MeasureId; words: string; of: (show: ShowFigures) => number | null }>;
export const measureOf = (id: MeasureId): Measure => measures.find((m) => m.id === id) ?? measures[0];
const perHour = (n: number | null, hours: number): number | null => (n === null ? null : hours <= 0 ? 0 : n / hours);

const most = 5;
const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? (sorted[half] ?? 0) : ((sorted[half - 1] ?? 0) + (sorted[half] ?? 0)) / 2;
};
export type Trend = Readonly<{ now: number; before: number; shows: number; change: number | null }>;

/** How the last shows stand to as many before them, by the one in the middle of each; `values` oldest first. */
export function trendOf(values: readonly number[]): Trend | null {
  const shows = Math.min(most, Math.floor(values.length / 2));
  if (shows < 1) return null;
  const now = middle(values.slice(-shows));
  const before = middle(values.slice(-2 * shows, -shows));
  return { now, before, shows, change: before === 0 ? null : now / before - 1 };
}

export const figure = (n: number): string => (n >= 100 || Number.isInteger(n) ? count(Math.round(n)) : n.toFixed(1));
/** The same in one sentence, read in five seconds. */
export function trendInWords(trend: Trend | null, words: string, say: (n: number) => string = figure): string {
  if (trend === null) return "One show is no trend yet: come back after the next.";
  const { now, before, shows, change } = trend;
  const last = shows === 1 ? "The last show" : `The last ${shows} shows`;
  const others = shows === 1 ? "the one before" : `the ${shows} before`;
  const figures = `${say(now)} ${words}, and ${say(before)} in ${others}`;
  if (change === null) return `${last}: ${figures}.`;
  const percent = Math.round(Math.abs(change) * 100);
  if (percent < 5) return `About as before: ${figures}.`;
  return `${percent} % ${change > 0 ? "more" : "less"} than before: ${figures}.`;
}
