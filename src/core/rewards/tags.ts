import type { Viewer } from "../signals/names";
import type { StepContext } from "../module/module";
import { costOf, offerTo } from "./redeem";
import { givesNothing, type Reward, type RewardBook } from "./settings";
import { rewardRefusalInWords } from "./words";

/** A price tag as a viewer sees it: what it costs now, and what stands in the way, if anything does. */
export type Tag = Readonly<{
  id: string;
  name: string;
  about: string;
  category: string;
  /** The first picture of a sheet of so many columns and rows. */
  icon: Readonly<{ url: string; columns: number; rows: number }> | null;
  /** The chat words that buy it; none for one that is bought here only. */
  words: readonly string[];
  price: number;
  moving: boolean;
  approval: boolean;
  text: Reward["text"];
  detail: string;
  /** How many are left; null for without end. */
  left: number | null;
  /** In words, why not now; empty when it can be had (or nobody is known yet and it could be had). */
  why: string;
  code: string;
  /** Kept for the one who looks, and shown to nobody else. */
  kept: boolean;
  /** When it will be free again, UTC milliseconds; 0 when that is not known or it is free. */
  freeAtMs: number;
}>;

export type Looking = Readonly<{
  nowMs: number;
  /** Null for one who is not known: then only what holds for everyone stands in the way. */
  viewer: Viewer | null;
  icon: (key: string) => Tag["icon"];
}>;

/**
 * The price tags one viewer may see, in the order of the book. What is off or kept for somebody else is not
 * among them; of the rest the same checks answer that answer when it is bought.
 */
export function tagsFor(
  book: RewardBook,
  ctx: Pick<StepContext, "ledgerView" | "showId" | "hushed" | "pointsName" | "gameRuns" | "gameName" | "has">,
  looking: Looking,
): readonly Tag[] {
  const { nowMs, viewer } = looking;
  const { ledgerView } = ctx;
  const stranger: Viewer = { id: "", name: "", roles: ["viewer", "member", "guest", "moderator", "streamer"] };
  const seenBy = viewer ?? stranger;
  const own = viewer === null ? { ...ctx, ledgerView: { ...ledgerView, balance: () => Number.MAX_SAFE_INTEGER } } : ctx;
  return book.rewards
    .filter((r) => r.on && !givesNothing(r) && (r.keptFor === "" || r.keptFor === viewer?.id))
    .map((r): Tag => {
      const offer = offerTo(r, seenBy, own, { atMs: nowMs });
      const no = ctx.hushed ? { code: "reward/hushed", facts: { reward: r.name } } : offer.ok ? null : offer.refusal;
      const freeAtMs = no === null ? 0 : Number(no.facts["freeAtMs"] ?? 0);
      return {
        id: r.id,
        name: r.name,
        about: r.about,
        category: r.category,
        icon: r.icon === "" ? null : looking.icon(r.icon),
        words: r.words.filter((w) => w !== ""),
        price: costOf(r, ledgerView, nowMs),
        moving: r.moving !== null,
        approval: r.approval,
        text: r.text,
        detail: r.detail,
        left: r.stock === 0 ? null : Math.max(0, r.stock - ledgerView.sold(r.id)),
        // Whoever looks counts down by themselves: what changed every second would be sent to everyone every second.
        why: no === null ? "" : freeAtMs > 0 ? "on cooldown for a while" : rewardRefusalInWords(no),
        code: no?.code ?? "",
        kept: r.keptFor !== "",
        freeAtMs,
      };
    });
}
