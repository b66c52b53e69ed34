import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { type Alert, alertLookDefaults } from "./alert";
import { type Board, queueAdd, queueClear, queueOf, type QueueOutcome, queuePause, queueSkip, queueTick } from "./queues";

const rules = [
  { id: "main", gapMs: 500, mostWaiting: 3 },
  { id: "constructor", gapMs: 0, mostWaiting: 1 },
];
const alert = (id: string, ms: number): Alert => ({ id, picture: "", sound: "", volume: 1, text: id, ms, look: alertLookDefaults });
const queue = fc.constantFrom("main", "constructor", "__proto__", "");
const deed = fc.oneof(
  { weight: 5, arbitrary: fc.record({ do: fc.constant("add" as const), queue, ms: fc.integer({ min: 200, max: 4_000 }) }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant("tick" as const) }) },
  fc.record({ do: fc.constant("skip" as const), queue }),
  fc.record({ do: fc.constant("clear" as const), queue }),
  fc.record({ do: fc.constant("pause" as const), queue, on: fc.boolean() }),
);
const evening = fc.array(fc.record({ afterMs: fc.nat(3_000), what: deed }), { maxLength: 60 });

describe("alerts that take turns, whatever is done", () => {
  test("each begins once or is refused or dropped; of one queue never two at once; no more wait than may", () => {
    fc.assert(
      fc.property(evening, (steps) => {
        let board: Board = {};
        let atMs = 0;
        const playing = new Map<string, { id: string; untilMs: number }>();
        const begun = new Set<string>();
        const fate = new Map<string, string>();
        steps.forEach(({ afterMs, what }, i) => {
          atMs += afterMs;
          const id = `a${i}`;
          const waited = what.do === "clear" ? queueOf(board, what.queue).waiting.map((a) => a.id) : [];
          const done: QueueOutcome =
            what.do === "add"
              ? queueAdd(board, rules, what.queue, alert(id, what.ms), atMs)
              : what.do === "skip"
                ? queueSkip(board, rules, what.queue, atMs)
                : what.do === "clear"
                  ? queueClear(board, what.queue)
                  : what.do === "pause"
                    ? queuePause(board, rules, what.queue, what.on, atMs)
                    : queueTick(board, rules, atMs);
          board = done.board;
          if (what.do === "add" && done.refusal !== null) fate.set(id, "refused");
          for (const dropped of waited) fate.set(dropped, "dropped");
          for (const stopped of done.stop) for (const [q, p] of playing) if (p.id === stopped) playing.delete(q);
          for (const a of done.start) {
            expect(begun.has(a.id)).toBe(false);
            expect(fate.get(a.id)).toBeUndefined();
            begun.add(a.id);
            const of = Object.keys(board).find((q) => queueOf(board, q).playing?.id === a.id);
            // Without a queue it begins at once, beside all else.
            if (of === undefined) continue;
            const before = playing.get(of);
            expect(before === undefined || before.untilMs <= atMs).toBe(true);
            playing.set(of, { id: a.id, untilMs: atMs + a.ms });
          }
          for (const { id: q, mostWaiting } of rules) expect(queueOf(board, q).waiting.length).toBeLessThanOrEqual(mostWaiting);
        });
        // In the end everything has had its turn, unless it was told otherwise.
        for (const q of Object.keys(board)) board = queuePause(board, rules, q, false, atMs).board;
        for (let n = 0; n < 20; n += 1) {
          const done = queueTick(board, rules, (atMs += 5_000));
          board = done.board;
          for (const a of done.start) begun.add(a.id);
        }
        for (const q of Object.keys(board)) expect(queueOf(board, q).waiting).toEqual([]);
      }),
    );
  });
});
