import { List, Map as Entries } from "immutable";
import type { RecalledRow } from "../../module/module";
import type { EntryRow } from "./entering";
import { type Change, type RaffleDurable, type Entrant, keyOf } from "./settings";

/** A round's entries are rows: what is written with each commit is the round without them. */
export const raffleRows = {
  kinds: ["entry"],
  // What a rehearsal brings is kept nowhere as rows, so its state is written whole.
  stored: (durable: RaffleDurable): unknown => {
    if (durable.round === null || durable.round.rehearsal) return durable;
    const { entrants: _, changes: __, ...rest } = durable;
    return rest;
  },
  since: ({ round }: RaffleDurable) => (round === null || round.rehearsal ? null : round.since),
  recall: (durable: RaffleDurable, rows: readonly RecalledRow[]): RaffleDurable => {
    if (durable.round === null || durable.round.rehearsal) return durable;
    const entrants = Entries<`v:${string}`, Entrant>().asMutable();
    const changes: Change[] = [];
    for (const row of rows) {
      // Rows of this kind are written by the draw's own rules.
      const { change, entrant } = row.body as EntryRow;
      changes.push(change);
      if (entrant === null) entrants.delete(keyOf(change.id));
      else entrants.set(keyOf(change.id), entrant);
    }
    return { ...durable, entrants: entrants.asImmutable(), changes: List(changes) };
  },
};
