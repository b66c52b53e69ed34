import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../chat/emotes";
import { deepFreeze } from "../kernel/freeze";
import { bareContext } from "../module/module";
import { alertLookDefaults } from "../alerts/alert";
import type { Signal } from "../signals/signal";
import type { Viewer } from "../signals/names";
import type { RuleEffect } from "./effect";
import { explain, rulebook } from "./rules";
import { newRule, type Rule, type Rulebook, rulebookDefaults, rulebookSchema, type RulebookDurable, type When } from "./settings";
import { effectInWords, orderInWords, tierInWords, whenInWords } from "./words";
import { ruleRefusalInWords } from "./notes";
import { ruleHints } from "./hints";
import { noteInWords } from "../notes";

const ada: Viewer = { id: "ada", name: "Ada", roles: [] };
const mod: Viewer = { id: "max", name: "Max", roles: ["moderator"] };
const ctx = bareContext(emoteIndex([{ id: "w", word: "wobblePot" }]), {
  soundMs: (id) => (id === "bell" ? 1_600 : 0),
  gameName: (id) => (id === "boss" ? "Old Spall" : id),
});
let seq = 0;
type Part<T> = T extends unknown ? Omit<T, "seq" | "atMs" | "id"> : never;
const signal = (part: Part<Signal>, atMs = 1_000_000): Signal => ({ ...part, seq: (seq += 1), atMs, id: `s${seq}` }) as Signal;
const tip = (homeMinor: number | null, viewer: Viewer | null = ada, text = "", atMs?: number) =>
  signal({ kind: "tip", viewer, amountMinor: homeMinor ?? 700, currency: homeMinor === null ? "SEK" : "EUR", homeMinor, text }, atMs);
const say = (text: string): RuleEffect => ({ do: "say", text });
const rule = (when: When, effects: RuleEffect[], part: Partial<Rule> = {}): Rule => ({
  ...newRule("r", when),
  name: "R",
  tiers: [{ at: "least", amount: 0, effects }],
  ...part,
});
const book = (...rules: Rule[]): Rulebook => rulebookSchema.parse({ ...rulebookDefaults, rules, hiddenWords: ["crackpot"] });
const fresh = (part: Partial<RulebookDurable> = {}): RulebookDurable => ({ ...rulebook.freshDurable(rulebookDefaults), ...part });
const run = (settings: Rulebook, s: Signal, durable = fresh(), transient = rulebook.freshDust()) =>
  rulebook.step(deepFreeze({ settings, durable, transient }), deepFreeze(s), ctx);
const why = (settings: Rulebook, s: Signal, durable = fresh()) =>
  explain({ settings, durable, transient: { fired: {} } }, s, ctx)[0]?.decision.refusal?.code ?? "fires";

