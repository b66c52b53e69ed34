import { leastLetter, OwnSurface } from "../../overlay/own-surface";
import type { Scene, SceneKit } from "../../overlay/scene";
import { paintJars } from "./paint";
import { shownNow } from "./shown-now";
import { type PredictionView, type Shown, viewSchema } from "./view";

/** After a result, or when it was cancelled, it stays so long. */
const leaveMs = 20_000;
const fadeMs = 500;
/** How fast a jar follows what backs it: half of the way in so long. */
const followMs = 220;

/** A row of jars that fill with what backs them. Redrawn only while something moves. */
export function predictionScene({ still, preview = false, paint }: SceneKit): Scene {
  let view: PredictionView | null = null;
  let shown: Shown | null = null;
  const surface = new OwnSurface(paint);
  let fill: number[] = [];
  let overMs = -Infinity;
  let drawnKey = "";
  let lastMs = 0;
  /** Until the next frame: the clock of pages is not that of messages. */
  let fresh = false;
  let changed = false;

  return {
    get live() {
      return shown?.live === true ? 1 : 0;
    },
    shown: () =>
      shown === null
        ? null
        : { title: shown.title, result: shown.result, jars: shown.jars.map((j) => j.share), live: shown.live, over: shown.over },
    setView: (given) => {
      const parsed = viewSchema.safeParse(given);
      if (!parsed.success) return;
      const before = shown;
      const first = view === null;
      view = parsed.data;
      shown = shownNow(view, preview);
      drawnKey = "";
      if (shown === null) return;
      if (before?.key !== shown.key) fill = shown.jars.map(() => 0);
      // What was over before this page came is not shown again.
      if (first && shown.over !== "" && !shown.live) overMs = -Infinity;
      else if (shown.over !== "" && before?.over !== shown.over) fresh = true;
      changed = true;
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
    frame: (now, box) => {
      if (view === null) return false;
      const { width, height, scale, context } = surface.fit(box);
      if (fresh) overMs = now;
      fresh = false;
      const there = visible(view, shown, now);
      if (shown === null) {
        if (drawnKey !== "none") surface.empty();
        drawnKey = "none";
        return false;
      }
      const flows = follow(shown, now);
      const leftMs = shown.locksMs > 0 ? Math.max(0, shown.locksMs - Date.now()) : 0;
      const clock = shown.locksMs > 0 ? Math.ceil(leftMs / 1000) : -1;
      const whole = Math.max(1, shown.locksMs - shown.openedMs);
      const moves = !still && (flows || now - overMs < 1_600 || (there > 0 && there < 1));
      const waits = clock >= 0 || now - overMs < leaveMs + fadeMs;
      const key = `${width} ${height} ${there} ${clock} ${changed ? now : 0}`;
      changed = false;
      if (!moves && key === drawnKey) return waits;
      drawnKey = moves ? "" : `${width} ${height} ${there} ${clock} 0`;
      if (context !== null)
        paintJars(context, {
          shown,
          looks: view.looks,
          fill,
          nowMs: now,
          width,
          height,
          least: leastLetter(box, scale),
          there,
          clock,
          left: shown.openedMs > 0 ? Math.min(1, leftMs / whole) : 1,
          resultS: still ? 9 : (now - overMs) / 1000,
          still,
        });
      return moves || waits;
    },
  };

  /** Jars follow what backs them, however far apart frames are. True while they flow. */
  function follow(now: Shown, nowMs: number): boolean {
    const part = still ? 1 : 1 - 0.5 ** (Math.min(400, Math.max(0, nowMs - lastMs)) / followMs);
    lastMs = nowMs;
    const highest = Math.max(1, ...now.jars.map((j) => j.share));
    let flows = false;
    fill = now.jars.map((jar, i) => {
      // The fullest jar is nearly full, so that small differences are seen.
      const wanted = (jar.share / highest) * 0.92;
      const before = fill[i] ?? 0;
      if (Math.abs(wanted - before) < 0.003) return wanted;
      flows = true;
      return before + (wanted - before) * part;
    });
    return flows;
  }

  /** 0 away, 1 there: from its opening until a while after its end. */
  function visible(v: PredictionView, now: Shown | null, ms: number): number {
    if (!v.on || now === null) return 0;
    if (now.live || preview) return 1;
    return Math.max(0, Math.min(1, (overMs + leaveMs - ms) / fadeMs));
  }
}
