import { type CompanionView, companionViewSchema, glumBelow, merryFrom } from "../../core/games/companion/settings";
import { aside, standAt } from "../../core/games/companion/walk";
import type { FigureState } from "../../core/props/figure";
import { lettering } from "../../overlay/dress";
import { ease } from "../../overlay/motion";
import { leastLetter, OwnSurface } from "../../overlay/own-surface";
import { writeOn } from "../../overlay/panel";
import type { Box, Scene, SceneKit } from "../../overlay/scene";
import { paintBubble } from "./bubble";
import { drawDrawn, drawOwn } from "./draw";
import { drawnOf } from "./figures";
import { blend, emptyPose, strike } from "./pose";

type Doing = NonNullable<CompanionView["doing"]>;
const blendMs = 190;
/** It need not be drawn sixty times a second to breathe. */
const calmMs = 48;
const calm: ReadonlySet<FigureState> = new Set(["rest", "glum", "sleep"]);
/** Across its place, in a second: how quickly it steps aside or catches up. */
const hurry = 0.16;

/** A figure that lives on the stage: what it does comes from its rules, how it holds itself and where it stands from time. */
export function companionScene(kit: SceneKit): Scene {
  const { sprites, still, paint, preview = false } = kit;
  const surface = new OwnSurface(paint);
  const wallMs = kit.wallMs ?? Date.now;
  const now = emptyPose();
  const before = emptyPose();
  let view: CompanionView | null = null;
  let doing: (Doing & { sinceMs: number }) | null = null;
  let state: FigureState = "rest";
  let stateMs = 0;
  let left: { state: FigureState; forMs: number } = { state: "rest", forMs: 0 };
  let drawnMs = -Infinity;
  let drawnKey = "";
  /** Where it stands, 0 to 1 across its place, and where its eyes are: they follow softly. */
  let spot: number | null = null;
  let turned: -1 | 1 = 1;
  let frameMs = 0;
  const gaze = { x: 0, y: 0 };

  const clock = (nowMs: number): number => (nowMs / 1000) % 100_000;
  const resting = (of: CompanionView): FigureState => (of.mood < glumBelow ? "glum" : of.mood >= merryFrom ? "merry" : "rest");
  function doesNow(of: CompanionView, walking: boolean, nowMs: number): FigureState {
    if (doing !== null && nowMs - doing.sinceMs < doing.ms)
      return doing.state === "speak" || doing.bubble === "" ? doing.state : speaking(doing, nowMs);
    if (of.asleep) return "sleep";
    if (of.dancing || (of.dances && kit.music?.() != null)) return "dance";
    return walking ? "walk" : resting(of);
  }
  /** Who says something does what it does first, and speaks for the rest of it. */
  const speaking = (what: Doing & { sinceMs: number }, nowMs: number): FigureState => {
    const since = nowMs - what.sinceMs;
    return since < 1_500 ? what.state : since < 1_500 + what.bubble.length * 55 ? "speak" : "rest";
  };

  /** Its spot now, and whether it walks: by the time all pages share, around what stands there, and never by a jump. */
  function stand(of: CompanionView, box: Box, wide: number, nowMs: number): boolean {
    const sinceS = frameMs === 0 ? 0 : Math.min(0.25, (nowMs - frameMs) / 1000);
    frameMs = nowMs;
    const busy = (doing !== null && nowMs - doing.sinceMs < doing.ms) || of.asleep;
    const meant = of.walks && !still ? standAt(of.seed, wallMs()) : { x: 0.5, walking: false, towards: 1 as const };
    const taken = (kit.bodies?.() ?? [])
      .filter((b) => b.y + b.height > box.y + box.height * 0.5 && b.y < box.y + box.height)
      .map((b) => [(b.x - box.x) / box.width, (b.x + b.width - box.x) / box.width] as const);
    const goal = aside(meant.x, wide, taken);
    if (spot === null || preview) {
      const first = spot === null;
      spot = goal;
      if (first || !meant.walking) return false;
      turned = meant.towards;
      return true;
    }
    if (busy) return false;
    const far = goal - spot;
    if (Math.abs(far) < 0.004) {
      spot = goal;
      if (meant.walking) turned = meant.towards;
      return meant.walking;
    }
    turned = far < 0 ? -1 : 1;
    spot += Math.sign(far) * Math.min(Math.abs(far), Math.max(hurry, Math.abs(far) * 1.2) * sinceS);
    return true;
  }

  function look(box: Box, middle: Readonly<{ x: number; y: number }>): void {
    const seen = kit.sight?.() ?? null;
    const reach = Math.max(1, (box.stageWidth ?? box.width) * 0.25);
    const goal = seen === null ? { x: 0, y: 0 } : { x: (seen.x - middle.x) / reach, y: (seen.y - middle.y) / reach };
    const one = (v: number): number => Math.max(-1, Math.min(1, v));
    gaze.x += (one(goal.x) - gaze.x) * 0.16;
    gaze.y += (one(goal.y) - gaze.y) * 0.16;
  }

  return {
    get live() {
      return view?.on === true ? 1 : 0;
    },
    shown: () =>
      view === null
        ? null
        : {
            name: view.name,
            state,
            bubble: doing !== null && sprites.nowMs - doing.sinceMs < doing.ms ? doing.bubble : "",
            mood: view.mood,
            spot,
          },
    setView: (given) => {
      const parsed = companionViewSchema.safeParse(given);
      if (!parsed.success) return;
      const first = view === null;
      view = parsed.data;
      drawnKey = "";
      const next = view.doing;
      if (next === null) doing = null;
      // Who joins in the middle sees what is left of it; how much that is, nobody knows: it is shown for as long.
      else if (next.n !== doing?.n) doing = { ...next, sinceMs: first ? sprites.nowMs - 400 : sprites.nowMs };
    },
    effect: () => undefined,
    rehearse: () => undefined,
    clear: (_, atOnce) => {
      if (!atOnce) return;
      drawnKey = "";
      surface.empty();
    },
    stack: (order) => surface.stack(order),
    free: () => surface.free(),
    frame: (nowMs, box) => {
      const of = view;
      if (of === null) return false;
      const drawn = drawnOf(of.figure);
      const sprite = drawn === null ? sprites.get(sprites.id(of.figure)) : undefined;
      const { width, height, scale, context } = surface.fit(box);
      const side = Math.min(width, height * 0.8) * (of.looks.size / 100);
      const wide = Math.min(1, (side * ((drawn?.wide ?? 90) / 100)) / width);
      const walking = stand(of, box, wide, nowMs);
      const x = (spot ?? 0.5) * width;
      look(box, { x: box.x + x / scale, y: box.y + (height - side * 0.6) / scale });
      const next = doesNow(of, walking, nowMs);
      if (next !== state) {
        left = { state, forMs: nowMs - stateMs };
        [state, stateMs] = [next, nowMs];
      }
      const sinceMs = nowMs - stateMs;
      const key = `${of.on} ${width} ${height} ${box.letters ?? 0} ${sprites.loads} ${still}`;
      const quiet = calm.has(state) && sinceMs > 600 && doing === null && !walking;
      if (key === drawnKey && (still || !of.on || quiet) && nowMs - drawnMs < (still || !of.on ? 500 : calmMs)) return of.on;
      drawnKey = key;
      drawnMs = nowMs;
      if (context === null) return of.on;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, width, height);
      if (!of.on) return false;
      const music = kit.music?.() ?? null;
      const everyMs = music?.beat.everyMs ?? 540;
      const bar = ((((music === null ? wallMs() : nowMs - music.sinceMs - music.beat.firstMs) / (everyMs * 2)) % 1) + 1) % 1;
      const moment = { clockS: clock(nowMs), seed: of.seed, gaze, bar, still };
      strike(now, { ...moment, state, sinceS: sinceMs / 1000 });
      if (sinceMs < blendMs && !still) {
        strike(before, { ...moment, state: left.state, sinceS: (left.forMs + sinceMs) / 1000 });
        blend(now, before, ease(sinceMs / blendMs));
      }
      const unit = side / 100;
      context.save();
      context.translate(x, height - side * 0.045);
      shadow(context, unit, now.whole.y, drawn?.wide ?? 70);
      const own = drawn?.looks ?? sprite?.figure?.looks ?? "right";
      // Towards where it walks; still, as it is set.
      const mirror = walking ? (own === "left") !== turned < 0 : of.looks.mirrored;
      context.scale(mirror ? -unit : unit, unit);
      if (mirror) now.parts.pupils.x *= -1;
      context.translate(-50, -96);
      if (drawn !== null) drawDrawn(context, drawn, now, of.looks.glaze, of.mood);
      else if (sprite !== undefined) drawOwn(context, sprite, sprite.figure ?? null, now, state, sinceMs);
      context.restore();
      const top = height - side * (1.005 - (drawn?.top ?? 8) / 100);
      const least = leastLetter(box, scale);
      if (state === "sleep" && !still) snores(context, x + side * 0.18, top + side * 0.12, Math.max(least, side * 0.09), nowMs);
      const said = doing !== null && nowMs - doing.sinceMs < doing.ms ? doing : null;
      if (said !== null && said.bubble !== "") {
        const sinceSaid = nowMs - said.sinceMs;
        const there = Math.min(1, sinceSaid / 220) * Math.min(1, Math.max(0, (said.ms - sinceSaid) / 240));
        paintBubble(context, said.bubble, {
          x,
          y: Math.max(least * 2.6, top - side * 0.04 + Math.min(0, now.whole.y) * unit),
          width,
          least,
          there,
          grows: still ? 1 : sinceSaid / 320,
        });
      }
      if (of.looks.name) nameUnder(context, of.name, x, height, least, width);
      return true;
    },
  };
}

