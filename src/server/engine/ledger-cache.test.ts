import { describe, expect, test } from "@jest/globals";
import { chanceFrom, pick } from "../../core/kernel/chance";
import { strangers } from "../../core/kernel/strangers";
import { viewerId } from "../../core/kernel/text";
import { viewerAccount } from "../../core/points/ledger";
import type { Booking, Sale, SaleState } from "../../core/rewards/ledger-view";
import { LedgerCache } from "./ledger-cache";

const none = { accounts: [], sold: [], soldInShow: [], last: [], prices: [], sales: [] };
const people = ["ada", "loamy", ...strangers.map(viewerId).filter((id) => id !== "")].filter((id, i, all) => all.indexOf(id) === i);
const rewards = ["roar", "__proto__", "tile"];
const dayMs = 86_400_000;

const sale = (n: number, viewer: string, state: SaleState, atMs: number, more: Partial<Sale> = {}): Sale => ({
  id: `s${n}`,
  atMs,
  rewardId: rewards[n % rewards.length] ?? "roar",
  rewardName: "Roar",
  viewer: { id: viewer, name: viewer },
  price: 5,
  text: "",
  state,
  showId: "show1",
  decidedBy: "",
  times: 0,
  code: n % 4 === 0 ? `code-${n}` : "",
  shown: false,
  ...more,
});
/** All that can be asked of a ledger. */
const seen = (ledgerView: LedgerCache): unknown => ({
  people: people.map((id) => [id, ledgerView.balance(id), ledgerView.earnedToday(id), ledgerView.named(id)]),
  rewards: rewards.map((r) => [
    r,
    ledgerView.sold(r),
    ledgerView.handed(r),
    ledgerView.soldInShow(r),
    ledgerView.lastMs(r),
    ledgerView.priceAt(r),
    ...people.map((id) => [ledgerView.soldInShowTo(r, id), ledgerView.lastToMs(r, id)]),
  ]),
  sales: Array.from({ length: 60 }, (_, n) => ledgerView.sale(`s${n}`)),
  waiting: ledgerView.waiting().map((s) => s.id),
  unshown: ledgerView.unshown(Number.MAX_SAFE_INTEGER).map((s) => s.id),
  top: ledgerView.top(5),
  balances: [...ledgerView.balances()].sort(([a], [b]) => (a < b ? -1 : 1)),
});

/** What may happen next: a payment, a purchase, a decision, a price. */
function someBooking(chance: () => number, n: number, made: Sale[]): Booking {
  const viewer = people[pick(chance, people.length)] ?? "ada";
  const atMs = n * (chance() < 0.1 ? dayMs : 60_000);
  const empty = { entries: [], sales: [], names: [], prices: [] };
  const pay = (key: string, amount: number, reason: "signal" | "bought" | "refunded") => ({
    key,
    atMs,
    reason,
    about: "x",
    by: "",
    postings: [
      { account: viewerAccount(viewer), amount },
      { account: reason === "signal" ? ("issued" as const) : ("spent" as const), amount: -amount },
    ],
  });
  const what = pick(chance, 4);
  if (what === 0)
    return {
      ...empty,
      entries: [pay(`e:${n}`, 1 + pick(chance, 50), "signal")],
      names: [{ id: viewer, name: `${viewer} ${pick(chance, 2)}` }],
    };
  if (what === 1) {
    const bought = sale(n, viewer, chance() < 0.5 ? "waiting" : "done", atMs);
    made.push(bought);
    return {
      ...empty,
      entries: [pay(`buy:s${n}`, -5, "bought")],
      sales: [bought],
      names: [{ id: viewer, name: viewer }],
      ...(chance() < 0.5 ? { due: [{ sale: bought.id, untilMs: atMs + 1_000 }] } : {}),
    };
  }
  const before = made[pick(chance, made.length)];
  if (what === 2 && before !== undefined) {
    const state = (["waiting", "done", "refunded"] as const)[pick(chance, 3)] ?? "done";
    return { ...empty, sales: [{ ...before, state, decidedBy: "kilnkeeper", shown: chance() < 0.5 }] };
  }
  return { ...empty, prices: [{ rewardId: rewards[n % rewards.length] ?? "", at: { thousandths: n, atMs } }] };
}

