import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../chat/emotes";
import { noteInShort, noteInWords } from "../notes";
import { bareContext, type StepContext } from "../module/module";
import { alertLookDefaults } from "../alerts/alert";
import { historyInWords } from "../points/history";
import { reasons } from "../points/ledger";
import type { RuleEffect } from "../rules/effect";
import type { Signal } from "../signals/signal";
import type { Role } from "../signals/names";
import { plain } from "../words/sentence";
import { type LedgerView, emptyLedgerView } from "./ledger-view";
import { nearest, slips } from "./near";
import { offerTo } from "./redeem";
import { rewardsRules } from "./rules";
import { formOf, put, rewardSentences, wordFrom } from "./sentences";
import { newReward, type Reward, rewardBookDefaults, rewardBookSchema } from "./settings";
import { tagsFor } from "./tags";
import { rewardRefusalInWords } from "./words";

const reward = (id: string, part: Partial<Reward> = {}): Reward => ({
  ...newReward(id, id, 100),
  words: [`!${id}`],
  effects: [{ do: "say", text: "here" }],
  ...part,
});
const viewer = (id: string, roles: Role[] = []) => ({ id, name: id, roles });
const rich: LedgerView = { ...emptyLedgerView, balance: () => 420 };

describe("what was probably meant", () => {
  test("a slip is a letter more, less, other, or two swapped", () => {
    expect([slips("roar", "roar"), slips("roar", "roat"), slips("roar", "oar"), slips("roar", "raor"), slips("roar", "rooar")]).toEqual([
      0, 1, 1, 1, 1,
    ]);
    expect(slips("kiln", "")).toBe(4);
  });
  test("only one that is near is suggested; short words, and those near to several, are left alone", () => {
    const words = ["!roar", "!bell", "!bells", "!lefthand"];
    expect(nearest("!RAOR", words)).toBe("!roar");
    expect(nearest("!belll", words)).toBeNull();
    expect(nearest("!lefhand", words)).toBe("!lefthand");
    expect(nearest("!ro", words)).toBeNull();
    expect(nearest("!something", words)).toBeNull();
  });
});

