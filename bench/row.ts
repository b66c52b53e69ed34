import { statfsSync } from "node:fs";

/** One line of the table: ours beside a raw baseline measured in the same run. */
export type Row = Readonly<{ what: string; ours: string; baseline?: string; ratio?: string; budget: string; met: boolean | null }>;
export type Stack = Readonly<{
  base: string;
  practice: string;
  practiceIrcPort: number;
  kill: (what: string) => Promise<void>;
  revive: (what: string) => Promise<void>;
  pid: (what: string) => number;
  stop: () => Promise<void>;
  env: Record<string, string>;
  folder: string;
}>;
export type Bench = Readonly<{
  root: string;
  out: string;
  chromium: string;
  /** Only what is quickly told is asked for. */
  isQuick: boolean;
  startStack: (options: { name: string; demo?: boolean }) => Promise<Stack>;
  say: (text: string) => void;
}>;

export const quantile = (values: readonly number[], q: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * q))] ?? NaN;
};
export const median = (values: readonly number[]): number => quantile(values, 0.5);
export const ms = (value: number): string => `${value.toFixed(value < 10 ? 2 : 0)} ms`;
export const thousands = (perSecond: number): string => `${Math.round(perSecond / 1000)} k/s`;
const isRoomy = (folder: string): boolean => {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize > 1024 ** 3;
  } catch {
    return false;
  }
};
export const browserArgs = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  // Memory that processes share lies in files of /tmp with this: only where the place meant for it is too small.
  ...(isRoomy("/dev/shm") ? [] : ["--disable-dev-shm-usage"]),
];