describe("what the ledger’s cache knows", () => {
  test.each(Array.from({ length: 40 }, (_, seed) => seed))("what is taken back was never there, what is settled stays (%i)", (seed) => {
    const chance = chanceFrom(seed + 1);
    const [ledgerView, plain] = [new LedgerCache(), new LedgerCache()];
    for (const d of [ledgerView, plain]) d.load(none, "show1");
    const made: Sale[] = [];
    let waiting: { booking: Booking; changes: number }[] = [];
    for (let n = 1; n < 60; n += 1) {
      const booking = someBooking(chance, n, made);
      ledgerView.apply(n, booking);
      waiting.push({ booking, changes: ledgerView.changes });
      const now = chance();
      if (now < 0.25) {
        // The first few were committed; all others were refused.
        const good = pick(chance, waiting.length + 1);
        const last = waiting[good - 1];
        if (last !== undefined) ledgerView.settle(last.changes);
        ledgerView.takeBack();
        for (const w of waiting.slice(0, good)) plain.apply(0, w.booking);
        waiting = [];
        expect(seen(ledgerView)).toEqual(seen(plain));
      }
    }
  });

  test("another show that was taken back counts on in the one before", () => {
    const ledgerView = new LedgerCache();
    ledgerView.load(none, "show1");
    ledgerView.apply(1, { entries: [], sales: [sale(1, "ada", "done", 5)], names: [], prices: [] });
    ledgerView.settle(ledgerView.changes);
    ledgerView.show("show2");
    expect(ledgerView.soldInShow("__proto__")).toBe(0);
    ledgerView.takeBack();
    expect(ledgerView.soldInShow("__proto__")).toBe(1);
    // And once it is settled, it is another show.
    ledgerView.show("show2");
    ledgerView.settle(ledgerView.changes);
    ledgerView.takeBack();
    expect(ledgerView.soldInShow("__proto__")).toBe(0);
  });

  test("owed until it is shown or refunded; shown once", () => {
    const ledgerView = new LedgerCache();
    ledgerView.load(none, "");
    const booked = (n: number): Booking => ({
      entries: [],
      sales: [sale(n, "ada", "done", 0)],
      names: [],
      prices: [],
      due: [{ sale: `s${n}`, untilMs: 100 }],
    });
    for (const n of [1, 2, 3]) ledgerView.apply(n, booked(n));
    expect(ledgerView.unshown(99)).toEqual([]);
    expect(ledgerView.unshown(100).map((s) => s.id)).toEqual(["s1", "s2", "s3"]);
    expect([ledgerView.shown("s1"), ledgerView.shown("s1"), ledgerView.shown("s99")]).toEqual([true, false, false]);
    ledgerView.apply(4, { entries: [], sales: [sale(2, "ada", "refunded", 0)], names: [], prices: [] });
    expect(ledgerView.unshown(100).map((s) => s.id)).toEqual(["s3"]);
  });

  test("a name means whoever signs in by it, then one who alone is called so; of several it means none, until one is left", () => {
    const ledgerView = new LedgerCache();
    const account = (id: string, name: string) => ({ account: `v:${id}`, name, balance: 1, day: 0, earned: 0 });
    ledgerView.load(
      { ...none, accounts: [account("alice_q", "Alice"), account("mallory_q", "alice_q"), account("bo", "Bee"), account("ben", "bée")] },
      "",
    );
    expect(ledgerView.named("Alice_Q")).toEqual({ id: "alice_q", name: "Alice" });
    expect([ledgerView.named("alice")?.id, ledgerView.areSeveral("alice_q")]).toEqual(["alice_q", false]);
    expect([ledgerView.named("bee"), ledgerView.areSeveral("BEE")]).toEqual([null, true]);
    // One of them takes another name; and takes it back with a commit that did not come about.
    const upTo = ledgerView.changes;
    const names = [{ id: "ben", name: "Benjamin" }];
    ledgerView.apply(1, { entries: [], sales: [], names, prices: [] });
    expect([ledgerView.named("bee")?.id, ledgerView.named("benjamin")?.id, ledgerView.areSeveral("bee")]).toEqual(["bo", "ben", false]);
    ledgerView.settle(upTo);
    ledgerView.takeBack();
    expect([ledgerView.named("bee"), ledgerView.named("benjamin"), ledgerView.areSeveral("bee")]).toEqual([null, null, true]);
    for (const odd of ["", "nobody", "constructor", "__proto__"])
      expect([ledgerView.named(odd), ledgerView.areSeveral(odd)]).toEqual([null, false]);
  });

  test("thousands of sales later those that wait, and those that are owed, are still known", () => {
    const ledgerView = new LedgerCache();
    ledgerView.load(none, "");
    ledgerView.apply(1, { entries: [], sales: [sale(1, "ada", "waiting", 0)], names: [], prices: [] });
    ledgerView.apply(2, { entries: [], sales: [sale(2, "ada", "done", 0)], names: [], prices: [], due: [{ sale: "s2", untilMs: 5 }] });
    for (let n = 3; n < 6_000; n += 1) ledgerView.apply(n, { entries: [], sales: [sale(n, "ada", "done", n)], names: [], prices: [] });
    ledgerView.settle(ledgerView.changes);
    expect(ledgerView.sale("s3")).toBeNull();
    expect(ledgerView.waiting().map((s) => s.id)).toEqual(["s1"]);
    expect(ledgerView.unshown(5).map((s) => s.id)).toEqual(["s2"]);
    expect(ledgerView.sold("roar") + ledgerView.sold("__proto__") + ledgerView.sold("tile")).toBe(5_999);
  });
});
