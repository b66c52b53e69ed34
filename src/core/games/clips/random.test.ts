import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { evening, viewer } from "./evening";

const id = fc.constantFrom("ada", "tin", "__proto__", "constructor");
const n = fc.integer({ min: 1, max: 12 });
const deed = fc.oneof(
  { weight: 6, arbitrary: fc.record({ do: fc.constant("say" as const), id, film: fc.nat(30), s: fc.nat(40) }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant("tip" as const), id, film: fc.nat(30), minor: fc.nat(2_000) }) },
  {
    weight: 6,
    arbitrary: fc.record({
      do: fc.constant("filmed" as const),
      n,
      ms: fc.integer({ min: 200, max: 30_000 }),
      flashes: fc.constantFrom("none", "none", "red"),
      black: fc.boolean(),
    }),
  },
  fc.record({ do: fc.constant("failed" as const), n }),
  {
    weight: 3,
    arbitrary: fc.record({ do: fc.constantFrom("approve", "drop", "front", "seen", "bar-file", "settled", "credit", "replay"), n }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constantFrom("skip", "veil", "unveil", "play", "hold", "go-on", "again", "seen-now") }) },
  fc.record({ do: fc.constantFrom("bar", "let-back", "withdraw"), id, n }),
  fc.record({ do: fc.constant("switch" as const), on: fc.boolean() }),
);
const settings = fc.record({
  approve: fc.boolean(),
  byThemselves: fc.boolean(),
  shownAtOnce: fc.boolean(),
  skipped: fc.constantFrom("all" as const, "rest" as const, "nothing" as const),
  mostWaiting: fc.integer({ min: 1, max: 6 }),
});

test("whatever is done: every point is somewhere, what ended is settled once, and money is a credit, a debt, a clip or shown", () => {
  fc.assert(
    fc.property(settings, fc.array(fc.tuple(fc.nat(9_000), deed), { maxLength: 60 }), (part, deeds) => {
      const play = evening(part, 5_000);
      let atMs = 0;
      let tipped = 0;
      let paidBack = 0;
      for (const [later, what] of deeds) {
        atMs += later;
        play.until(atMs);
        const by = "id" in what ? viewer(what.id) : null;
        switch (what.do) {
          case "say":
            play.says(what.id, `!clip https://films.example/${what.film} ${what.s}s`, atMs);
            break;
          case "tip":
            tipped += what.minor;
            play.tip(what.id, `!clip https://films.example/t${what.film}`, what.minor, atMs);
            break;
          case "filmed":
            play.filmed(what.n, atMs, { ms: what.ms, flashes: what.flashes, black: what.black });
            break;
          case "failed":
            play.command({ do: "not-filmed", n: what.n, code: "video/broken", facts: {} }, atMs);
            break;
          case "settled": {
            const owed = play.now.owed.find((o) => o.id === what.n);
            paidBack += owed?.minor ?? 0;
            play.command({ do: "settled", n: what.n }, atMs);
            break;
          }
          case "seen-now":
            if (play.now.now !== null) play.command({ do: "seen", n: play.now.now.clip.n }, atMs);
            break;
          case "bar":
          case "let-back":
            play.command({ do: what.do, name: what.id }, atMs);
            break;
          case "withdraw":
            play.command({ do: "withdraw", n: what.n }, atMs, by);
            break;
          case "switch":
            play.command({ do: "switch", on: what.on }, atMs);
            break;
          default:
            play.command("n" in what ? { do: what.do, n: what.n } : { do: what.do }, atMs);
        }
        // What lies in the pool is what clips that are not settled were paid, to the point.
        const open = [...play.now.queue, ...(play.now.now === null ? [] : [play.now.now.clip])];
        const inPool = open.reduce((sum, c) => sum + (c.pay.by === "points" ? c.pay.amount : 0), 0);
        expect(play.balances.get("pool") ?? 0).toBe(inPool);
        const inClips = open.reduce((sum, c) => sum + (c.pay.by === "money" ? c.pay.amount : 0), 0);
        const shown = (play.kept as { by: string; paid: number }[]).filter((k) => k.by === "money").reduce((sum, k) => sum + k.paid, 0);
        const credits = play.now.credits.reduce((sum, c) => sum + c.minor, 0);
        const owed = play.now.owed.reduce((sum, o) => sum + o.minor, 0);
        // Of what was shown some may be owed back, so that it counts in both.
        expect(credits + owed + inClips + paidBack + shown).toBeGreaterThanOrEqual(tipped);
        expect(credits + owed + inClips + paidBack).toBeLessThanOrEqual(tipped);
        expect(play.now.queue.length).toBeLessThanOrEqual(play.settings.mostWaiting);
      }
    }),
    { numRuns: 150 },
  );
});