describe("when a rule answers", () => {
  test("its kind, and only its kind, in the order of the book", () => {
    const settings = book(
      rule("follow", [say("a")], { id: "1" }),
      rule("tip", [say("b")], { id: "2" }),
      rule("follow", [say("c")], { id: "3" }),
    );
    expect(run(settings, signal({ kind: "follow", viewer: ada })).orders).toEqual([
      { do: "say", text: "a" },
      { do: "say", text: "c" },
    ]);
  });
  test("roles: a named role never lets somebody unknown in, everyone does", () => {
    const mods = book(rule("tip", [say("x")], { roles: ["moderator"] }));
    expect(why(mods, tip(500, mod))).toBe("fires");
    expect(why(mods, tip(500, ada))).toBe("rule/role");
    expect(why(mods, tip(500, null))).toBe("rule/role");
    expect(why(book(rule("tip", [say("x")])), tip(500, null))).toBe("fires");
  });
  test("words: in the text, or just the text, without regard to case and accents", () => {
    const some = book(rule("tip", [say("x")], { words: { how: "contains", list: ["glaze", "vase"] } }));
    expect(why(some, tip(500, ada, "Blue GLÁZE please"))).toBe("fires");
    expect(why(some, tip(500, ada, "more grog"))).toBe("rule/words");
    const just = book(rule("message", [say("x")], { words: { how: "is", list: ["!rules"] } }));
    expect(why(just, signal({ kind: "message", viewer: ada, text: " !Rules ", marks: [] }))).toBe("fires");
    expect(why(just, signal({ kind: "message", viewer: ada, text: "say !rules", marks: [] }))).toBe("rule/words");
  });
  test("time of the show: off air, too early, in time, too late", () => {
    const timed = book(rule("tip", [say("x")], { time: { how: "show", fromMin: 10, toMin: 20 } }));
    const at = (min: number) => why(timed, tip(500), fresh({ showStartMs: 1_000_000 - min * 60_000 }));
    expect([why(timed, tip(500)), at(9), at(10), at(19), at(20)]).toEqual([
      "rule/off-air",
      "rule/too-early",
      "fires",
      "fires",
      "rule/too-late",
    ]);
  });
  test("tiers: one answers, an exact one before all", () => {
    const tiers: Rule["tiers"] = [
      { at: "least", amount: 100, effects: [say("small")] },
      { at: "least", amount: 2_000, effects: [say("large")] },
      { at: "exact", amount: 1_313, effects: [say("odd")] },
    ];
    const settings = book(rule("tip", [], { tiers }));
    const said = (n: number) => run(settings, tip(n)).orders?.map((o) => (o.do === "say" ? o.text : o.do));
    expect([said(99), said(100), said(1_313), said(1_999), said(2_000)]).toEqual([[], ["small"], ["odd"], ["small"], ["large"]]);
    expect(run(settings, tip(99)).notes).toEqual([{ refusal: { code: "rule/tier", facts: { amount: 99 } }, count: 1, subject: "R" }]);
  });
  test("a currency without a rate does not count, and the operator is told", () => {
    expect(run(book(rule("tip", [say("x")])), tip(null)).notes[0]?.refusal).toEqual({ code: "rule/currency", facts: { currency: "SEK" } });
  });
  test("after it has answered it rests, and says for how long", () => {
    const settings = book(rule("tip", [say("x")], { cooldownMs: 10_000 }));
    const first = run(settings, tip(500));
    const again = rulebook.step({ settings, durable: first.durable, transient: first.transient }, tip(500, ada, "", 1_004_500), ctx);
    expect(again.orders).toEqual([]);
    expect(again.notes[0]?.refusal).toEqual({ code: "rule/cooling", facts: { freeInS: 6 } });
    expect(
      rulebook.step({ settings, durable: first.durable, transient: first.transient }, tip(500, ada, "", 1_010_000), ctx).orders,
    ).toHaveLength(1);
  });
  test("a paid reaction of one kind, whatever its case", () => {
    const settings = book(rule("reaction", [say("x")], { reaction: "Sherd" }));
    const send = (reaction: string) => why(settings, signal({ kind: "reaction", viewer: ada, reaction, count: 1, value: 1, text: "" }));
    expect([send("sherd"), send("ember")]).toEqual(["fires", "rule/other-reaction"]);
  });
  test("what a game tells is answered by its name", () => {
    const settings = book(rule("happened", [say("{viewer} felled {text} of {game}")], { what: "boss/fell" }));
    const told = (what: string) =>
      run(settings, signal({ kind: "happened", gameId: "boss", what, viewer: ada, amount: 9, text: "Spall" })).orders;
    expect(told("boss/hit")).toEqual([]);
    expect(told("boss/fell")).toEqual([{ do: "say", text: "Ada felled Spall of Old Spall" }]);
  });
  test("switched off, it does nothing and says nothing", () => {
    expect(run(book(rule("follow", [say("x")], { on: false })), signal({ kind: "follow", viewer: ada })).notes).toEqual([]);
  });
});

