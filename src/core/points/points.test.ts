import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../chat/emotes";
import { chanceFrom } from "../kernel/chance";
import { bareContext } from "../module/module";
import { type LedgerView, emptyLedgerView } from "../rewards/ledger-view";
import type { Signal } from "../signals/signal";
import type { Role } from "../signals/names";
import * as ledger from "./ledger";
import { afterSale, inPoints, type MovingPrice, type PriceAt, priceNow } from "./price";
import { pointsRules, worthTo } from "./rules";
import { pointsDefaults, pointsSchema, type PointsSettings } from "./settings";
import { pointsNoteInWords } from "./notes";

const head = (key: string) => ({ key, atMs: 1, about: "x", by: "" });
const minute = 60_000;

describe("the ledger", () => {
  test("every kind of entry sums to nothing", () => {
    const all = [
      ledger.earned(head("a"), "signal", "ada", 10),
      ledger.bought(head("b"), "ada", 3),
      ledger.asked(head("c"), "ada", 3),
      ledger.done(head("d"), 3),
      ledger.refunded(head("e"), "ada", 3, "held"),
      ledger.given(head("f"), "ada", "bo", 10, 1),
      ledger.adjusted(head("g"), "ada", -4),
    ];
    expect(all.map(ledger.isBalanced)).toEqual(all.map(() => true));
    expect(ledger.changesOf(all)).toEqual(
      [
        { account: "issued", amount: -6 },
        // Held once, done once, given back once.
        { account: "held", amount: -3 },
        { account: "spent", amount: 7 },
        { account: "v:ada", amount: -7 },
        { account: "v:bo", amount: 9 },
      ].sort((a, b) => (a.account < b.account ? -1 : 1)),
    );
  });
  test("points are whole and not less than none", () => {
    for (const amount of [-1, 0.5, NaN, 2 ** 60]) expect(() => ledger.bought(head("a"), "ada", amount)).toThrow(/whole/);
  });
  test("balances are rebuilt from the entries; whatever differs is named", () => {
    const entries = [ledger.earned(head("a"), "signal", "ada", 10), ledger.bought(head("b"), "ada", 4)];
    const good = new Map([
      ["issued", -10],
      ["spent", 4],
      ["v:ada", 6],
    ]);
    expect(ledger.checkLedger(entries, good)).toEqual([]);
    expect(ledger.checkLedger(entries, new Map([...good, ["v:ada", 7]]))).toEqual([
      { what: "balance", about: "v:ada", found: 7, meant: 6 },
    ]);
    expect(ledger.checkLedger([...entries, entries[1]!], good).map((f) => f.what)).toContain("twice");
    expect(ledger.checkLedger([{ ...entries[0]!, postings: [{ account: "v:ada", amount: 10 }] }], new Map([["v:ada", 10]]))).toMatchObject([
      { what: "unbalanced" },
    ]);
    expect(
      ledger.checkLedger(
        [ledger.bought(head("z"), "bo", 5)],
        new Map([
          ["spent", 5],
          ["v:bo", -5],
        ]),
      ),
    ).toMatchObject([{ what: "negative", about: "v:bo" }]);
  });
});

