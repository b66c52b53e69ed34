import { type Boss, bossEffectSchema, type BossView, bossViewSchema } from "../../core/games/boss-battle/settings";
import { mix32 } from "../../core/kernel/chance";
import { count } from "../../core/words/sentence";
import type { Scene, SceneKit } from "../../overlay/scene";
import type { Surface } from "../../overlay/surface";
import { drawFigure, shade } from "./draw";
import { type Blow, ease, fallMs, forceOf, recoil, recoilS, settle, shard, type Shard, shardS } from "./play";

type Look = Readonly<{ name: string; figure: string }>;
type Burst = Readonly<{ atMs: number; seed: number; count: number; power: number; x: number; y: number }>;
type Word = Readonly<{ atMs: number; text: string; colour: string; side: number }>;
type Fall = Readonly<{ atMs: number; fallen: Look; next: Look; seed: number }>;

const drainMs = 650;
const wordMs = 1_700;
const leaveMs = 500;
const display = '"Bricolage Grotesque Variable","Noto Color Emoji",sans-serif';
const seedOf = (text: string): number => [...text].reduce((h, c) => mix32(h, c.codePointAt(0) ?? 0), 7);

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
  const one: Shard = { x: 0, y: 0, angle: 0, size: 0, alpha: 0, glazed: false };

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
      surface?.pen?.clearRect(0, 0, surface.canvas.width, surface.canvas.height);
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
      const key = `${width} ${height} ${there} ${levelAt(nowMs)} ${pictureReady(view.figure)}`;
      if (!moves && key === drawnKey) return waits;
      drawnKey = moves ? "" : key;
      paintAll(view, surface, nowMs, width, height, there, (box.stageWidth ?? box.width) * 0.5625 * surface.scale);
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

  function paintAll(v: BossView, { pen }: Surface, nowMs: number, width: number, height: number, there: number, stageHeight: number): void {
    if (pen === null) return;
    pen.setTransform(1, 0, 0, 1, 0, 0);
    pen.clearRect(0, 0, width, height);
    if (there <= 0) return;
    pen.globalAlpha = there;
    const { looks } = v;
    // No text on the picture is smaller than 2.2 % of its height.
    const small = Math.max(stageHeight * 0.026, height * 0.042);
    const large = Math.max(stageHeight * 0.034, height * 0.062);
    const nameRoom = looks.name ? large * 1.35 : 0;
    const foot = (looks.band ? small * 1.25 : looks.numbers ? small * 1.3 : 0) + (looks.call === "" ? 0 : small * 1.5);
    const side = looks.figure ? Math.max(10, Math.min(width * 0.92, height - nameRoom - foot - height * 0.04)) : 0;
    const left = (width - side) / 2;
    const top = nameRoom + (height - nameRoom - foot - side) * 0.6;
    const sinceFall = fall === null ? Infinity : nowMs - fall.atMs;
    if (looks.figure) {
      pen.save();
      paintFigure(v, pen, nowMs, left, top, side, sinceFall);
      pen.restore();
      paintShards(v, pen, nowMs, left, top, side);
    }
    const look = fall !== null && sinceFall < fallMs.burst ? fall.fallen : (fall?.next ?? { name: v.name, figure: v.figure });
    if (looks.name) paintText(pen, look.name, width / 2, large * 0.72, large, looks.text, width * 0.96);
    paintHealth(v, pen, nowMs, width, top + side + height * 0.02, small, sinceFall);
    if (looks.call !== "") paintText(pen, looks.call, width / 2, height - small * 0.75, small, looks.text, width * 0.96);
    words.forEach((word) => {
      const u = (nowMs - word.atMs) / wordMs;
      pen.globalAlpha = there * Math.min(1, (1 - u) * 3);
      const rise = still ? 0 : ease(Math.min(1, u * 1.4)) * side * 0.32;
      const size = small * (still ? 1 : 0.9 + 0.25 * settle(u * wordMs, 300));
      // Beside the middle, but never over the edge.
      pen.font = `700 ${size}px ${display}`;
      const free = Math.max(0, (width * 0.96 - Math.min(width * 0.94, pen.measureText(word.text).width)) / 2);
      const middle = width / 2 + Math.max(-free, Math.min(free, word.side * side * 0.3));
      paintText(pen, word.text, middle, top + side * 0.4 - rise, size, word.colour, width * 0.94);
    });
  }

  function paintFigure(
    v: BossView,
    pen: CanvasRenderingContext2D,
    nowMs: number,
    left: number,
    top: number,
    side: number,
    sinceFall: number,
  ): void {
    const { looks } = v;
    let look: Look = { name: v.name, figure: v.figure };
    let level = levelAt(nowMs);
    let scaleX = 1;
    let scaleY = 1;
    let dx = 0;
    let dy = 0;
    let lean = 0;
    let cracked = Math.max(0, 1 - Math.max(0, level) * 1.02);
    if (fall !== null && sinceFall < fallMs.full) {
      if (sinceFall < fallMs.burst) {
        look = fall.fallen;
        // Anticipation: it holds its breath, trembles harder and harder, swells.
        const u = sinceFall / fallMs.shake;
        if (!still) {
          dx = Math.sin(sinceFall / 17) * 0.025 * u * u;
          lean = Math.sin(sinceFall / 23) * 0.05 * u;
          scaleX = scaleY = 1 - 0.05 * Math.sin(Math.min(1, u * 2) * Math.PI) + 0.13 * u ** 4;
        }
        level = Math.max(0, level * (1 - u));
        cracked = 0.6 + 0.4 * u;
      } else if (sinceFall < fallMs.enter) return;
      else {
        look = fall.next;
        cracked = 0;
        const drop = (sinceFall - fallMs.enter) / (fallMs.land - fallMs.enter);
        const landed = (sinceFall - fallMs.land) / 1000;
        if (drop < 1) {
          dy = still ? 0 : -(1 - drop * drop) * 1.25;
          scaleX = still ? 1 : 0.94;
          scaleY = still ? 1 : 1.07;
          level = 0;
        } else {
          const ring = still ? 0 : Math.exp(-6 * landed) * Math.cos(20 * landed);
          scaleX = 1 + 0.16 * ring;
          scaleY = 1 - 0.18 * ring;
          level = ease((sinceFall - fallMs.land - 120) / (fallMs.full - fallMs.land - 120)) * (v.max > 0 ? v.health / v.max : 1);
        }
      }
    } else {
      const r = recoil(blows, nowMs);
      dx = r.x;
      dy = r.y;
      lean = r.lean;
      scaleX = 1 + r.squash;
      scaleY = 1 - r.squash * 0.8;
    }
    const last = blows[blows.length - 1];
    const hurt = last === undefined ? 0 : Math.max(0, 1 - (nowMs - last.atMs) / 420) * Math.min(1, last.force + 0.35);
    pen.translate(left + side / 2 + dx * side, top + side * 0.96 + dy * side);
    pen.rotate(lean);
    pen.scale((side / 100) * scaleX, (side / 100) * scaleY);
    pen.translate(-50, -96);
    const own = look.figure.startsWith("prop:") ? (sprites.get(sprites.id(look.figure)) ?? null) : null;
    drawFigure(pen, look.figure, own, {
      level,
      cracked,
      crackSeed: seedOf(look.name) ^ (v.falls + (fall !== null && sinceFall < fallMs.burst ? -1 : 0)),
      clay: looks.clay,
      glaze: looks.glaze,
      mirrored: looks.mirrored,
      hurt: still ? 0 : hurt,
      sway: still ? 0 : Math.min(1, Math.abs(lean) * 6 + Math.max(0, 1 - (nowMs - shownAtMs) / 900) * 0.5),
      nowMs,
    });
  }

  function paintShards(v: BossView, pen: CanvasRenderingContext2D, nowMs: number, left: number, top: number, side: number): void {
    for (const burst of bursts) {
      const tS = (nowMs - burst.atMs) / 1000;
      for (let i = 0; i < burst.count; i += 1) {
        if (!shard(burst.seed, i, tS, burst, burst.power, one)) continue;
        pen.save();
        pen.globalAlpha = Math.max(0, one.alpha);
        pen.translate(left + one.x * side, top + one.y * side);
        pen.rotate(one.angle);
        const s = one.size * side;
        pen.fillStyle = one.glazed ? v.looks.glaze : shade(v.looks.clay, -0.1);
        pen.strokeStyle = "#241913";
        pen.lineWidth = Math.max(1, side * 0.006);
        pen.beginPath();
        pen.moveTo(-s, -s * 0.5);
        pen.lineTo(s * 0.9, -s * 0.8);
        pen.lineTo(s * 0.5, s);
        pen.lineTo(-s * 0.7, s * 0.6);
        pen.closePath();
        pen.fill();
        pen.stroke();
        pen.restore();
      }
    }
  }

  function paintHealth(
    v: BossView,
    pen: CanvasRenderingContext2D,
    nowMs: number,
    width: number,
    y: number,
    small: number,
    sinceFall: number,
  ): void {
    const { looks } = v;
    if (!looks.band && !looks.numbers) return;
    const filling = fall !== null && sinceFall >= fallMs.enter;
    const share = filling ? ease((sinceFall - fallMs.land) / 900) * (v.max > 0 ? v.health / v.max : 1) : levelAt(nowMs);
    const max = fall !== null && !filling ? dyingMax : v.max;
    const h = small * 1.15;
    const w = Math.min(width * 0.86, h * 14);
    const x = (width - w) / 2;
    if (looks.band) {
      pen.fillStyle = "rgba(16,19,27,.72)";
      pen.beginPath();
      roundRect(pen, x, y, w, h, h * 0.3);
      pen.fill();
      pen.save();
      pen.beginPath();
      roundRect(pen, x + h * 0.1, y + h * 0.1, w - h * 0.2, h * 0.8, h * 0.22);
      pen.clip();
      pen.fillStyle = shade(looks.clay, -0.25);
      pen.fillRect(x, y, w, h);
      pen.fillStyle = looks.glaze;
      pen.fillRect(x, y, w * Math.min(1, Math.max(0, share)), h);
      pen.fillStyle = "rgba(255,255,255,.22)";
      pen.fillRect(x, y + h * 0.12, w * Math.min(1, Math.max(0, share)), h * 0.22);
      pen.restore();
    }
    if (looks.numbers)
      paintText(pen, `${count(Math.round(share * max))} / ${count(max)}`, width / 2, y + h / 2, small * 0.9, looks.text, w);
  }

  function paintText(pen: CanvasRenderingContext2D, text: string, x: number, y: number, size: number, colour: string, most: number): void {
    pen.font = `700 ${size}px ${display}`;
    pen.textAlign = "center";
    pen.textBaseline = "middle";
    pen.lineJoin = "round";
    pen.lineWidth = size * 0.2;
    pen.strokeStyle = "rgba(16,19,27,.85)";
    pen.strokeText(text, x, y, most);
    pen.fillStyle = colour;
    pen.fillText(text, x, y, most);
  }
}

/** `roundRect` is newer than the oldest browser overlays run in. */
function roundRect(pen: CanvasRenderingContext2D, x: number, y: number, w: number, h: number, r: number): void {
  pen.moveTo(x + r, y);
  pen.arcTo(x + w, y, x + w, y + h, r);
  pen.arcTo(x + w, y + h, x, y + h, r);
  pen.arcTo(x, y + h, x, y, r);
  pen.arcTo(x, y, x + w, y, r);
  pen.closePath();
}