describe("what a rule does", () => {
  const show: RuleEffect = {
    do: "show",
    picture: "boat",
    sound: "bell",
    volume: 50,
    text: "{viewer}: {text}",
    ms: 1_000,
    queue: "main",
    look: alertLookDefaults,
  };
  test("each effect becomes one order; texts are filled with what is fit to be shown", () => {
    const effects: RuleEffect[] = [
      { do: "act", game: "boss", act: "damage", input: { amount: 5 }, per: 100 },
      { do: "act", game: "boss", act: "heal", input: { amount: 1 }, per: 1_000_000 },
      {
        do: "act",
        game: "wall",
        act: "flock",
        input: { count: 9, overMs: 0, emotes: { from: "most-used", chosen: [] }, motion: "" },
        per: 1,
      },
      show,
      { do: "sound", sound: "bell", volume: 100, queue: "" },
      say("{viewer} tips {amount}"),
      { do: "switch", game: "wall", on: false },
      { do: "act", game: "boss", act: "tell-rules", input: {}, per: 1 },
    ];
    const { orders = [] } = run(book(rule("tip", effects)), tip(430, { ...ada, name: "crackpot\u202E!" }, "see http://x.invalid"));
    // 1 for a million of 4.30 is nothing, so it is left out.
    expect(orders.map((o) => (o.do === "command" ? o.command.do : o.do))).toEqual([
      "damage",
      "flock",
      "show",
      "show",
      "say",
      "switch",
      "tell-rules",
    ]);
    expect(orders[0]).toMatchObject({ gameId: "boss", viewer: { id: "ada" }, command: { amount: 21 } });
    expect(orders[2]).toMatchObject({
      queue: "main",
      alert: { picture: "prop:boat", sound: "bell", volume: 0.5, text: "••••••••!: see (link)", ms: 1_600 },
    });
    expect(orders[3]).toMatchObject({ queue: "", alert: { picture: "", text: "", ms: 1_600 } });
    expect(orders[4]).toEqual({ do: "say", text: "••••••••! tips 4.30 EUR" });
  });
  test("a flock of the message's emotes: each kind once, none when there is none", () => {
    const settings = book(
      rule("message", [
        {
          do: "act",
          game: "wall",
          act: "flock",
          input: { count: 9, overMs: 0, emotes: { from: "message", chosen: [] }, motion: "rain" },
          per: 1,
        },
      ]),
    );
    const said = (text: string) => run(settings, signal({ kind: "message", viewer: ada, text, marks: [] })).orders;
    expect(said("wobblePot wobblePot 🔥")).toMatchObject([
      { command: { emotes: { from: "chosen", chosen: ["own:w", "emoji:🔥"] }, motion: "rain" } },
    ]);
    expect(said("no emotes here")).toEqual([]);
  });
  test("a wait holds back what follows it, and outlives a restart as part of the state", () => {
    const settings = book(rule("follow", [say("now"), { do: "wait", ms: 2_000 }, say("soon"), { do: "wait", ms: 500 }, say("later")]));
    const first = run(settings, signal({ kind: "follow", viewer: ada }));
    expect(first.orders).toEqual([{ do: "say", text: "now" }]);
    const kept = rulebook.durable.parse(JSON.parse(JSON.stringify(first.durable)));
    expect(rulebook.dueMs!(settings, kept)).toBe(1_002_000);
    const early = run(settings, signal({ kind: "timer", moduleId: "rules" }, 1_001_999), kept);
    expect(early.orders).toEqual([]);
    const due = run(settings, signal({ kind: "timer", moduleId: "rules" }, 1_002_000), kept);
    expect(due.orders).toEqual([{ do: "say", text: "soon" }]);
    const last = run(settings, signal({ kind: "timer", moduleId: "rules" }, 1_002_500), due.durable);
    expect([last.orders, rulebook.dueMs!(settings, last.durable)]).toEqual([[{ do: "say", text: "later" }], null]);
  });
  test("a rule that comes round does so every so often, once after a long pause, and only during the show", () => {
    const settings = book(rule("timer", [say("hm")], { everyMs: 60_000, time: { how: "show", fromMin: 0, toMin: 0 } }));
    const begun = run(settings, signal({ kind: "live", viewer: null }, 1_000));
    expect(rulebook.dueMs!(settings, begun.durable)).toBe(61_000);
    const tick = (durable: RulebookDurable, atMs: number) => run(settings, signal({ kind: "timer", moduleId: "rules" }, atMs), durable);
    const one = tick(begun.durable, 61_000);
    expect(one.orders).toHaveLength(1);
    const late = tick(one.durable, 601_000);
    expect([late.orders?.length, rulebook.dueMs!(settings, late.durable)]).toEqual([1, 661_000]);
    const over = run(settings, signal({ kind: "ended", viewer: null }, 602_000), late.durable);
    expect(tick(over.durable, 662_000).orders).toEqual([]);
  });
  test("a show begins once and ends once", () => {
    const live = run(rulebookDefaults, signal({ kind: "live", viewer: null }, 5_000));
    expect(live.durable.showStartMs).toBe(5_000);
    expect(run(rulebookDefaults, signal({ kind: "live", viewer: null }, 9_000), live.durable).durable.showStartMs).toBe(5_000);
    expect(run(rulebookDefaults, signal({ kind: "ended", viewer: null }, 9_000), live.durable).durable.showStartMs).toBeNull();
  });
  test("viewers and overlays see nothing of the rulebook", () => {
    expect([rulebook.view(rulebookDefaults, fresh(), "overlay"), rulebook.view(rulebookDefaults, fresh(), "viewer")]).toEqual([{}, {}]);
  });
});

