import type { z } from "zod";
import { entranceMs, enter, type Entrance, exit, type Exit, exitMs } from "./motion";
import { lookNow } from "./dress";
import { type CardWords, paintCard } from "./card";
import type { Box } from "./box";
import { leastLetter, OwnSurface } from "./own-surface";
import type { Scene, SceneKit } from "./scene";

/** A card that is there, and what goes when it is not any more. */
type There<T> = Readonly<{ n: number; card: T; sinceMs: number }>;
export type CardLooks = Readonly<{ entrance: Entrance; exit: Exit }>;

/**
 * One card after another in a place: it comes in, stands, and goes by the words that are set. Draws only while something
 * moves. Used by whatever shows people on cards.
 */
export class CardStage<T> {
  private readonly surface: OwnSurface;
  private now: There<T> | null = null;
  private leaving: There<T> | null = null;
  private drawnKey = "";
  private first = true;

  constructor(private readonly kit: SceneKit) {
    this.surface = new OwnSurface(kit.paint);
  }

  get live(): number {
    return this.now === null ? 0 : 1;
  }
  get shown(): T | null {
    return this.now?.card ?? null;
  }

  /** The card that is to be there now, by its number; null for none. Who joins in the middle sees it at rest. */
  put(n: number, card: T | null, nowMs: number): void {
    const first = this.first;
    this.first = false;
    this.drawnKey = "";
    if (card !== null && this.now?.n === n) {
      this.now = { ...this.now, card };
      return;
    }
    if (this.now !== null) this.leaving = { ...this.now, sinceMs: nowMs };
    this.now = card === null ? null : { n, card, sinceMs: first ? -60_000 : nowMs };
  }

  clear(atOnce: boolean): void {
    if (!atOnce) return;
    this.leaving = null;
    this.drawnKey = "";
    this.surface.empty();
  }
  stack(order: number): void {
    this.surface.stack(order);
  }
  free(): void {
    this.surface.free();
  }

  /** Draws this frame; whether something still moves. `mark` changes when what is drawn does, though nothing moves. */
  frame(nowMs: number, box: Box, looks: CardLooks, on: boolean, mark: string, words: (card: T) => CardWords): boolean {
    const { still, preview = false } = this.kit;
    const { pace } = lookNow();
    const inMs = entranceMs[looks.entrance] * pace;
    const outMs = exitMs[looks.exit] * pace;
    if (this.leaving !== null && nowMs - this.leaving.sinceMs > outMs) {
      this.leaving = null;
      this.drawnKey = "";
    }
    const moves = this.leaving !== null || (this.now !== null && nowMs - this.now.sinceMs < inMs);
    const room = grown(box);
    const { width, height, scale, context } = this.surface.fit(room);
    const key = `${on} ${this.now?.n ?? "-"} ${width} ${height} ${box.letters ?? 0} ${mark} ${preview}`;
    if (!moves && key === this.drawnKey) return false;
    this.drawnKey = moves ? "" : key;
    if (context === null) return moves;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, width, height);
    if (!on) return moves;
    const [w, h] = [box.width * scale, box.height * scale];
    const least = leastLetter(box, scale);
    const at = (there: There<T>, pose: Parameters<typeof paintCard>[5]): void => {
      context.setTransform(1, 0, 0, 1, (box.x - room.x) * scale + w / 2, (box.y - room.y) * scale + h / 2);
      paintCard(context, words(there.card), w, h, least, pose, nowMs - there.sinceMs);
    };
    if (this.leaving !== null) at(this.leaving, exit(looks.exit, (nowMs - this.leaving.sinceMs) / outMs, still));
    if (this.now !== null) at(this.now, enter(looks.entrance, Math.min(1, (nowMs - this.now.sinceMs) / inMs), still));
    context.setTransform(1, 0, 0, 1, 0, 0);
    return moves;
  }
}

/** Room around a place to come from and to go to, within the stage. */
function grown(box: Box): Box {
  const stage = box.stageWidth ?? box.width;
  const high = stage * 0.5625;
  const [left, top] = [Math.max(0, box.x - box.height * 1.2), Math.max(0, box.y - box.height * 1.1)];
  const right = Math.min(Math.max(stage, box.x + box.width), box.x + box.width + box.height * 1.2);
  const bottom = Math.min(Math.max(high, box.y + box.height), box.y + box.height * 2.1);
  return { ...box, x: left, y: top, width: right - left, height: bottom - top };
}

/** What a scene of cards has of its own: `V` is its view, `T` a card. */
export type CardRules<V, T> = Readonly<{
  view: z.ZodType<V>;
  card: (view: V) => T | null;
  /** In a preview, while there is no card: somebody made up, so that one sees what one sets up. */
  example: T;
  /** What a reader of the page is told of a card. */
  shown: (card: T, view: V) => unknown;
  words: (card: T, view: V) => CardWords;
}>;

/** A game that is nothing but one card after another. */
export function cardScene<V extends Readonly<{ on: boolean; looks: CardLooks }>, T extends Readonly<{ n: number }>>(
  kit: SceneKit,
  rules: CardRules<V, T>,
): Scene {
  let view: V | null = null;
  const stage = new CardStage<T>(kit);
  const { sprites } = kit;
  return {
    get live() {
      return view?.on === true ? stage.live : 0;
    },
    shown: () => (view === null || stage.shown === null ? null : rules.shown(stage.shown, view)),
    setView: (given) => {
      const parsed = rules.view.safeParse(given);
      if (!parsed.success) return;
      view = parsed.data;
      const card = rules.card(view) ?? (kit.preview === true ? rules.example : null);
      stage.put(card?.n ?? 0, view.on ? card : null, sprites.nowMs);
    },
    effect: () => undefined,
    rehearse: () => undefined,
    clear: (_, atOnce) => stage.clear(atOnce),
    stack: (order) => stage.stack(order),
    free: () => stage.free(),
    frame: (nowMs, box) => {
      const of = view;
      if (of === null) return false;
      const mark = `${sprites.loads} ${JSON.stringify(of.looks)}`;
      return stage.frame(nowMs, box, of.looks, of.on, mark, (card) => rules.words(card, of));
    },
  };
}
