import type { VideoSettings } from "../../core/props/video";
import type { Probed } from "./probe";
import { containers } from "./run";

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
export type Size = Readonly<{ width: number; height: number }>;
export type Work = Readonly<{
  folder: string;
  source: string;
  use: VideoUse;
  told: Probed;
  signal?: AbortSignal;
  onShare: (share: number) => void;
}>;

/** How the source is opened: decoded within limits, and of it only what is wanted. */
export const input = ({ told, source, use }: Work): string[] => [
  "-format_whitelist",
  containers,
  "-max_pixels",
  String(4_096 * 4_096),
  ...(told.decoder === null ? [] : ["-c:v", told.decoder]),
  "-threads",
  "2",
  ...opened(source, use),
];
export const opened = (source: string, { only }: VideoUse): string[] => [
  ...(only === undefined ? [] : ["-ss", String(only.fromMs / 1000), "-t", String(only.ms / 1000)]),
  "-i",
  source,
];
/** So many times as long as the stretch lasts, and a little more: what takes longer is not worth waiting for. */
export const patience = ({ signal }: Work, ms: number, times: number) => ({
  timeoutMs: Math.round(20_000 + ms * times),
  ...(signal === undefined ? {} : { signal }),
});