describe("what can't be saved", () => {
  const problem = (part: Partial<Rule>): string => {
    const parsed = rulebookSchema.safeParse({ ...rulebookDefaults, rules: [{ ...newRule("r", "tip"), name: "R", ...part }] });
    return parsed.success ? "" : (parsed.error.issues[0]?.message ?? "");
  };
  test("two tiers of one amount, an unknown variable, a broken text", () => {
    expect(
      problem({
        tiers: [
          { at: "least", amount: 5, effects: [] },
          { at: "least", amount: 5, effects: [] },
        ],
      }),
    ).toMatch(/Two tiers/);
    expect(problem({ tiers: [{ at: "least", amount: 5, effects: [say("{months}")] }] })).toBe(
      "“months” is no variable here. There are: viewer, amount, text, channel.",
    );
    expect(problem({ tiers: [{ at: "least", amount: 5, effects: [say("{viewer")] }] })).toMatch(/brace/);
  });
  test("more than twenty effects, nobody allowed, two rates for one currency", () => {
    expect(problem({ tiers: [{ at: "least", amount: 0, effects: Array.from({ length: 21 }, () => say("x")) }] })).toMatch(/at most 20/);
    expect(problem({ roles: [] })).not.toBe("");
    const rates = [
      { currency: "GBP", millionths: 1 },
      { currency: "GBP", millionths: 2 },
    ];
    expect(rulebookSchema.safeParse({ ...rulebookDefaults, money: { home: "EUR", rates } }).success).toBe(false);
  });
});

describe("in words", () => {
  const names = {
    game: (id: string) => (id === "boss" ? "Old Spall" : null),
    kind: (id: string) => (id === "boss" ? "boss-battle" : ""),
    prop: (id: string) => (id === "bell" ? "Small bell" : null),
    home: "EUR",
  };
  test("a rule reads as a sentence", () => {
    expect(
      whenInWords(
        rule("tip", [], { roles: ["member"], words: { how: "contains", list: ["glaze"] }, time: { how: "show", fromMin: 5, toMin: 9 } }),
      ),
    ).toBe("somebody tips, by members, with glaze in it, from minute 5 to 9 of the show");
    expect(whenInWords(rule("timer", [], { everyMs: 90_000, time: { how: "any", fromMin: 0, toMin: 0 } }))).toBe("every 90 s");
    expect(tierInWords({ when: "tip" }, { at: "least", amount: 2_000 }, "EUR")).toBe("20.00 EUR or more");
    expect(tierInWords({ when: "membership" }, { at: "exact", amount: 1 }, "EUR")).toBe("exactly 1 month");
    expect(tierInWords({ when: "follow" }, { at: "least", amount: 0 }, "EUR")).toBe("");
  });
  test("every effect and every order is told, what is gone included", () => {
    expect(effectInWords({ do: "act", game: "boss", act: "heal", input: { amount: 5 }, per: 100 }, { when: "tip" }, names)).toBe(
      "heal Old Spall by 5 for every 1.00 EUR",
    );
    expect(effectInWords({ do: "switch", game: "x", on: true }, { when: "tip" }, names)).toBe("start a game that is gone");
    expect(effectInWords({ do: "sound", sound: "bell", volume: 1, queue: "" }, { when: "tip" }, names)).toBe("play Small bell");
    const { orders = [] } = run(
      book(rule("tip", [{ do: "act", game: "boss", act: "damage", input: { amount: 5 }, per: 100 }, say("hi")])),
      tip(400),
    );
    expect(orders.map((o) => orderInWords(o, names))).toEqual(["hit Old Spall by 20", "chat is told “hi”"]);
  });
  test.each([
    "rule/off",
    "rule/other-reaction",
    "rule/role",
    "rule/words",
    "rule/off-air",
    "rule/too-early",
    "rule/too-late",
    "rule/currency",
    "rule/tier",
    "rule/cooling",
  ])("%s has words of its own", (code) => {
    const words = ruleRefusalInWords(
      { code, facts: { reaction: "ember", fromMin: 3, toMin: 9, currency: "SEK", amount: 4, freeInS: 6 } },
      names,
      { when: "tip" },
    );
    expect(words).not.toBe(code);
    expect(words).not.toMatch(/undefined|NaN/);
  });
  test("notes are told with the rule's name", () => {
    expect(noteInWords("rules", { did: "rule/fired", count: 1, subject: "Tips" })).toBe("rule “Tips” answered");
    expect(noteInWords("cues", { refusal: { code: "cue/cooling", facts: { freeInS: 3 } }, count: 1, subject: "Door" })).toBe(
      "“Door” is on cooldown for 3 s more",
    );
  });
});

