import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { changesOf, isBalanced } from "../../points/ledger";
import { evening, settingsOf } from "./evening";
import { raffleRows } from "./rows";
import { type RaffleDurable, raffleDurableSchema } from "./settings";

const acts = fc.oneof(
  {
    weight: 12,
    arbitrary: fc.tuple(fc.constantFrom("ada", "bo", "cy", "__proto__"), fc.constantFrom("!in", "!in 2", "!in all", "hello", "!in 7")),
  },
  { weight: 3, arbitrary: fc.constantFrom("open", "lock", "draw", "close", "draw-all", "another") },
  { weight: 1, arbitrary: fc.constantFrom("cancel", "clear", "timer", "remove") },
);
test("whatever is done in whatever order: points are never made or lost, what is held is what was paid, rows make the state whole", () =>
  fc.assert(
    fc.property(fc.constantFrom(0, 70), fc.array(acts, { maxLength: 60 }), (price, list) => {
      const e = evening(settingsOf({ price, most: 4, winners: 2 }));
      let roundFrom = 0;
      for (const [i, act] of list.entries()) {
        const atMs = 1_000 + i * 500;
        if (act === "open" && e.at().round === null) roundFrom = e.rows.length;
        if (typeof act !== "string") e.say(act[0], act[1], atMs);
        else if (act === "timer") e.timer(atMs);
        else if (act === "remove") e.command({ do: "remove", viewer: "bo" }, atMs);
        else e.command({ do: act }, atMs);
        const { round, entrants } = e.at();
        const paid = [...entrants.values()].reduce((sum, x) => sum + x.paid, 0);
        expect(round?.held ?? 0).toBe(paid);
        expect(round?.people ?? 0).toBe(entrants.size);
        expect(e.entries.every(isBalanced)).toBe(true);
        expect(changesOf(e.entries).find((p) => p.account === "pool")?.amount ?? 0).toBe(round === null ? 0 : paid);
        expect(["ada", "bo", "cy"].every((who) => e.balance(who) >= 0)).toBe(true);
      }
      const stored = JSON.parse(JSON.stringify(raffleRows.stored(e.at()))) as unknown;
      const rows = e.rows.slice(roundFrom).flatMap((r, seq) => (r.kind === "entry" ? [{ ...r, seq }] : []));
      const whole = raffleRows.recall(
        raffleDurableSchema.parse(stored) as RaffleDurable,
        e.at().round === null ? [] : JSON.parse(JSON.stringify(rows)),
      );
      expect(JSON.stringify([...whole.entrants.entries()].sort())).toBe(JSON.stringify([...e.at().entrants.entries()].sort()));
      expect(whole.changes.toArray()).toEqual(e.at().changes.toArray());
    }),
    { numRuns: 150 },
  ));
