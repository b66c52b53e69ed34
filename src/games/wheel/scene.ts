import { turn, wheelEffectSchema, type WheelView, wheelViewSchema } from "../../core/games/wheel/settings";
import type { Scene, SceneKit } from "../../overlay/scene";
import type { Surface } from "../../overlay/surface";
import { type Knock, knocksOf, pegsOf, pushAt, ringAt, rock, turnedAt, type Turning } from "./motion";
import { namesFit, paintPegs, paintPlate, type Plate, plateKey } from "./plate";
import { paintWheel, plateBox } from "./paint";

/** Smallest letters: a share of the stage's height. */
const leastShare = 0.024;
/** The wheel rests a moment before its result is told, whatever a message takes on its way. */
const earlierMs = 250;
const fadeMs = 400;
/** With a result that stays until the next spin, the plate takes its new order after this. */
const lookMs = 4_000;

type Turn = Turning & Readonly<{ n: number; atMs: number; knocks: readonly Knock[]; pegs: readonly number[] }>;
type Shown = Readonly<{ n: number; label: string; segment: number; by: string; atMs: number; untilMs: number }>;

/** Draws the plate once and turns it: a wheel that rests costs nothing. */
export function wheelScene({ sprites, still, preview = false, paint, knock }: SceneKit): Scene {
  let view: WheelView | null = null;
  /** The plate that is on the picture: the view's, but as it was while a spin and its result are looked at. */
  let plate: Plate | null = null;
  let spin: Turn | null = null;
  let result: Shown | null = null;
  let surface: Surface | null = null;
  let picture: OffscreenCanvas | null = null;
  let pictureKey = "";
  let pegs: readonly number[] = [];
  let rested = 0;
  let restedMs = -Infinity;
  let wokenMs = -Infinity;
  let drawnKey = "";
  let order = 0;
  let quiet: () => void = () => undefined;

  const pointer = (): number => (plate?.looks.pointerAt ?? 0) / 360;
  const take = (next: WheelView): void => {
    plate = { segments: next.segments, arcs: next.arcs, looks: next.looks };
    pegs = pegsOf(next.arcs);
  };
  const begin = (given: Readonly<{ n: number; from: number; to: number; ms: number; seed: number }>, atMs: number): void => {
    if (spin?.n === given.n) return;
    quiet();
    if (view !== null) take(view);
    const turning: Turning = { from: given.from / turn, to: given.to / turn, seconds: (given.ms - earlierMs) / 1000, seed: given.seed };
    const knocks = knocksOf(turning, pegs, pointer());
    spin = { ...turning, n: given.n, atMs, knocks, pegs };
    result = null;
    const { looks } = plate ?? {};
    if (looks?.tick === true && !still)
      quiet =
        knock?.(
          knocks.map((k) => ({ inMs: k.atS * 1000 - (sprites.nowMs - atMs), strength: Math.min(1, 0.35 + k.speed * 0.5) })),
          looks.tickPitch,
          looks.tickVolume / 100,
        ) ?? quiet;
  };
  /** What has ended by now. */
  const goOn = (nowMs: number): void => {
    if (spin !== null && nowMs - spin.atMs >= spin.seconds * 1000) {
      rested = spin.to;
      restedMs = spin.atMs + spin.seconds * 1000;
      spin = null;
    }
    if (result !== null && nowMs >= result.untilMs) result = null;
    const looking = result !== null && nowMs - result.atMs < lookMs;
    if (spin === null && !looking && nowMs - restedMs > earlierMs * 4 && view !== null) {
      if (plate === null || plateKey(plate) !== plateKey(view)) take(view);
      rested = view.spin === null ? view.angle / turn : rested;
    }
  };

  return {
    get live() {
      return view?.on === true ? 1 : 0;
    },
    shown: () =>
      view === null
        ? null
        : {
            turning: spin !== null,
            turned: Math.round(rested * turn),
            result: result?.label ?? null,
            segments: plate?.arcs.length ?? 0,
          },
    setView: (given) => {
      const parsed = wheelViewSchema.safeParse(given);
      if (!parsed.success) return;
      const first = view === null;
      view = parsed.data;
      drawnKey = "";
      if (first || plate === null) {
        take(view);
        rested = view.angle / turn;
        // A page that comes in the middle: it goes on where the others are, by the clocks of both machines.
        if (view.spin !== null) begin(view.spin, sprites.nowMs - Math.min(view.spin.ms, Math.max(0, Date.now() - view.spin.fromMs)));
        else if (view.result !== null && view.panelMs === 0) result = { ...view.result, atMs: sprites.nowMs - lookMs, untilMs: Infinity };
      } else if (spin === null && result === null) goOn(sprites.nowMs);
      // Looks are seen at once, whatever is going on.
      else plate = { ...plate, looks: view.looks };
      for (const s of view.segments) if (s.picture !== "") sprites.id(s.picture);
    },
    effect: (given, nowMs) => {
      const effect = wheelEffectSchema.safeParse(given);
      if (!effect.success || view === null) return;
      const e = effect.data;
      wokenMs = nowMs;
      if (e.do === "spin") begin(e, nowMs);
      else if (e.do === "result") {
        // A page that was held back lets its wheel come to rest first.
        const atMs = Math.max(nowMs, spin === null ? nowMs : spin.atMs + spin.seconds * 1000);
        result = { n: e.n, label: e.label, segment: e.segment, by: e.by, atMs, untilMs: e.ms === 0 ? Infinity : atMs + e.ms };
      } else result = null;
    },
    rehearse: () => undefined,
    clear: (_, atOnce) => {
      quiet();
      result = null;
      if (!atOnce) return;
      drawnKey = "";
      surface?.context?.clearRect(0, 0, surface.canvas.width, surface.canvas.height);
    },
    stack: (n) => {
      order = n;
      if (surface !== null) surface.canvas.style.zIndex = String(order);
    },
    free: () => {
      quiet();
      surface?.free();
    },
    frame: (nowMs, box) => {
      if (view === null || plate === null) return false;
      surface ??= paint();
      surface.canvas.style.zIndex = String(order);
      surface.canvas.style.opacity = String(box.opacity ?? 1);
      const { width, height } = surface.fit(box, box.stageWidth ?? box.width);
      goOn(nowMs);
      const there = visible(view, nowMs);
      const least = (box.stageWidth ?? box.width) * 0.5625 * surface.scale * leastShare;
      const listed = !namesFit(plate, plateBox(width, height, false, plate.looks.panel).r, least);
      const side = Math.max(16, Math.round(plateBox(width, height, listed, plate.looks.panel).r * 2));
      if (there > 0) repaint(plate, side, least, box.letters ?? 0);
      const seconds = spin === null ? 0 : (nowMs - spin.atMs) / 1000;
      const turned = spin === null ? rested + (still ? 0 : rock((nowMs - restedMs) / 1000)) : still ? spin.from : turnedAt(spin, seconds);
      const lean = still ? 0 : Math.max(pushAt(turned, pegs, pointer()), spin === null ? 0 : ringAt(spin.knocks, seconds));
      const told = result !== null && nowMs >= result.atMs ? result : null;
      const rocks = nowMs - restedMs < 1_300;
      const comes = told !== null && nowMs - told.atMs < 1_000;
      const goes = told !== null && told.untilMs - nowMs < fadeMs;
      const waits = result !== null || nowMs - restedMs < earlierMs * 4 + 200 || (there > 0 && view.looks.show === "spins");
      const moves = (spin !== null && !still) || (rocks && !still) || comes || goes || (there > 0 && there < 1);
      const key = `${width} ${height} ${there} ${turned.toFixed(6)} ${told?.n ?? 0} ${pictureKey}`;
      if (!moves && key === drawnKey) return waits || spin !== null;
      drawnKey = moves ? "" : key;
      if (surface.context !== null)
        paintWheel(surface.context, {
          plate,
          picture,
          width,
          height,
          least,
          there,
          turned,
          lean,
          result:
            told === null
              ? null
              : {
                  label: told.label,
                  segment: told.segment,
                  by: told.by,
                  sinceS: still ? 9 : (nowMs - told.atMs) / 1000,
                  leaves: Math.max(0, Math.min(1, (told.untilMs - nowMs) / fadeMs)),
                },
          list: listed ? listed7(plate, turned) : null,
          sprites,
        });
      return moves || waits || spin !== null;
    },
  };

  /** The plate itself, painted anew only when it changed, or a picture or font came in. */
  function repaint(now: Plate, side: number, least: number, letters: number): void {
    const ready = now.segments.map((s) => (s.picture === "" ? 1 : sprites.get(sprites.id(s.picture))?.picture == null ? 0 : 2)).join("");
    const own = [now.looks.middle, now.looks.pointerPicture].map((k) =>
      k === "" ? 1 : sprites.get(sprites.id(k))?.picture == null ? 0 : 2,
    );
    const key = `${side} ${letters} ${ready} ${own.join("")} ${plateKey(now)}`;
    if (key === pictureKey) return;
    pictureKey = key;
    if (picture?.width !== side) picture = new OffscreenCanvas(side, side);
    const context = picture.getContext("2d");
    if (context === null) return;
    paintPlate(context, now, side, least, sprites);
    paintPegs(context, pegs, side);
  }

  /** The seven around the pointer, in the order in which they come under it. */
  function listed7({ arcs, segments }: Plate, turned: number) {
    const point = ((((pointer() - turned) % 1) + 1) % 1) * turn;
    const at = Math.max(
      0,
      arcs.findIndex((a) => point >= a.from && point < a.to),
    );
    return [3, 2, 1, 0, -1, -2, -3].map((by) => {
      const segment = segments[arcs[(at - by + arcs.length * 3) % arcs.length]?.segment ?? 0];
      return { label: segment?.label ?? "", colour: segment?.colour ?? "#6A5B4B", here: by === 0 };
    });
  }

  /** 0 away, 1 there: always, or from a spin until its result has gone. */
  function visible(v: WheelView, nowMs: number): number {
    if (!v.on && spin === null) return 0;
    if (v.looks.show === "always" || preview) return 1;
    if (spin !== null) return Math.min(1, (nowMs - wokenMs) / fadeMs + 0.01);
    if (result === null) return nowMs - restedMs < 1_500 ? 1 : 0;
    return Math.min(1, Math.max(0, (result.untilMs - nowMs) / fadeMs));
  }
}
