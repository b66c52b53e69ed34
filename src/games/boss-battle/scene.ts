import { type Boss, bossEffectSchema, type BossView, bossViewSchema } from "../../core/games/boss-battle/settings";
import { mix32 } from "../../core/kernel/chance";
import { count } from "../../core/words/sentence";
import type { Scene, SceneKit } from "../../overlay/scene";
import { shade } from "../../overlay/colour";
import { ease } from "../../overlay/motion";
import type { Surface } from "../../overlay/surface";
import { type Burst, drainMs, type Fall, type Look, paintBoss, type Word, wordMs } from "./paint";
import { type Blow, fallMs, forceOf, recoilS, shardS } from "./play";

const leaveMs = 500;

/** Draws the boss on a surface of its own, and only while something moves: a boss nobody strikes costs nothing. */
export function bossScene({ sprites, still, paint }: SceneKit): Scene {
  let view: BossView | null = null;
  let surface: Surface | null = null;
  let shownFrom = 1;
  let shownTo = 1;
  let shownAtMs = 0;
  let stirredMs = -Infinity;
  let blows: Blow[] = [];
  let bursts: Burst[] = [];
  let words: Word[] = [];
  let fall: Fall | null = null;
  let order = 0;
  let drawnKey = "";
  /** Full health of the boss that is falling, for the numbers under it. */
  let dyingMax = 1;

  const levelAt = (nowMs: number): number => shownFrom + (shownTo - shownFrom) * ease((nowMs - shownAtMs) / drainMs);
  const drainTo = (share: number, nowMs: number): void => {
    if (share === shownTo) return;
    shownFrom = levelAt(nowMs);
    shownTo = share;
    shownAtMs = nowMs;
  };
  const lookOf = (boss: Boss): Look => ({ name: boss.name, figure: boss.figure });
  const say = (text: string, colour: string, nowMs: number, seed: number): void => {
    words = [...words.slice(-5), { atMs: nowMs, text, colour, side: (seed % 1000) / 1000 - 0.5 }];
  };

  return {
    get live() {
      return view?.on === true ? 1 : 0;
    },
    solid: () => view !== null && visible(view, sprites.nowMs) > 0,
    shown: () => (view === null ? null : { name: fall?.next.name ?? view.name, health: view.health, max: view.max }),
    setView: (given) => {
      const parsed = bossViewSchema.safeParse(given);
      if (!parsed.success) return;
      const first = view === null;
      if (fall === null || view === null) dyingMax = parsed.data.max;
      view = parsed.data;
      drawnKey = "";
      const share = view.max > 0 ? view.health / view.max : 0;
      if (first) shownFrom = shownTo = share;
      // While a fall is played the glaze is its own; it ends at the new boss's.
      else if (fall === null) drainTo(share, sprites.nowMs);
      if (view.looks.show === "always") stirredMs = Math.max(stirredMs, 0);
    },
    effect: (given, nowMs) => {
      const effect = bossEffectSchema.safeParse(given);
      if (!effect.success || view === null || !view.on) return;
      const e = effect.data;
      stirredMs = nowMs;
      const share = e.max > 0 ? e.health / e.max : 0;
      const { looks } = view;
      switch (e.do) {
        case "hit": {
          const force = still ? 0 : forceOf(e.amount / Math.max(1, e.max), looks.weight);
          blows = [...blows.slice(-7), { atMs: nowMs, force, seed: e.seed }];
          if (force > 0)
            bursts = [
              ...bursts.slice(-5),
              {
                atMs: nowMs,
                seed: e.seed,
                count: Math.round(3 + force * 12),
                power: 0.5 + force * 0.7,
                x: 0.35 + 0.3 * ((e.seed % 997) / 997),
                y: 0.45,
              },
            ];
          drainTo(share, nowMs);
          if (looks.lastHit) say(`−${count(e.amount)}  ${e.name}`, "#FBF8F2", nowMs, e.seed);
          return;
        }
        case "heal":
          drainTo(share, nowMs);
          if (looks.lastHit) say(`+${count(e.amount)}  ${e.name}`, shade(looks.glaze, 0.55), nowMs, e.seed);
          return;
        case "mend":
          drainTo(share, nowMs);
          return;
        case "fall": {
          if (looks.lastHit) say(`−${count(e.amount)}  ${e.name}`, "#FBF8F2", nowMs, e.seed);
          // Another fall while one is played: it goes on, and whoever came last comes in.
          const playing = fall !== null && nowMs - fall.atMs < fallMs.enter;
          fall =
            playing && fall !== null
              ? { ...fall, next: lookOf(e.next) }
              : { atMs: nowMs, fallen: lookOf(e.fallen), next: lookOf(e.next), seed: e.seed };
          if (!playing) {
            shownFrom = levelAt(nowMs);
            shownTo = 0;
            shownAtMs = nowMs;
            bursts = [
              ...bursts.slice(-4),
              { atMs: nowMs + fallMs.burst, seed: mix32(e.seed, 5), count: still ? 6 : 46, power: still ? 0.5 : 1.35, x: 0.5, y: 0.55 },
            ];
          }
          return;
        }
      }
    },
    rehearse: () => undefined,
    clear: (_, atOnce) => {
      blows = [];
      bursts = [];
      words = [];
      if (!atOnce) return;
      fall = null;
      drawnKey = "";
      surface?.context?.clearRect(0, 0, surface.canvas.width, surface.canvas.height);
    },
    stack: (n) => {
      order = n;
      if (surface !== null) surface.canvas.style.zIndex = String(order);
    },
    free: () => surface?.free(),
    frame: (nowMs, box) => {
      if (view === null) return false;
      surface ??= paint();
      surface.canvas.style.zIndex = String(order);
      surface.canvas.style.opacity = String(box.opacity ?? 1);
      const { width, height } = surface.fit(box, box.stageWidth ?? box.width);
      blows = blows.filter((b) => nowMs - b.atMs < recoilS * 1000);
      bursts = bursts.filter((b) => nowMs - b.atMs < shardS * 1000);
      words = words.filter((w) => nowMs - w.atMs < wordMs);
      if (fall !== null && nowMs - fall.atMs > fallMs.full) {
        fall = null;
        dyingMax = view.max;
        shownFrom = shownTo = view.max > 0 ? view.health / view.max : 0;
      }
      const there = visible(view, nowMs);
      const moves =
        blows.length + bursts.length + words.length > 0 || fall !== null || nowMs - shownAtMs < drainMs || (there > 0 && there < 1);
      const waits = view.looks.show === "after-hit" && there > 0;
      const key = `${width} ${height} ${box.letters ?? 0} ${there} ${levelAt(nowMs)} ${pictureReady(view.figure)}`;
      if (!moves && key === drawnKey) return waits;
      drawnKey = moves ? "" : key;
      if (surface.context !== null)
        paintBoss(surface.context, {
          view,
          nowMs,
          width,
          height,
          there,
          stageHeight: (box.stageWidth ?? box.width) * 0.5625 * surface.scale,
          sinceFall: fall === null ? Infinity : nowMs - fall.atMs,
          fall,
          blows,
          bursts,
          words,
          level: levelAt(nowMs),
          drainingMs: nowMs - shownAtMs,
          dyingMax,
          still,
          sprites,
        });
      return moves || waits;
    },
  };

  function pictureReady(figure: string): boolean {
    return figure.startsWith("prop:") && sprites.get(sprites.id(figure))?.picture !== null;
  }

  /** 0 away, 1 there: always, or for a while after each hit. */
  function visible(v: BossView, nowMs: number): number {
    if (!v.on) return 0;
    if (v.looks.show === "always") return 1;
    const since = nowMs - stirredMs;
    return since < 0 ? 0 : Math.min(1, since / 250) * Math.min(1, Math.max(0, (v.looks.showMs - since) / leaveMs));
  }
}
