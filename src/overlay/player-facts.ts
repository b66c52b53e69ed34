import type { FilmMaker } from "./film";
import type { Also } from "./flash-guard";
import type { Music } from "./music";
import type { Knocker } from "./scene";

/** What a page measures of itself while it plays a stage. */
export type PlayerFacts = Readonly<{
  framesPerSecond: number;
  late: number;
  live: number;
  drawing: string;
  scriptMs: number;
  sceneMs: number;
  /** By how much the governor has lowered the load; 0 for not at all. */
  lowered: number;
  /** Whether it is dimmed because it flashes; how often it was. */
  dimmed: boolean;
  dimmedTimes: number;
  /** What looking for flashes cost the last time. */
  flashMs: number;
}>;

/** What a page lends to what it plays. */
export type PlayerOptions = Readonly<{
  /** What plays moving pictures; silently when left out. */
  films?: FilmMaker;
  now?: () => number;
  /** What a game shows has been seen on this page. */
  seen?: (game: string, n: number) => void;
  knock?: Knocker;
  /** What shows only now and then stands there all the while: one sets it up. */
  preview?: boolean;
  /** Drawn at most so often a second; as often as the screen does when left out. Motion is by the clock, so it is as fast. */
  mostFrames?: number;
  /** The sound that plays, and the engine's clock: for what lives on the stage. */
  music?: (nowMs: number) => Music | null;
  wallMs?: () => number;
  /** Paints what stands over the stage and is no canvas, for who looks for flashes. */
  also?: Also;
}>;

/** What operators look at beside their work: smooth, at half the drawing. */
export const lookedAtFrames = 30;
