import { type ClipsView, clipsViewSchema } from "../../core/games/clips/settings";
import type { Film } from "../../overlay/film";
import { ease } from "../../overlay/motion";
import { leastLetter, OwnSurface } from "../../overlay/own-surface";
import type { Scene, SceneKit } from "../../overlay/scene";
import { paintWindow } from "./paint";

type Now = NonNullable<ClipsView["now"]>;
/** How long the window comes and goes, and its curtain opens and closes. */
const windowMs = 420;
const curtainMs = 600;
const example: Now = {
  n: 0,
  name: "tin_lantern",
  line: "my first sail",
  url: "",
  poster: "",
  ms: 12_000,
  fromMs: 0,
  shown: true,
  volume: 0,
  width: 16,
  height: 9,
  flashing: [],
};

/** Something that goes from 0 to 1 and back, each way in its time, from wherever it is. */
class Way {
  private from = 0;
  private to = 0;
  private sinceMs = -Infinity;
  constructor(private readonly ms: number) {}
  go(to: 0 | 1, nowMs: number): void {
    if (to === this.to) return;
    this.from = this.at(nowMs);
    this.to = to;
    this.sinceMs = nowMs;
  }
  at(nowMs: number): number {
    return this.from + (this.to - this.from) * ease((nowMs - this.sinceMs) / this.ms);
  }
  moves(nowMs: number): boolean {
    return nowMs - this.sinceMs < this.ms;
  }
  set(to: 0 | 1): void {
    this.from = this.to = to;
    this.sinceMs = -Infinity;
  }
}

/** A window with a curtain, in which a clip plays. */
export function clipsScene({ paint, film: makeFilm, sprites, still, preview = false, wallMs, seen }: SceneKit): Scene {
  let view: ClipsView | null = null;
  let now: Now | null = null;
  /** When its first frame is due, by the page's own clock. */
  let fromMs = 0;
  let film: Film | null = null;
  let told = false;
  let wasMoving = false;
  const window = new Way(still ? 1 : windowMs);
  const curtain = new Way(still ? 1 : curtainMs);
  const surface = new OwnSurface(paint);
  const end = (): void => {
    film?.free();
    film = null;
  };
  return {
    get live() {
      return now !== null && now.shown ? 1 : 0;
    },
    shown: () => (now === null ? null : { n: now.n, name: now.name, shown: now.shown, plays: film !== null && !film.element.paused }),
    solid: () => now !== null && now.shown,
    setView: (given) => {
      const parsed = clipsViewSchema.safeParse(given);
      if (!parsed.success) return;
      view = parsed.data;
      const next = view.on ? (view.now ?? (preview ? example : null)) : null;
      if (next?.n !== now?.n) {
        told = false;
        // The curtain closes over what was there.
        if (next !== null) {
          end();
          const behindMs = next === example ? 0 : wallMs === undefined ? -600 : wallMs() - next.fromMs;
          fromMs = sprites.nowMs - behindMs;
          if (next.url !== "")
            film = makeFilm(next.url, { fromMs: behindMs, volume: next.shown ? next.volume : 0, flashing: next.flashing });
        }
      }
      if (next !== null) now = next;
      else if (now !== null) now = { ...now, shown: false };
      film?.loud(now?.shown === true ? now.volume : 0);
    },
    effect: () => undefined,
    rehearse: () => undefined,
    clear: (_, atOnce) => {
      if (!atOnce) return;
      end();
      window.set(0);
      curtain.set(0);
      if (view?.now === null || view === null) now = null;
      surface.empty();
    },
    stack: (order) => surface.stack(order),
    free: () => {
      end();
      surface.free();
    },
    frame: (nowMs, box) => {
      if (view === null || now === null) return false;
      const ends = nowMs >= fromMs + now.ms && now !== example;
      // Hushed in the middle, and heard again: it goes on where it is by now.
      if (film === null && now.shown && now.url !== "" && !ends && view.now !== null)
        film = makeFilm(now.url, { fromMs: nowMs - fromMs, volume: now.volume, flashing: now.flashing });
      window.go(now.shown ? 1 : 0, nowMs);
      curtain.go(now.shown && !ends && nowMs >= fromMs - curtainMs ? 1 : 0, nowMs);
      const there = window.at(nowMs);
      const open = curtain.at(nowMs);
      const { width, height, scale, context } = surface.fit(box);
      // A film that moves is looked at from its first frame on, and only where it can be seen.
      const element = film?.element ?? null;
      if (
        !told &&
        open > 0.5 &&
        now.shown &&
        now !== example &&
        (element === null || (element.readyState >= 2 && element.currentTime > 0))
      ) {
        told = true;
        seen?.(now.n);
      }
      const moving = now.shown || window.moves(nowMs) || curtain.moves(nowMs);
      // Its film goes with it: what nobody sees goes on only while it may be shown again.
      if (!moving && view.now === null) end();
      if (!moving && !wasMoving) return false;
      wasMoving = moving;
      if (context === null) return moving;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, width, height);
      const plays = element !== null && element.readyState >= 2;
      if (there > 0.01) {
        const at = paintWindow(context, {
          now,
          looks: view.looks,
          width,
          height,
          least: leastLetter(box, scale),
          there,
          open,
          leftMs: Math.max(0, Math.min(now.ms, fromMs + now.ms - nowMs)),
          plays,
          atMs: nowMs,
        });
        if (element !== null) surface.under(element, at, plays && open > 0.01 ? there : 0);
      }
      return moving;
    },
  };
}