describe("a price that moves", () => {
  const moving: MovingPrice = { floor: 100, ceiling: 300, raiseBp: 1_000, halfLifeMs: 10 * minute };
  test("begins at its floor, rises by its share with each sale, and stops at its ceiling", () => {
    let at: PriceAt | null = null;
    const prices: number[] = [];
    for (let i = 0; i < 14; i += 1) {
      prices.push(inPoints(priceNow(moving, at, 0)));
      at = afterSale(moving, at, 0);
    }
    expect(prices.slice(0, 4)).toEqual([100, 110, 121, 134]);
    expect(prices.at(-1)).toBe(300);
  });
  test("what it was raised by falls back by half in its half-life, and never below the floor", () => {
    const at = { thousandths: 300_000, atMs: 0 };
    expect(priceNow(moving, at, 10 * minute)).toBe(200_000);
    expect(priceNow(moving, at, 20 * minute)).toBe(150_000);
    expect(priceNow(moving, at, 10_000 * minute)).toBe(100_000);
  });
  test("a clock that was set back lowers nothing", () => {
    const at = { thousandths: 250_000, atMs: 50 * minute };
    expect(priceNow(moving, at, 0)).toBe(250_000);
    expect(afterSale(moving, at, 0).atMs).toBe(50 * minute);
  });
  test("at any time between floor and ceiling, by chance", () => {
    const chance = chanceFrom(9);
    let at: PriceAt | null = null;
    for (let i = 0, now = 0; i < 2_000; i += 1, now += Math.floor(chance() * 5 * minute)) {
      const price = inPoints(priceNow(moving, at, now));
      if (price < 100 || price > 300) throw new Error(`step ${i}: ${price}`);
      if (chance() < 0.6) at = afterSale(moving, at, now);
    }
  });
});