describe("warnings before the show", () => {
  const facts = {
    games: [
      { id: "boss", kind: "boss-battle" },
      { id: "wall", kind: "emote-wall" },
    ],
    props: [{ id: "bell", kind: "sound" as const }],
  };
  const hints = (r: Rule): string =>
    ruleHints(book(r), facts)
      .map((h) => h.text)
      .join(" ");
  test("a rule that can never answer says why", () => {
    expect(hints(rule("tip", [say("x")], { words: { how: "is", list: [" "] } }))).toMatch(/waits for words/);
    expect(hints(rule("follow", [say("x")], { words: { how: "contains", list: ["a"] } }))).toMatch(/has none/);
    expect(hints(rule("tip", [say("x")], { time: { how: "show", fromMin: 9, toMin: 9 } }))).toMatch(/ends before it begins/);
    expect(hints(rule("follow", [], { tiers: [{ at: "least", amount: 2, effects: [say("x")] }] }))).toMatch(/always counts as 1/);
    expect(hints(rule("live", [say("x")], { roles: ["member"] }))).toMatch(/nobody sends this/);
    expect(hints(rule("happened", [say("x")], { what: "boss/gone" }))).toMatch(/no game tells/);
  });
  test("a rule that fires something missing says what", () => {
    expect(hints(rule("tip", []))).toMatch(/does nothing yet/);
    expect(hints(rule("tip", [{ do: "act", game: "gone", act: "damage", input: { amount: 1 }, per: 1 }]))).toMatch(
      /a game that is not there/,
    );
    expect(hints(rule("tip", [{ do: "act", game: "wall", act: "damage", input: { amount: 1 }, per: 1 }]))).toMatch(/its game can’t do/);
    expect(hints(rule("tip", [{ do: "sound", sound: "gone", volume: 1, queue: "" }]))).toMatch(/sound that is not there/);
    expect(
      hints(
        rule("tip", [
          {
            do: "act",
            game: "wall",
            act: "flock",
            input: { count: 1, overMs: 0, emotes: { from: "chosen", chosen: [] }, motion: "" },
            per: 1,
          },
        ]),
      ),
    ).toMatch(/none is chosen/);
    expect(
      hints(rule("happened", [{ do: "act", game: "boss", act: "damage", input: { amount: 1 }, per: 1 }], { what: "boss/hit" })),
    ).toMatch(/doing the same again/);
  });
  test("a good rule has none", () =>
    expect(hints(rule("tip", [say("x"), { do: "sound", sound: "bell", volume: 50, queue: "" }]))).toBe(""));
});