function shadow(context: CanvasRenderingContext2D, unit: number, up: number, wide: number): void {
  const less = Math.max(0.4, 1 + up / 60);
  context.globalAlpha = 0.26 * less;
  context.fillStyle = "#10131B";
  context.beginPath();
  context.ellipse(0, 0.2 * unit, wide * 0.5 * unit * less, 3.4 * unit * less, 0, 0, Math.PI * 2);
  context.fill();
  context.globalAlpha = 1;
}
/** Three letters that rise and fade. */
function snores(context: CanvasRenderingContext2D, x: number, y: number, size: number, nowMs: number): void {
  context.textAlign = "center";
  context.fillStyle = "#FFF8E8";
  for (let i = 0; i < 3; i += 1) {
    const u = (nowMs / 3_600 + i / 3) % 1;
    context.globalAlpha = Math.sin(u * Math.PI) * 0.9;
    context.font = lettering(800, size * (0.7 + 0.5 * u));
    writeOn(context, "z", x + size * (0.4 + 1.5 * u) + Math.sin(u * 7) * size * 0.2, y - size * 1.8 * u, size);
  }
  context.globalAlpha = 1;
}
function nameUnder(context: CanvasRenderingContext2D, name: string, x: number, height: number, size: number, width: number): void {
  context.textAlign = "center";
  context.textBaseline = "alphabetic";
  context.font = lettering(700, size);
  const half = context.measureText(name).width / 2;
  const at = Math.min(width - half - 4, Math.max(half + 4, x));
  context.lineJoin = "round";
  context.lineWidth = size * 0.26;
  context.strokeStyle = "rgba(16,19,27,.92)";
  context.strokeText(name, at, height - size * 0.25);
  context.fillStyle = "#FFF8E8";
  context.fillText(name, at, height - size * 0.25);
}
