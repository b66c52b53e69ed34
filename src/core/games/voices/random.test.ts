import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { emoteIndex } from "../../chat/emotes";
import { readCommand } from "../../module/command";
import { bareContext } from "../../module/module";
import type { Command, Signal } from "../../signals/signal";
import { voices } from "./definition";
import { makingMs } from "./lane";
import { freshDust } from "./rules";
import { freshVoices, voicesDefaults, type VoicesDurable, voicesSettingsSchema } from "./settings";

type Deed =
  | Readonly<{ do: "say"; who: string; text: string }>
  | Readonly<{ do: "made" | "not-made" | "approve" | "drop"; n: number }>
  | Readonly<{ do: "skip" | "clear" | "hold" | "go-on" | "hush" | "release" | "restart" }>;
const who = fc.constantFrom("ada", "bo", "__proto__", "constructor");
const number = fc.integer({ min: 1, max: 12 });
const deed: fc.Arbitrary<Deed> = fc.oneof(
  { weight: 6, arbitrary: fc.record({ do: fc.constant("say" as const), who, text: fc.string({ unit: "grapheme", maxLength: 30 }) }) },
  { weight: 4, arbitrary: fc.record({ do: fc.constantFrom("made" as const, "not-made" as const), n: number }) },
  fc.record({ do: fc.constantFrom("approve" as const, "drop" as const), n: number }),
  fc.record({
    do: fc.constantFrom(
      "skip" as const,
      "clear" as const,
      "hold" as const,
      "go-on" as const,
      "hush" as const,
      "release" as const,
      "restart" as const,
    ),
  }),
);
const evening = fc.array(fc.record({ afterMs: fc.nat(4_000), what: deed }), { maxLength: 60 });
const settings = fc.record({
  approve: fc.boolean(),
  delayMs: fc.constantFrom(0, 1_500),
  how: fc.constantFrom("spoken", "shown", "both"),
  mostWaiting: fc.integer({ min: 0, max: 4 }),
});

describe("voices, whatever is done and whatever the engine does", () => {
  test("never two at once; each begins once, in its order; nothing held, hushed or not let through begins; in the end the lane is empty", () => {
    fc.assert(
      fc.property(evening, settings, (steps, part) => {
        const own = voicesSettingsSchema.parse({ ...voicesDefaults, ownRestMs: 0, ...part });
        let durable: VoicesDurable = freshVoices();
        let transient = freshDust();
        let hushed = false;
        let atMs = 0;
        let seq = 0;
        const begun: number[] = [];
        const give = (signal: object): void => {
          seq += 1;
          const before = durable.now;
          const ctx = bareContext(emoteIndex([]), { hushed });
          const outcome = voices.step({ settings: own, durable, transient }, { seq, atMs, id: `s${seq}`, ...signal } as Signal, ctx);
          ({ transient, durable } = outcome);
          const { now } = durable;
          if (now !== null && now.text.n !== before?.text.n) {
            expect([hushed, durable.held, now.text.asks]).toEqual([false, false, false]);
            begun.push(now.text.n);
          }
          for (const order of outcome.orders ?? [])
            if (order.do === "apart" && order.command !== null) command(order.command, order.viewer);
          expect(durable.waiting.length).toBeLessThanOrEqual(Math.max(1, own.mostWaiting));
        };
        const command = (given: Command, viewer: unknown = null): void => {
          const read = readCommand(voices, given);
          if (read.ok) give({ kind: "command", gameId: "v", by: "maria", viewer, command: read.value });
        };
        const until = (toMs: number): void => {
          for (let n = 0; n < 400; n += 1) {
            const due = voices.dueMs!(own, durable);
            if (due === null || due > toMs) break;
            atMs = Math.max(atMs, due);
            give({ kind: "timer", moduleId: "v" });
          }
          atMs = toMs;
        };
        for (const { afterMs, what } of steps) {
          until(atMs + afterMs);
          if (what.do === "say")
            give({ kind: "message", viewer: { id: what.who, name: what.who, roles: [] }, text: `!say ${what.text}`, marks: [] });
          else if (what.do === "made") command({ do: "made", n: what.n, url: "", ms: 900 });
          else if (what.do === "hush" || what.do === "release") hushed = what.do === "hush";
          else if (what.do === "restart") {
            durable = voices.durable.parse(JSON.parse(JSON.stringify(durable)));
            transient = freshDust();
          } else command(what);
        }
        // Whoever is let through late is said late.
        if (!own.approve) expect(begun).toEqual([...begun].sort((a, b) => a - b));
        expect(new Set(begun).size).toBe(begun.length);
        hushed = false;
        command({ do: "go-on" });
        for (const text of durable.waiting) if (text.asks) command({ do: "approve", n: text.n });
        until(atMs + 20 * (makingMs + 30_000));
        expect([durable.now, durable.waiting]).toEqual([null, []]);
      }),
      { numRuns: 150 },
    );
  });
});
