import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../chat/emotes";
import { deepFreeze } from "../kernel/freeze";
import { bareContext } from "../module/module";
import type { Signal } from "../signals/signal";
import type { Viewer } from "../signals/names";
import { type LedgerView, emptyLedgerView, type Sale } from "./ledger-view";
import { type Asking, costOf, redeem } from "./redeem";
import { rewardsRules } from "./rules";
import { newReward, type Reward, rewardBookSchema } from "./settings";
import { rewardRefusalInWords } from "./words";

const ada: Viewer = { id: "ada", name: "Ada", roles: ["member"] };
const asking = (part: Partial<Asking> = {}): Asking => ({
  viewer: ada,
  text: "",
  atMs: 100_000,
  onAir: true,
  shownPrice: null,
  gone: null,
  rests: null,
  pointsName: "clay",
  ...part,
});
const rich: LedgerView = { ...emptyLedgerView, balance: () => 1_000 };
const roar = (part: Partial<Reward> = {}): Reward => ({
  ...newReward("roar", "Kiln roar", 200),
  effects: [{ do: "say", text: "roar" }],
  ...part,
});

describe("whether a reward is sold", () => {
  test("the first check that fails answers, in their order", () => {
    // Everything is wrong at first; each round sets the first of it right.
    let reward = roar({
      on: false,
      onlyOnAir: true,
      keptFor: "bo",
      roles: ["moderator"],
      text: { how: "must", asks: "a glaze" },
      perShow: 3,
      perViewerShow: 1,
      stock: 5,
      ownRestMs: 60_000,
      sharedRestMs: 30_000,
    });
    let ledgerView: LedgerView = {
      ...emptyLedgerView,
      balance: () => 10,
      soldInShow: () => 3,
      soldInShowTo: () => 1,
      sold: () => 5,
      lastToMs: () => 70_000,
      lastMs: () => 90_000,
    };
    let ask = asking({ onAir: false });
    const codes: string[] = [];
    const steps: (() => void)[] = [
      () => (reward = { ...reward, on: true }),
      () => (ask = { ...ask, onAir: true }),
      () => (reward = { ...reward, keptFor: "" }),
      () => (reward = { ...reward, roles: ["member"] }),
      () => (ask = { ...ask, text: "iron red" }),
      () => (ledgerView = { ...ledgerView, soldInShow: () => 2 }),
      () => (ledgerView = { ...ledgerView, soldInShowTo: () => 0 }),
      () => (ledgerView = { ...ledgerView, sold: () => 4 }),
      () => (ledgerView = { ...ledgerView, lastToMs: () => 40_000 }),
      () => (ledgerView = { ...ledgerView, lastMs: () => 70_000 }),
      () => (ledgerView = { ...ledgerView, balance: () => 200 }),
    ];
    for (const step of steps) {
      const result = redeem(reward, ledgerView, ask);
      if (!result.ok) {
        codes.push(result.refusal.code);
        expect(rewardRefusalInWords(result.refusal)).not.toMatch(/^reward\//);
      }
      step();
    }
    expect(codes).toEqual([
      "reward/off",
      "reward/off-air",
      "reward/kept",
      "reward/role",
      "reward/text",
      "reward/show-limit",
      "reward/own-limit",
      "reward/sold-out",
      "reward/own-rest",
      "reward/rest",
      "reward/too-poor",
    ]);
    expect(redeem(reward, ledgerView, ask)).toEqual({ ok: true, value: { price: 200, priceAfter: null, held: false } });
  });
  test("a cooldown says what is left to wait, to the second, and is over at its end", () => {
    const ledgerView = { ...rich, lastMs: () => 100_000 };
    const at = (atMs: number) => redeem(roar({ sharedRestMs: 12_000 }), ledgerView, asking({ atMs }));
    expect(at(100_001)).toMatchObject({ refusal: { code: "reward/rest", facts: { freeInS: 12 } } });
    expect(at(111_999)).toMatchObject({ refusal: { facts: { freeInS: 1 } } });
    expect(at(112_000).ok).toBe(true);
  });
  test("nobody pays more than they were shown", () => {
    const reward = roar({ moving: { ceiling: 1_000, raiseBp: 500, halfLifeMs: 600_000 } });
    const ledgerView = { ...rich, priceAt: () => ({ thousandths: 250_000, atMs: 100_000 }) };
    expect(costOf(reward, ledgerView, 100_000)).toBe(250);
    expect(redeem(reward, ledgerView, asking({ shownPrice: 240 }))).toMatchObject({
      refusal: { code: "reward/dearer", facts: { price: 250 } },
    });
    expect(redeem(reward, ledgerView, asking({ shownPrice: 250 }))).toMatchObject({ ok: true, value: { price: 250 } });
  });
});

describe("buying, step by step", () => {
  const book = (...rewards: Reward[]) => rewardBookSchema.parse({ schema: 3, rewards });
  const run = (rewards: Reward[], signal: Record<string, unknown>, ledgerView: LedgerView = rich, hushed = false) => {
    const ctx = bareContext(emoteIndex([]), { ledgerView, hushed, showId: "show7" });
    const at = { settings: book(...rewards), durable: { pending: [], seen: [], unmet: [] }, transient: null };
    return rewardsRules.step(deepFreeze(at), { seq: 5, atMs: 100_000, id: "s5", viewer: ada, ...signal } as Signal, ctx);
  };
  const says = (text: string) => ({ kind: "message", text, marks: [] });
  const command = (what: Record<string, unknown>) => ({ kind: "command", gameId: "r", by: "maria", viewer: null, command: what });
  const sale = (part: Partial<Sale> = {}): Sale => ({
    id: "s1",
    atMs: 1,
    rewardId: "roar",
    rewardName: "Kiln roar",
    viewer: { id: "ada", name: "Ada" },
    price: 200,
    text: "",
    state: "waiting",
    showId: "show7",
    decidedBy: "",
    times: 0,
    code: "",
    shown: false,
    ...part,
  });
  const cheer = roar({ words: ["!roar"], effects: [{ do: "say", text: "{viewer} bought {reward} for {price}: {text}" }] });

  test("by chat word, in any capitals: paid, sold, answered, done", () => {
    const bought = run([cheer], says("!ROAR"));
    expect(bought.booking).toMatchObject({
      entries: [
        {
          key: "buy:s5",
          reason: "bought",
          postings: [
            { account: "v:ada", amount: -200 },
            { account: "spent", amount: 200 },
          ],
        },
      ],
      sales: [{ id: "s5", state: "done", showId: "show7", price: 200 }],
    });
    expect(bought.orders).toMatchObject([
      { do: "redeemed", reward: "Kiln roar" },
      { do: "answer", to: "Ada" },
    ]);
    const done = run([cheer], {
      kind: "redemption",
      viewer: ada,
      saleId: "s5",
      rewardId: "roar",
      reward: "Kiln roar",
      price: 200,
      text: "hi",
    });
    expect(done.orders).toEqual([{ do: "say", text: "Ada bought Kiln roar for 200: hi" }]);
    expect(run([cheer], says("a roar")).booking).toBeUndefined();
  });
  test("what waits for a yes is held, and shows nothing yet", () => {
    const asked = run([{ ...cheer, approval: true }], says("!roar"));
    expect(asked.booking).toMatchObject({ entries: [{ reason: "asked" }], sales: [{ state: "waiting", shown: false }] });
    expect(asked.orders?.map((o) => o.do)).toEqual(["answer"]);
    const ledgerView = { ...rich, sale: () => sale() };
    expect(run([cheer], command({ do: "sale", sale: "s1", what: "done" }), ledgerView)).toMatchObject({
      booking: { entries: [{ key: "done:s1:0", reason: "done" }], sales: [{ state: "done", decidedBy: "maria" }] },
      orders: [{ do: "redeemed" }],
    });
  });
  test("a refund comes from where the points lie, and a second one changes nothing", () => {
    const back = (state: Sale["state"]) =>
      run([cheer], command({ do: "sale", sale: "s1", what: "refund" }), { ...rich, sale: () => sale({ state }) });
    expect(back("waiting").booking?.entries[0]?.postings[0]).toEqual({ account: "held", amount: -200 });
    expect(back("done").booking?.entries[0]?.postings[0]).toEqual({ account: "spent", amount: -200 });
    expect(back("refunded")).toMatchObject({ notes: [{ refusal: { code: "sale/refunded-already" } }] });
    expect(back("refunded").booking).toBeUndefined();
  });
  test("all of one reward that wait are given back at once", () => {
    const waiting = [sale(), sale({ id: "s2", viewer: { id: "bo", name: "Bo" } }), sale({ id: "s3", rewardId: "other" })];
    const all = run([cheer], command({ do: "refund-all", reward: "roar" }), { ...rich, waiting: () => waiting });
    expect(all.booking?.entries.map((e) => e.key)).toEqual(["back:s1:0", "back:s2:0"]);
  });
  test("under hush nobody pays", () => {
    const hushed = run([cheer], says("!roar"), rich, true);
    expect(hushed.notes[0]?.refusal?.code).toBe("reward/hushed");
    expect(hushed.booking).toBeUndefined();
  });
  test("what is free moves no points and counts as sold", () => {
    const free = run([{ ...cheer, price: 0 }], says("!roar"), emptyLedgerView);
    expect(free.booking).toMatchObject({ entries: [], sales: [{ price: 0, state: "done" }] });
  });
  test("two rewards of one word are refused at save", () => {
    expect(rewardBookSchema.safeParse({ schema: 3, rewards: [cheer, { ...cheer, id: "b", words: ["!Róar"] }] }).success).toBe(false);
  });
});