describe("asking in chat", () => {
  const book = rewardBookSchema.parse({
    ...rewardBookDefaults,
    rewards: [
      reward("roar", { price: 200 }),
      reward("drip", { price: 50 }),
      reward("mug", { price: 9_000 }),
      reward("mods", { roles: ["moderator"], price: 1 }),
      reward("hammer", { effects: [{ do: "act", game: "boss", act: "damage", input: { amount: 5 }, per: 1 }], price: 60 }),
    ],
  });
  const say = (text: string, part: Partial<StepContext> = {}) => {
    const ctx = bareContext(emoteIndex([]), { ledgerView: rich, pointsName: "clay", ...part });
    const at = { settings: book, durable: rewardsRules.freshDurable(book), transient: null };
    const out = rewardsRules.step(
      at,
      { kind: "message", seq: 1, atMs: 1_000, id: "m", viewer: viewer("ada"), text, marks: [] } as Signal,
      ctx,
    );
    return { words: out.notes[0] === undefined ? "" : noteInWords("rewards", out.notes[0]), booking: out.booking, out };
  };
  test("what can be had is listed cheapest first, and only what can be had now by this viewer", () => {
    expect(say("!shop").words).toBe("you have 420 clay: !drip 50 · !hammer 60 · !roar 200");
    expect(say("!shop", { gameRuns: () => false }).words).toBe("you have 420 clay: !drip 50 · !roar 200");
    expect(say("!shop", { ledgerView: emptyLedgerView }).words).toBe("you have 0 clay; nothing can be had for it now");
  });
  test("what something costs, by name, word, or nearly so", () => {
    for (const asked of ["roar", "!ROAR", "roarr"]) expect(say(`!price ${asked}`).words).toBe("roar costs 200 clay: write !roar");
    expect(say("!price").words).toBe("say which: !price and the name");
  });
  test("a slip is suggested; a word of somebody else’s is none", () => {
    expect(say("!rooar").words).toBe("did you mean !roar?");
    expect(say("!rooar", { isWord: () => true }).words).toBe("");
    expect(say("rooar").words).toBe("");
  });
  test("what viewers write is covered where it must be, and kept only where it is wanted", () => {
    const settings = rewardBookSchema.parse({
      ...rewardBookDefaults,
      rewards: [reward("note", { effects: [{ do: "say", text: "{viewer}: {text}" }] })],
    });
    const at = { settings, durable: rewardsRules.freshDurable(settings), transient: null };
    const ctx = bareContext(emoteIndex([]), { ledgerView: rich, hiddenWords: ["crackpot"] });
    const step = (signal: Record<string, unknown>) =>
      rewardsRules.step(at, { seq: 1, atMs: 1, id: "x", viewer: viewer("ada"), ...signal } as unknown as Signal, ctx);
    const redeemed = step({ kind: "redemption", saleId: "s1", rewardId: "note", reward: "note", price: 1, text: "you CRACKPOT" })
      .orders?.[0];
    expect(redeemed?.do === "say" ? redeemed.text : "").toMatch(/^ada: you (?!.*crackpot)/i);
    // This one wants no words: those that come by the page are not kept either.
    expect(step({ kind: "purchase-request", rewardId: "note", text: "hello", shownPrice: 100 }).booking?.sales[0]?.text).toBe("");
  });
  test("what needs something private is sold on the viewer page alone", () => {
    const settings = rewardBookSchema.parse({ ...rewardBookDefaults, rewards: [reward("card", { detail: "Where to?", approval: true })] });
    const at = { settings, durable: rewardsRules.freshDurable(settings), transient: null };
    const signal = { kind: "message", seq: 1, atMs: 1, id: "m", viewer: viewer("ada"), text: "!card", marks: [] } as Signal;
    const out = rewardsRules.step(at, signal, bareContext(emoteIndex([]), { ledgerView: rich }));
    expect([out.notes[0]?.refusal?.code, out.booking]).toEqual(["reward/page-only", undefined]);
  });
  test("what needs a game that rests is refused before anybody pays", () => {
    const resting = say("!hammer", { gameRuns: () => false, gameName: () => "Old Spall" });
    expect(resting.words).toBe("hammer needs Old Spall, which is stopped at the moment; nothing was paid");
    expect(resting.booking).toBeUndefined();
    expect(say("!hammer").booking?.sales).toHaveLength(1);
  });
  test.each(["game", "cue", "picture", "sound"] as const)(
    "what needs a %s that is gone is not on sale, and says why before anybody pays",
    (gone) => {
      const effect: RuleEffect = {
        game: { do: "switch" as const, game: "x", on: true },
        cue: { do: "cue" as const, cue: "x" },
        picture: { do: "show" as const, picture: "x", sound: "", volume: 1, text: "", ms: 500, queue: "", look: alertLookDefaults },
        sound: { do: "sound" as const, sound: "x", volume: 1, queue: "" },
      }[gone];
      const ctx = bareContext(emoteIndex([]), { ledgerView: rich, has: (what) => what !== gone });
      const offer = offerTo(reward("r", { effects: [effect] }), viewer("ada"), ctx, { atMs: 0 });
      expect(offer.ok ? "" : rewardRefusalInWords(offer.refusal)).toContain(`it needs a ${gone} that is not there any more`);
      expect(
        offerTo(reward("r", { effects: [effect] }), viewer("ada"), bareContext(emoteIndex([]), { ledgerView: rich }), { atMs: 0 }).ok,
      ).toBe(true);
    },
  );
  test.each<[string, Partial<Reward>, boolean]>([
    ["nothing", {}, false],
    ["a wait alone", { effects: [{ do: "wait", ms: 500 }] }, false],
    ["words that are none", { effects: [{ do: "say", text: "  " }] }, false],
    ["a sound that was not chosen", { effects: [{ do: "sound", sound: "", volume: 80, queue: "" }] }, false],
    ["words", { effects: [{ do: "say", text: "hello" }] }, true],
    ["somebody’s yes", { approval: true }, true],
    ["a code", { codes: ["MUG-1"] }, true],
  ])("one that gives %s is sold only where that is something, and is seen only then", (_, part, sold) => {
    const ctx = bareContext(emoteIndex([]), { ledgerView: rich });
    const it = { ...newReward("r", "Blank", 100), words: ["!blank"], ...part };
    const offer = offerTo(it, viewer("ada"), ctx, { atMs: 0 });
    expect(offer.ok ? "sold" : rewardRefusalInWords(offer.refusal)).toBe(sold ? "sold" : "Blank does nothing yet, so nobody can buy it");
    const book = rewardBookSchema.parse({ ...rewardBookDefaults, rewards: [it] });
    expect(tagsFor(book, ctx, { nowMs: 0, viewer: viewer("ada"), icon: () => null })).toHaveLength(sold ? 1 : 0);
  });
  test("the price is told during a wait too, with the wait, and whose it is", () => {
    const roar = { ...rich, lastMs: () => 0, lastToMs: () => null };
    const own = { ...rich, lastMs: () => null, lastToMs: () => 0 };
    const book = rewardBookSchema.parse({
      ...rewardBookDefaults,
      rewards: [reward("roar", { price: 200, sharedRestMs: 20_000, ownRestMs: 50_000 })],
    });
    const ask = (ledgerView: typeof rich) => {
      const out = rewardsRules.step(
        { settings: book, durable: rewardsRules.freshDurable(book), transient: null },
        { kind: "message", seq: 1, atMs: 1_000, id: "m", viewer: viewer("ada"), text: "!price roar", marks: [] },
        bareContext(emoteIndex([]), { ledgerView, pointsName: "clay" }),
      );
      return noteInWords("rewards", out.notes[0]!);
    };
    expect(ask(roar)).toBe("roar costs 200 clay; it can be had again in 19 s");
    expect(ask(own)).toBe("roar costs 200 clay; you can have it again in 49 s");
  });
  test("what was bought can be refunded where it stands in the talk", () => {
    const note = { did: "reward/bought", count: 60, subject: "hammer", facts: { sale: "s1" } };
    expect(rewardsRules.takeBack?.(note)).toMatchObject([{ label: "Refund 60", command: { do: "sale", sale: "s1", what: "refund" } }]);
    expect(rewardsRules.takeBack?.({ did: "reward/refunded", count: 60 })).toEqual([]);
  });
});

