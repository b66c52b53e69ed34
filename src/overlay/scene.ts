import type { SpriteBuffer } from "./sprite-buffer";
import type { SpriteBook } from "./sprites";
import type { Box } from "./box";
import type { FilmMaker } from "./film";
import type { Desk } from "./physics/client";
import type { SpriteLayer } from "./sprite-layer";
import type { Music } from "./music";
import type { Point } from "./sight";
import type { Surface } from "./surface";

export type { Box } from "./box";

/** What the player asks of every game's scene. Time is the page's own clock, in milliseconds. */
export type Scene = {
  setView: (view: unknown) => void;
  effect: (effect: unknown, nowMs: number) => void;
  /** Writes this frame into `out`; false when nothing moves any more. `room` is the share of its cap it may use. */
  frame: (nowMs: number, box: Box, out: SpriteBuffer, room: number) => boolean;
  /**
   * Runs through its work once, unseen, while the page has nothing else to do: code that has never run is
   * ten times slower, and the first flock of an evening must not stop the picture.
   */
  rehearse: (box: Box, out: SpriteBuffer) => void;
  /** Softly, or at once under hush. */
  clear: (nowMs: number, atOnce: boolean) => void;
  readonly live: number;
  /** What it stands at now, for tests. */
  shown?: () => unknown;
  /** It stands there as a body: what walks steps aside for it. */
  solid?: () => boolean;
  /** Its place in the order of the stage, when it has a surface of its own. */
  stack?: (order: number) => void;
  free?: () => void;
};
/** Short wooden knocks, each so long from now; gives back how those that are yet to come are left out. */
export type Knocker = (knocks: readonly Readonly<{ inMs: number; strength: number }>[], hertz: number, volume: number) => () => void;
/**
 * `paint` gives a scene a canvas of its own, for pictures that are drawn and not stamped; `layer` one for sprites that stand
 * between two of those; `desk` opens who reckons a pile; `knock` is there where sound may be. What lives on the stage asks
 * what moves on it, what stands in its way, what plays, and what time it is for all pages alike.
 */
export type SceneKit = Readonly<{
  sprites: SpriteBook;
  still: boolean;
  /** What shows only now and then stands there all the while. */
  preview?: boolean;
  paint: () => Surface;
  layer: () => SpriteLayer;
  desk: () => Desk;
  /** A moving picture, heard where sound may be. */
  film: FilmMaker;
  /** Where the other games on the stage stand, in pixels of the stage. */
  frames: () => readonly Box[];
  knock?: Knocker;
  /** Where something last moved, in pixels of the stage; null when nothing did lately. */
  sight?: () => Point | null;
  /** Where games stand that others step aside for, in pixels of the stage. */
  bodies?: () => readonly Box[];
  /** The sound of some length that plays. */
  music?: () => Music | null;
  /** What is shown now is on this page's picture, by its number in the game: only then is it paid for. */
  seen?: (n: number) => void;
  /** The engine's clock, milliseconds since 1970. */
  wallMs?: () => number;
}>;
export type SceneMaker = (kit: SceneKit) => Scene;
export type SceneRegistry = Readonly<Record<string, SceneMaker>>;