describe("earning and giving", () => {
  const settings: PointsSettings = pointsSchema.parse({
    ...pointsDefaults,
    name: "clay",
    words: { ...pointsDefaults.words, balance: "!clay" },
  });
  const setUp = (part: Partial<PointsSettings> = {}, ledgerView: Partial<LedgerView> = {}) => {
    const own = pointsSchema.parse({ ...settings, ...part });
    let at = { settings: own, durable: pointsRules.freshDurable(own), transient: pointsRules.freshDust() };
    let seq = 0;
    const ctx = bareContext(emoteIndex([]), { ledgerView: { ...emptyLedgerView, ...ledgerView }, showId: "show1" });
    return (signal: Record<string, unknown>, atMs = 0) => {
      seq += 1;
      const outcome = pointsRules.step(at, { seq, atMs, id: `s${seq}`, ...signal } as Signal, ctx);
      at = { ...at, durable: outcome.durable, transient: outcome.transient };
      return outcome;
    };
  };
  const viewer = (id: string, roles: Role[] = []) => ({ id, name: id, roles });
  const says = (id: string, text: string, roles: Role[] = []) => ({ kind: "message", viewer: viewer(id, roles), text, marks: [] });
  const received = (o: { booking?: { entries: readonly ledger.Entry[] } }) =>
    (o.booking?.entries ?? [])
      .flatMap((e) => e.postings.filter((p) => p.account.startsWith("v:")).map((p) => `${p.account.slice(2)} ${p.amount}`))
      .sort();
  const paid = (o: { booking?: { entries: readonly ledger.Entry[] } }) =>
    (o.booking?.entries ?? []).map((e) => [e.key, e.postings.find((p) => p.account.startsWith("v:") && p.amount > 0)?.amount]);

  test("presence pays everyone who wrote lately, once a round, however much they wrote", () => {
    const give = setUp();
    give({ kind: "timer" }, 0);
    for (const who of ["ada", "bo", "ada", "ada"]) give(says(who, "hello"), 1 * minute);
    give(says("late", "hello"), 9 * minute);
    const round = give({ kind: "timer" }, 10 * minute);
    expect(received(round)).toEqual(["ada 10", "bo 10", "late 10"]);
    expect(round.booking?.entries.every(ledger.isBalanced)).toBe(true);
    // Fifteen minutes after their last word they are no longer there.
    expect(received(give({ kind: "timer" }, 20 * minute))).toEqual(["late 10"]);
    expect(received(give({ kind: "timer" }, 20 * minute + 1))).toEqual([]);
  });
  test("a clock that leapt a day ahead and was set right delays no round by a day", () => {
    const give = setUp();
    give({ kind: "timer" }, 0);
    const day = 24 * 60 * minute;
    give(says("ada", "hello"), day);
    give({ kind: "timer" }, day);
    // Set right, and everything was started again: time is a day less.
    give(says("ada", "hello"), 20 * minute);
    give({ kind: "timer" }, 20 * minute + 1);
    give(says("ada", "hello"), 29 * minute);
    expect(received(give({ kind: "timer" }, 30 * minute))).toEqual(["ada 10"]);
  });
  test("a large room is paid in several commits, everyone once; who has the page open is there too", () => {
    const give = setUp();
    give({ kind: "timer" }, 0);
    for (let i = 0; i < 2_300; i += 1) give(says(`v${i}`, "hello"), 1 * minute);
    give({ kind: "here", viewer: viewer("reader") }, 2 * minute);
    const rounds = Array.from({ length: 13 }, (_, i) => i).map((i) => received(give({ kind: "timer" }, 10 * minute + i)));
    expect(rounds.map((r) => r.length)).toEqual([...Array.from({ length: 9 }, () => 250), 51, 0, 0, 0]);
    expect(new Set(rounds.flat()).size).toBe(2_301);
    expect(rounds.flat()).toContain("reader 10");
  });
  test("signals pay by their rates, times the highest role, within the day's limit", () => {
    expect(
      paid(setUp()({ kind: "tip", viewer: viewer("ada", ["member"]), amountMinor: 250, currency: "EUR", homeMinor: 250, text: "" })),
    ).toEqual([["sig:1", 375]]);
    expect(paid(setUp({ dailyMost: 120 }, { earnedToday: () => 100 })({ kind: "follow", viewer: viewer("ada") }))).toEqual([["sig:1", 20]]);
    expect(paid(setUp()({ kind: "membership", viewer: viewer("bo"), months: 1, text: "", fromGift: "g1" }))).toEqual([]);
    expect(worthTo(settings, viewer("ada", ["member", "guest"]), 10, 0)).toBe(15);
  });
  test("viewers give what they have, not to themselves, and not below the least", () => {
    const give = setUp(
      { give: { on: true, least: 10, feeBp: 100 } },
      {
        balance: (id) => (id === "ada" ? 60 : 0),
        named: (n) => (n === "Bo" ? { id: "bo", name: "Bo" } : n === "ada" ? { id: "ada", name: "ada" } : null),
        areSeveral: (n) => n === "Bee",
      },
    );
    const code = (o: ReturnType<typeof give>) => o.notes[0]?.refusal?.code ?? o.notes[0]?.did;
    const gave = give(says("ada", "!give @Bo 50"));
    expect(gave.booking?.entries[0]?.postings).toEqual([
      { account: "v:ada", amount: -50 },
      { account: "v:bo", amount: 49 },
      { account: "spent", amount: 1 },
    ]);
    expect(
      ["!give Bo 61", "!give Bo 9", "!give ada 20", "!give nobody 20", "!give Bo", "!give Bo -5"].map((t) => code(give(says("ada", t)))),
    ).toEqual(["points/too-few", "points/too-little", "points/to-oneself", "points/unknown-viewer", "points/give-how", "points/give-how"]);
    expect(code(give(says("ada", "!give @Bee 20")))).toBe("viewer/several");
    for (const text of ["!give Bo 61", "!give Bo"]) expect(pointsNoteInWords(give(says("ada", text)).notes[0]!)).not.toMatch(/^points\//);
  });
  test("who asks is answered", () => {
    expect(setUp({}, { balance: () => 1_240 })(says("ada", "!CLAY")).orders).toEqual([{ do: "say", text: "@ada you have 1,240 clay" }]);
  });
  test("an operator sets it right with a reason, and takes nobody below none", () => {
    const give = setUp({}, { balance: () => 30 });
    const command = (by: number) =>
      give({
        kind: "command",
        gameId: "p",
        by: "maria",
        viewer: null,
        command: { do: "adjust", viewer: "ada", name: "Ada", by, why: "lost on Friday" },
      });
    expect(command(-30).booking?.entries[0]).toMatchObject({ reason: "adjusted", about: "lost on Friday", by: "maria" });
    // Both answers are values, in words.
    expect(pointsNoteInWords(command(-31).notes[0]!)).toContain("nobody can have less than 0");
    expect(command(-31).notes[0]?.refusal?.code).toBe("points/below-none");
  });
});
