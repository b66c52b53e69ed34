import { LRUCache } from "lru-cache";
import type { ChannelId } from "../../core/kernel/ids";
import type { ShowFigures } from "../../core/review/trends";
import type { WebServices } from "../composition/web";
import { awayDays, binsOf, once, saidIn } from "./review";

const figuresRead = new LRUCache<string, ShowFigures>({ max: 500 });
const mostTrend = 30;
/** The last shows as figures, oldest first: what was counted of one once is not counted again. */
export async function showFigures(web: Pick<WebServices, "store">, channel: ChannelId): Promise<readonly ShowFigures[]> {
  const { store } = web;
  const past = (await store.shows.past(channel, mostTrend * 2)).filter((s) => !s.rehearsal).slice(0, mostTrend);
  const figures: ShowFigures[] = [];
  // One after another: whoever looks at trends must not hold up a show that runs.
  for (const { id } of past) {
    const show = await store.reviews.show(channel, id);
    if (show === null) continue;
    figures.push(
      await once(figuresRead, channel, show, async () => {
        const [numbers, bins, came] = await Promise.all([
          store.reviews.numbers(channel, show),
          binsOf(web, channel, show),
          store.shows.whoCame(channel, show.fromMs, show.toMs, awayDays),
        ]);
        const { messages, people } = saidIn(bins);
        // Older than the log is kept, or from before there was one.
        const known = messages > 0 || numbers.follows + numbers.tips + numbers.raids > 0;
        const hours = Math.max(0, show.toMs - show.fromMs) / 3_600_000;
        const { tipped, made, spent, sales } = numbers;
        const told = known
          ? { messages, people, fresh: came.fresh.count, tipped }
          : { messages: null, people: null, fresh: null, tipped: null };
        return { id, name: show.name, fromMs: show.fromMs, hours, ...told, made, spent, sales };
      }),
    );
  }
  return figures.map((f) => ({ ...f, name: past.find((p) => p.id === f.id)?.name ?? f.name })).reverse();
}