describe("what the platform sells", () => {
  const step = (book: Reward[], item: string) => {
    const settings = rewardBookSchema.parse({ ...rewardBookDefaults, rewards: book });
    const at = { settings, durable: rewardsRules.freshDurable(settings), transient: null };
    const signal = { kind: "purchase", seq: 4, atMs: 9, id: "p", viewer: viewer("ada"), item, title: "Ring it", price: 500, text: "" };
    return rewardsRules.step(at, signal as Signal, bareContext(emoteIndex([]), { ledgerView: emptyLedgerView }));
  };
  test("is done without our points when it is tied to a reward, and told when it is tied to none", () => {
    const tied = step([reward("bell", { partner: "bell-1", perShow: 3 })], "bell-1");
    expect(tied.booking).toMatchObject({ entries: [], sales: [{ price: 0, rewardId: "bell" }] });
    expect(tied.orders?.map((o) => o.do)).toEqual(["redeemed"]);
    const none = step([reward("bell")], "bell-1");
    expect(noteInWords("rewards", none.notes[0]!)).toBe("“Ring it” was bought on the platform and is tied to no reward here");
    expect(none.durable.seen).toEqual([{ item: "bell-1", title: "Ring it", lastMs: 9 }]);
    expect(none.booking).toBeUndefined();
  });
  test("what is refused waits for a person with its reason: given after all, whatever stood in the way, or settled there", () => {
    const book = [reward("bell", { partner: "bell-1", on: false, ownRestMs: 60_000 })];
    const refused = step(book, "bell-1");
    expect(refused.durable.unmet).toMatchObject([
      { id: "p", viewer: { id: "ada" }, title: "Ring it", price: 500, why: { code: "reward/off" } },
    ]);
    expect(rewardsRules.view(rewardBookDefaults, refused.durable, "operator", null)["unmet"]).toEqual([
      { id: "p", atMs: 9, viewer: "ada", title: "Ring it", price: 500, why: "bell is not sold at the moment" },
    ]);
    expect(rewardsRules.view(rewardBookDefaults, refused.durable, "viewer", null)).toEqual({});
    const settings = rewardBookSchema.parse({ ...rewardBookDefaults, rewards: book });
    const decide = (what: "give" | "settled", durable = refused.durable, rewards = settings) => {
      const command = { do: "unmet", id: "p", what };
      const signal = { kind: "command", seq: 5, atMs: 20, id: "c", gameId: "r", by: "kilnkeeper", viewer: null, command };
      return rewardsRules.step(
        { settings: rewards, durable, transient: null },
        signal as Signal,
        bareContext(emoteIndex([]), { ledgerView: emptyLedgerView }),
      );
    };
    const given = decide("give");
    expect(given.booking).toMatchObject({ entries: [], sales: [{ price: 0, rewardId: "bell", viewer: { id: "ada" } }] });
    expect([given.durable.unmet, given.orders?.map((o) => o.do)]).toEqual([[], ["redeemed"]]);
    const settled = decide("settled");
    expect([settled.durable.unmet, settled.booking, settled.notes.map((n) => noteInWords("rewards", n))]).toEqual([
      [],
      undefined,
      ["what ada bought on the platform is settled there"],
    ]);
    // Decided twice, the second hears it; what its reward needs is gone, it goes on waiting.
    expect(decide("settled", settled.durable).notes[0]?.refusal?.code).toBe("sale/settled-already");
    const empty = rewardBookSchema.parse({ ...rewardBookDefaults, rewards: [] });
    const gone = decide("give", refused.durable, empty);
    expect([gone.notes[0]?.refusal?.code, gone.durable.unmet.length]).toEqual(["reward/gone", 1]);
    // The platform sends it again: it waits once.
    const again = rewardsRules.step(
      { settings, durable: refused.durable, transient: null },
      {
        kind: "purchase",
        seq: 6,
        atMs: 30,
        id: "p",
        viewer: viewer("ada"),
        item: "bell-1",
        title: "Ring it",
        price: 500,
        text: "",
      } as Signal,
      bareContext(emoteIndex([]), { ledgerView: emptyLedgerView }),
    );
    expect(again.durable.unmet).toHaveLength(1);
  });
  test("what is refused is answered in chat with its reason; what is done is not", () => {
    const answers = (out: ReturnType<typeof step>): string[] =>
      (out.orders ?? []).flatMap((o) => (o.do === "answer" ? [`@${o.to} ${noteInWords("rewards", o.note)}`] : []));
    expect(answers(step([reward("bell", { partner: "bell-1" })], "bell-1"))).toEqual([]);
    expect(answers(step([reward("bell", { partner: "bell-1", on: false })], "bell-1"))).toEqual(["@ada bell is not sold at the moment"]);
  });
});

