import { ok, refused, type Result } from "../kernel/refusal";
import type { StepContext } from "../module/module";
import { afterSale, inPoints, type MovingPrice, type PriceAt, priceNow } from "../points/price";
import { mayAs } from "../signals/signal";
import type { Viewer } from "../signals/names";
import type { LedgerView } from "./ledger-view";
import { givesNothing, type Reward } from "./settings";

export type Asking = Readonly<{
  viewer: Viewer;
  text: string;
  atMs: number;
  onAir: boolean;
  /** The price the viewer was shown; null where none was. */
  shownPrice: number | null;
  /** A game it plays with that rests at the moment; null when all are there. */
  /** What of it is not there any more. */
  gone: string | null;
  rests: string | null;
  pointsName: string;
}>;
/** A sale that may be made: what is paid, and where a moving price stands after it. */
export type Offer = Readonly<{ price: number; priceAfter: PriceAt | null; held: boolean }>;

const movingOf = (reward: Reward): MovingPrice | null => (reward.moving === null ? null : { floor: reward.price, ...reward.moving });

/** What a reward costs now, in points. */
export function costOf(reward: Reward, ledgerView: Pick<LedgerView, "priceAt">, nowMs: number): number {
  const moving = movingOf(reward);
  return moving === null ? reward.price : inPoints(priceNow(moving, ledgerView.priceAt(reward.id), nowMs));
}

/** A time ahead of now was set by a clock that has been set right since: nothing rests longer than it rests. */
const freeAt = (fromMs: number | null, restMs: number, nowMs: number): number =>
  fromMs === null || restMs === 0 ? 0 : Math.min(fromMs, nowMs) + restMs;
const waitS = (freeAtMs: number, nowMs: number): number => Math.ceil(Math.max(0, freeAtMs - nowMs) / 1000);

/**
 * Whether a viewer may buy this now; the first check that fails answers, in the order of RULES section 9:
 * on → does something → on air → (what it plays with is there) → role → text → show limit → own limit → stock → own cooldown → shared cooldown → balance.
 * `atMs` is the time in the single writer, not of when it was asked.
 */
export function redeem(reward: Reward, ledgerView: LedgerView, asking: Asking): Result<Offer> {
  const { viewer, atMs } = asking;
  const about = { reward: reward.name };
  if (!reward.on) return refused("reward/off", about);
  if (givesNothing(reward)) return refused("reward/empty", about);
  if (reward.onlyOnAir && !asking.onAir) return refused("reward/off-air", about);
  if (asking.gone !== null) return refused("reward/gone-thing", { ...about, what: asking.gone });
  if (asking.rests !== null) return refused("reward/game-rests", { ...about, game: asking.rests });
  if (reward.keptFor !== "" && reward.keptFor !== viewer.id) return refused("reward/kept", about);
  if (!mayAs(viewer, reward.roles)) return refused("reward/role", about);
  if (reward.text.how === "must" && asking.text.trim() === "") return refused("reward/text", { ...about, asks: reward.text.asks });
  if (reward.perShow > 0 && ledgerView.soldInShow(reward.id) >= reward.perShow)
    return refused("reward/show-limit", { ...about, most: reward.perShow });
  if (reward.perViewerShow > 0 && ledgerView.soldInShowTo(reward.id, viewer.id) >= reward.perViewerShow)
    return refused("reward/own-limit", { ...about, most: reward.perViewerShow });
  if (reward.stock > 0 && ledgerView.sold(reward.id) >= reward.stock) return refused("reward/sold-out", about);
  // Those that wait for a yes get a code each as well.
  const promised =
    reward.codes.length === 0 ? 0 : ledgerView.handed(reward.id) + ledgerView.waiting().filter((s) => s.rewardId === reward.id).length;
  if (reward.codes.length > 0 && promised >= reward.codes.length) return refused("reward/sold-out", about);
  const ownMs = freeAt(ledgerView.lastToMs(reward.id, viewer.id), reward.ownRestMs, atMs);
  if (ownMs > atMs) return refused("reward/own-rest", { ...about, freeInS: waitS(ownMs, atMs), freeAtMs: ownMs });
  const sharedMs = freeAt(ledgerView.lastMs(reward.id), reward.sharedRestMs, atMs);
  if (sharedMs > atMs) return refused("reward/rest", { ...about, freeInS: waitS(sharedMs, atMs), freeAtMs: sharedMs });
  const price = costOf(reward, ledgerView, atMs);
  // Nobody pays more than they were shown: they are asked again.
  if (asking.shownPrice !== null && price > asking.shownPrice)
    return refused("reward/dearer", { ...about, price, shown: asking.shownPrice });
  const has = ledgerView.balance(viewer.id);
  if (has < price) return refused("reward/too-poor", { ...about, price, has, lacks: price - has, name: asking.pointsName });
  const moving = movingOf(reward);
  return ok({
    price,
    priceAfter: moving === null ? null : afterSale(moving, ledgerView.priceAt(reward.id), atMs),
    held: reward.approval,
  });
}

/** What this reward would do something with and that is not there any more; null when all is there. Nobody pays for that. */
export function goneThing(reward: Reward, { has }: Pick<StepContext, "has">): "game" | "cue" | "picture" | "sound" | null {
  for (const effect of reward.effects) {
    if ((effect.do === "act" || effect.do === "switch") && !has("game", effect.game)) return "game";
    if (effect.do === "cue" && !has("cue", effect.cue)) return "cue";
    if (effect.do === "show" && effect.picture !== "" && !has("picture", effect.picture)) return "picture";
    if ((effect.do === "show" || effect.do === "sound") && effect.sound !== "" && !has("sound", effect.sound)) return "sound";
  }
  return null;
}

/** The name of a game that this reward plays with and that rests; what it would do, it could not do now. */
function restingGame(reward: Reward, ctx: Pick<StepContext, "gameRuns" | "gameName">): string | null {
  for (const effect of reward.effects) if (effect.do === "act" && !ctx.gameRuns(effect.game)) return ctx.gameName(effect.game);
  return null;
}

/** The same as things stand now; without a text and a shown price it asks whether it could be had at all. */
export const offerTo = (
  reward: Reward,
  viewer: Viewer,
  ctx: Pick<StepContext, "ledgerView" | "showId" | "pointsName" | "gameRuns" | "gameName" | "has">,
  { atMs, text = "any", shownPrice = null }: Readonly<{ atMs: number; text?: string; shownPrice?: number | null }>,
): Result<Offer> =>
  redeem(reward, ctx.ledgerView, {
    viewer,
    text,
    atMs,
    onAir: ctx.showId !== null,
    shownPrice,
    gone: goneThing(reward, ctx),
    rests: restingGame(reward, ctx),
    pointsName: ctx.pointsName,
  });
