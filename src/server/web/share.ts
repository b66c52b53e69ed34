import { RateLimiterMemory } from "rate-limiter-flexible";
import { gameOf } from "../../core/games/registry";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { type SharedShow, sharedShow } from "../../core/review/shared";
import type { WebServices } from "../composition/web";
import { hashToken, newToken } from "../secrets";
import { allowed } from "./accounts";
import { reviewView, showMoments } from "./review";
import { titleOf } from "./show-names";

type Web = Pick<WebServices, "store">;
const perAddress = new RateLimiterMemory({ points: 120, duration: 60 });

/** Makes the page to share of a show, by a new link each time; the one before leads nowhere from then on. */
export async function shareShow({ store }: Web, channel: ChannelId, id: number): Promise<Result<Readonly<{ path: string }>>> {
  const token = newToken();
  return (await store.reviews.share(channel, id, hashToken(token))) ? ok({ path: `/shared/${token}` }) : refused("review/unknown");
}
export async function unshareShow({ store }: Web, channel: ChannelId, id: number): Promise<Result<null>> {
  return (await store.reviews.share(channel, id, null)) ? ok(null) : refused("review/unknown");
}

/** A show by its link, for whoever has it: what the allow-list names. */
export async function sharedBy(web: Web, token: string, address: string): Promise<Result<SharedShow>> {
  if (!/^[A-Za-z0-9_-]{20,64}$/.test(token)) return refused("review/unknown");
  const may = await allowed(perAddress, address);
  if (!may.ok) return may;
  const of = await web.store.reviews.sharedBy(hashToken(token));
  const view = of === null ? null : await reviewView(web, of.channel, of.id);
  const moments = of === null || view === null ? null : await showMoments(web, of.channel, of.id);
  if (of === null || view === null || moments === null) return refused("review/unknown");
  const { show, numbers, series } = view;
  // Films and people who were presented are no results, and what a film cost is nobody’s business.
  const rounds = view.rounds.filter((r) => gameOf(r.kind)?.aired === undefined);
  const operators = (await web.store.accounts.operators(of.channel, Date.now())).map((o) => o.login);
  const { fromMs, toMs } = show;
  return ok(
    sharedShow({
      operators,
      channel: of.channelName,
      name: titleOf(show),
      fromMs,
      toMs,
      numbers,
      binMs: series.binMs,
      chat: series.chat,
      moments,
      rounds,
    }),
  );
}