describe("price tags", () => {
  const looking = {
    nowMs: 100_000,
    onAir: false,
    hushed: false,
    pointsName: "clay",
    viewer: null,
    restingGame: () => null,
    icon: () => null,
  };
  const book = rewardBookSchema.parse({
    ...rewardBookDefaults,
    rewards: [
      reward("roar", { sharedRestMs: 30_000 }),
      reward("off", { on: false }),
      reward("kept", { keptFor: "bo" }),
      reward("air", { onlyOnAir: true }),
      reward("members", { roles: ["member"] }),
      reward("few", { stock: 5 }),
    ],
  });
  const ledgerView: LedgerView = {
    ...emptyLedgerView,
    lastMs: (id) => (id === "roar" ? 90_000 : null),
    sold: (id) => (id === "few" ? 3 : 0),
    balance: (id) => (id === "bo" ? 500 : 0),
  };
  const shown = bareContext(emoteIndex([]), { ledgerView, pointsName: "clay" });
  test("a stranger sees what is sold and what stands in everyone’s way; not what is off or kept", () => {
    const tags = tagsFor(book, shown, looking);
    expect(tags.map((t) => [t.id, t.code, t.freeAtMs, t.left])).toEqual([
      ["roar", "reward/rest", 120_000, null],
      ["air", "reward/off-air", 0, null],
      ["members", "", 0, null],
      ["few", "", 0, 2],
    ]);
  });
  test("a viewer sees what is kept for them, and their own obstacles", () => {
    const tags = tagsFor(book, shown, { ...looking, viewer: viewer("bo") });
    expect(tags.find((t) => t.id === "kept")).toMatchObject({ kept: true, why: "" });
    expect(tags.find((t) => t.id === "members")?.why).toBe("members is not for your role");
    expect(tagsFor(book, shown, { ...looking, viewer: viewer("ada") }).find((t) => t.id === "few")?.code).toBe("reward/too-poor");
    expect(tagsFor(book, { ...shown, hushed: true }, looking).every((t) => t.code === "reward/hushed")).toBe(true);
  });
  test("nothing but the price tag leaves: no limits, no effects, nobody’s id", () => {
    const text = JSON.stringify(tagsFor(book, shown, looking));
    for (const secret of ["keptFor", "effects", "codes", "perShow", "partner", "roles", "sharedRestMs"]) expect(text).not.toContain(secret);
    expect(rewardsRules.view(book, rewardsRules.freshDurable(book), "viewer")).toEqual({});
    expect(rewardsRules.view(book, rewardsRules.freshDurable(book), "overlay")).toEqual({});
  });
});

