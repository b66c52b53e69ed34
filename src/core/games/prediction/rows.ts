import { Map as Entries } from "immutable";
import type { RecalledRow } from "../../module/module";
import { keyOf, type PredictionDurable, type Stake } from "./settings";
import type { StakeRow } from "./staking";

/** How streaks are kept: the whole list with each result. */
export type StreaksRow = Readonly<{ streaks: readonly (readonly [string, number])[] }>;

/** Stakes and streaks are rows: what is written with each commit is the prediction without them. */
export const predictionRows = {
  kinds: ["stake", "streaks"],
  // What a rehearsal brings is kept nowhere as rows, so its state is written whole.
  stored: (durable: PredictionDurable): unknown => {
    if (durable.round?.rehearsal === true) return durable;
    const { backers: _, streaks: __, ...rest } = durable;
    return rest;
  },
  since: ({ round, streaksSince }: PredictionDurable) => {
    if (round?.rehearsal === true) return null;
    const opened = round?.since ?? null;
    if (opened === null || streaksSince === null) return opened ?? streaksSince;
    return opened.seq < streaksSince.seq ? opened : streaksSince;
  },
  recall: (durable: PredictionDurable, rows: readonly RecalledRow[]): PredictionDurable => {
    const { round } = durable;
    if (round?.rehearsal === true) return durable;
    const backers = Entries<`v:${string}`, Stake>().asMutable();
    let streaks = Entries<`v:${string}`, number>();
    for (const row of rows) {
      // Rows of these kinds are written by the prediction's own rules.
      if (row.kind === "streaks") {
        const list = (row.body as StreaksRow).streaks;
        streaks = Entries(list.map(([id, n]) => [keyOf(id), n]));
      } else if (round !== null && row.seq >= round.since.seq) {
        const { stake } = row.body as StakeRow;
        backers.set(keyOf(stake.id), stake);
      }
    }
    return { ...durable, backers: backers.asImmutable(), streaks };
  },
};
