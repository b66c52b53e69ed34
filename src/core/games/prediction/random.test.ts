import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { changesOf, isBalanced } from "../../points/ledger";
import { evening } from "./evening";
import { predictionRows } from "./rows";
import { type PredictionDurable, predictionDurableSchema } from "./settings";

const people = ["ada", "bo", "cy", "__proto__"] as const;
const acts = fc.oneof(
  {
    weight: 14,
    arbitrary: fc.tuple(
      fc.constantFrom(...people),
      fc.constantFrom("!back A 10", "!back B 7", "!back all", "!back A half", "!back C 1", "hello", "!back B 1", "!back A 400"),
    ),
  },
  { weight: 5, arbitrary: fc.constantFrom("open", "lock", "A", "B", "timer", "timer") },
  { weight: 1, arbitrary: fc.constantFrom("cancel", "undo", "longer", "spend") },
);
test("whatever is done in whatever order: points are never made or lost, what is in the pool is what was staked, rows make the state whole", () =>
  fc.assert(
    fc.property(fc.constantFrom(0, 10), fc.boolean(), fc.array(acts, { maxLength: 70 }), (feePercent, stakes, list) => {
      const e = evening({ feePercent, stakes, openMs: 20_000 });
      let owed = 0;
      for (const [i, act] of list.entries()) {
        const atMs = 1_000 + i * 700;
        const done =
          typeof act !== "string"
            ? e.say(act[0], act[1], atMs)
            : act === "timer"
              ? e.timer(atMs)
              : act === "open"
                ? e.open(atMs)
                : act === "A" || act === "B"
                  ? e.result(act, atMs)
                  : act === "spend"
                    ? (e.spend("ada", Math.floor(e.balance("ada") / 2)), null)
                    : e.command({ do: act }, atMs);
        for (const c of done?.commands ?? []) owed += (c["viewers"] as { amount: number }[]).reduce((sum, v) => sum + v.amount, 0);
        const { round, backers } = e.at();
        const sums = changesOf(e.entries);
        const of = (account: string): number => sums.find((p) => p.account === account)?.amount ?? 0;
        if (round !== null && ["open", "locked"].includes(round.phase)) {
          const staked = [...backers.values()].reduce((sum, s) => sum + s.stake, 0);
          expect(of("pool")).toBe(staked);
          expect(round.totals.reduce((sum, t) => sum + t.stakes, 0)).toBe(staked);
          expect(round.people).toBe(backers.size);
        } else if (round === null || round.phase === "done" || round.phase === "cancelled") expect(of("pool")).toBe(0);
        expect(of("owed") + owed).toBe(0);
        expect(e.entries.every(isBalanced)).toBe(true);
        expect(people.every((who) => e.balance(who) >= 0)).toBe(true);
      }
      expect(new Set(e.entries.map((x) => x.key)).size).toBe(e.entries.length);
      const since = predictionRows.since(e.at());
      const rows = (JSON.parse(JSON.stringify(e.rows)) as typeof e.rows).filter(
        (r) => predictionRows.kinds.includes(r.kind) && r.seq >= (since?.seq ?? Infinity),
      );
      const stored = predictionDurableSchema.parse(JSON.parse(JSON.stringify(predictionRows.stored(e.at())))) as PredictionDurable;
      const whole = predictionRows.recall(stored, rows);
      expect(JSON.stringify([...whole.streaks].sort())).toBe(JSON.stringify([...e.at().streaks].sort()));
      if (e.at().round?.phase !== "cancelled")
        expect(JSON.stringify([...whole.backers].sort())).toBe(JSON.stringify([...e.at().backers].sort()));
    }),
    { numRuns: 200 },
  ));