describe("a reward as sentences", () => {
  test("say what it costs, to whom, when and how often", () => {
    const words = rewardSentences(
      reward("roar", {
        moving: { ceiling: 300, raiseBp: 500, halfLifeMs: 600_000 },
        roles: ["member"],
        approval: true,
        text: { how: "must", asks: "Why?" },
      }),
      "clay",
    ).map(plain);
    expect(words[0]).toBe(
      "It costs 100 clay, and the price moves: each sale raises it by 5 %, up to 300, and every 600 s half of what it rose falls back.",
    );
    expect(words[1]).toBe("Members may buy it at any time; it is done when an operator says yes.");
    expect(words[2]).toBe("Words behind it are needed; viewers are asked “Why?”.");
  });
  test("each blank sets what it says, and every blank is a setting of the form", () => {
    const moving = put(reward("roar"), "moves", "moves");
    expect(moving.moving).toEqual({ raiseBp: 500, halfLifeMs: 600_000, ceiling: 300 });
    expect(put(moving, "raisePercent", 8).moving?.raiseBp).toBe(800);
    // A price above the ceiling lifts it, so that what is typed is never refused.
    expect(put(moving, "price", 900)).toMatchObject({ price: 900, moving: { ceiling: 900 } });
    expect(put(moving, "moves", "stays").moving).toBeNull();
    expect(put(reward("roar"), "roles", [])).toMatchObject({ roles: ["viewer"] });
    expect(put(reward("roar"), "nonsense", 1)).toEqual(reward("roar"));
    const form = formOf(moving) as unknown as Record<string, unknown>;
    for (const sentence of rewardSentences({ ...moving, text: { how: "may", asks: "" } }, "clay"))
      for (const part of sentence.parts) if (typeof part !== "string") expect(Object.keys(form)).toContain(part.path.split(".")[0]);
  });
  test("a chat word comes from a name", () => {
    expect(["Oven gloves", "Wët_Spönge 2.ogg", "!!!"].map(wordFrom)).toEqual(["!ovengloves", "!wetsponge2ogg", ""]);
  });
  test("a history has words for every reason, and chips are short", () => {
    for (const reason of reasons) expect(historyInWords(reason, "roar").length).toBeGreaterThan(3);
    expect(historyInWords("signal", "tip")).toBe("for a tip");
    expect(noteInShort("rewards", { did: "reward/bought", count: 1_200, subject: "Kiln roar" })).toBe("Kiln roar −1,200");
  });
});
