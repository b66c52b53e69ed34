import { describe, expect, test } from "@jest/globals";
import { cueBook } from "../cues/cues";
import { readStored, settingsVersion } from "../kernel/stored";
import { readCommand } from "../module/command";
import { emoteWall } from "../games/emote-wall/definition";
import { rewardsRules } from "../rewards/rules";
import { showRules } from "../show/rules";
import { freshShow } from "../show/settings";
import { rulebook } from "./rules";

/** As version 1 stored them. */
const strike = { do: "damage", game: "boss", how: "damage", rate: { give: 5, per: 100 } };
const flock = { do: "flock", game: "wall", count: 9, overMs: 500, from: "message", chosen: [], motion: "rain" };
const rules = { do: "tell-rules", game: "boss" };
const say = { do: "say", text: "hi" };
const kept = {
  rules: {
    schema: 1,
    rules: [
      {
        id: "r",
        name: "R",
        on: true,
        when: "tip",
        what: "",
        reaction: "",
        everyMs: 600_000,
        roles: ["viewer"],
        words: { how: "any", list: [] },
        time: { how: "any", fromMin: 0, toMin: 0 },
        cooldownMs: 0,
        tiers: [{ at: "least", amount: 0, deeds: [strike, flock, rules, say] }],
      },
    ],
    lanes: [],
    money: { home: "EUR", rates: [] },
    hiddenWords: [],
  },
  cues: {
    schema: 1,
    cues: [
      { id: "c", name: "C", key: "q", word: "", roles: ["streamer"], cooldownMs: 0, kind: "on-off", deeds: [flock], offDeeds: [rules] },
    ],
    hiddenWords: [],
  },
  rewards: {
    schema: 1,
    words: { shop: "!shop", price: "!price" },
    rewards: [
      {
        id: "w",
        name: "W",
        on: true,
        category: "",
        about: "",
        icon: "",
        price: 40,
        moving: null,
        stock: 0,
        roles: ["viewer"],
        onlyOnAir: false,
        text: { how: "none", asks: "" },
        sharedRestMs: 0,
        ownRestMs: 0,
        perShow: 0,
        perViewerShow: 0,
        keptFor: "",
        approval: false,
        words: [],
        deeds: [{ ...strike, rate: { give: 5, per: 1 } }],
      },
    ],
  },
  show: {
    schema: 1,
    begins: "hand",
    silenceMin: 0,
    commands: [
      { id: "h", word: "!hit", does: "hit", game: "boss", roles: ["moderator"] },
      { id: "q", word: "!quiet", does: "hush", game: "", roles: ["moderator"] },
    ],
  },
};
const read = (module: typeof rulebook | typeof cueBook | typeof rewardsRules | typeof showRules, stored: unknown) =>
  readStored<unknown>(module.settings as never, module.settingsSteps, settingsVersion(stored), stored);

describe("what version 1 stored is read by this one", () => {
  const acts = [
    { do: "act", game: "boss", act: "damage", input: { amount: 5 }, per: 100 },
    {
      do: "act",
      game: "wall",
      act: "flock",
      input: { count: 9, overMs: 500, emotes: { from: "message", chosen: [] }, motion: "rain" },
      per: 1,
    },
    { do: "act", game: "boss", act: "tell-rules", input: {}, per: 1 },
    say,
  ];
  test("rules and cues: what each did is the game's action now", () => {
    expect(read(rulebook, kept.rules)).toMatchObject({ ok: true, value: { schema: 3, rules: [{ tiers: [{ effects: acts }] }] } });
    expect(read(cueBook, kept.cues)).toMatchObject({ ok: true, value: { cues: [{ effects: [acts[1]], offEffects: [acts[2]] }] } });
  });
  test("a reward does what it did: five for every point of forty are two hundred", () =>
    expect(read(rewardsRules, kept.rewards)).toMatchObject({
      value: { rewards: [{ effects: [{ act: "damage", input: { amount: 200 }, per: 1 }] }] },
    }));
  test("moderators' words", () =>
    expect(read(showRules, kept.show)).toMatchObject({
      value: {
        commands: [
          { does: "act", act: "damage", game: "boss" },
          { does: "hush", act: "" },
        ],
      },
    }));
  test("what waits to be done is done in the new way", () => {
    const hand = { do: "flock", count: 9, overMs: 0, from: "chosen", chosen: ["own:w"], motion: null };
    const state = {
      showStartMs: null,
      timers: {},
      pending: [{ dueMs: 5, id: "p", orders: [{ do: "hand", gameId: "wall", viewer: null, hand }] }],
    };
    const now = readStored(rulebook.durable, rulebook.stateSteps, 1, state);
    expect(now.ok).toBe(true);
    const [order] = now.ok ? (now.value.pending[0]?.orders ?? []) : [];
    expect(order?.do === "command" && readCommand(emoteWall, order.command)).toMatchObject({
      ok: true,
      value: { count: 9, emotes: { from: "chosen", chosen: ["own:w"] }, motion: "" },
    });
  });
  test("what is not as described is refused, and never thrown", () => {
    const halves = [
      { schema: 2, rules: [{ tiers: [{ deeds: "many" }] }] },
      { schema: 2, cues: [{ deeds: [3] }], rewards: [null] },
    ];
    for (const odd of halves) for (const module of [rulebook, cueBook, rewardsRules]) expect(read(module, odd).ok).toBe(false);
    for (const odd of [null, 7, [], "x", { schema: 1 }, { schema: 1, rules: "many" }, { schema: 1, rules: [{ tiers: 3 }] }])
      for (const module of [rulebook, cueBook, rewardsRules, showRules]) expect(read(module, odd).ok).toBe(false);
  });
});

/** As version 2 stored them: an effect was a deed, a queue a lane, an alert a moment, a command a hand. */
describe("what version 2 stored is read by this one", () => {
  const look = { x: 0.5, y: 0.35, size: 0.3, entrance: "spring" };
  const shown = { do: "show", picture: "fire", sound: "", volume: 80, text: "{channel}", ms: 4_000, look };
  const sound = { do: "sound", sound: "bell", volume: 50 };
  const [rule] = kept.rules.rules;
  const [cue] = kept.cues.cues;
  const [reward] = kept.rewards.rewards;
  const alert = { id: "a", picture: "prop:fire", sound: "", volume: 1, text: "hi", ms: 900, look };

  test("rules, their queues, cues and rewards", () => {
    const rules = {
      ...kept.rules,
      schema: 2,
      lanes: [{ id: "main", name: "One after another", gapMs: 600, mostWaiting: 20 }],
      rules: [{ ...rule, tiers: [{ at: "least", amount: 0, deeds: [{ ...shown, lane: "main" }, say] }] }],
    };
    expect(read(rulebook, rules)).toMatchObject({
      ok: true,
      value: { queues: [{ id: "main", gapMs: 600 }], rules: [{ tiers: [{ effects: [{ ...shown, queue: "main" }, say] }] }] },
    });
    const cues = { ...kept.cues, schema: 2, cues: [{ ...cue, deeds: [{ ...shown, lane: "main" }], offDeeds: [{ ...sound, lane: "" }] }] };
    expect(read(cueBook, cues)).toMatchObject({
      ok: true,
      value: { cues: [{ effects: [{ ...shown, queue: "main" }], offEffects: [{ ...sound, queue: "" }] }] },
    });
    const rewards = { ...kept.rewards, schema: 2, rewards: [{ ...reward, deeds: [{ ...sound, lane: "main" }] }] };
    expect(read(rewardsRules, rewards)).toMatchObject({ ok: true, value: { rewards: [{ effects: [{ ...sound, queue: "main" }] }] } });
  });
  test("what waits, what a cue keeps on the picture, and how games stood before a rehearsal", () => {
    const hand = { do: "switch", on: true };
    const orders = [
      { do: "hand", gameId: "wall", viewer: null, hand, by: "Mo" },
      { do: "show", lane: "main", moment: alert },
      { do: "tell", what: "boss/fell", viewer: null, amount: 3, text: "Spall" },
      { do: "aside", what: "keep" },
      { do: "say", text: "hi" },
    ];
    const pending = [{ dueMs: 5, id: "p", orders }];
    const due = [
      { do: "command", gameId: "wall", viewer: null, command: hand, by: "Mo" },
      { do: "show", queue: "main", alert },
      { do: "emit", what: "boss/fell", viewer: null, amount: 3, text: "Spall" },
      { do: "snapshot", what: "keep" },
      { do: "say", text: "hi" },
    ];
    const rules = readStored(rulebook.durable, rulebook.stateSteps, 2, { showStartMs: null, timers: {}, pending });
    expect(rules).toMatchObject({ ok: true, value: { pending: [{ orders: due }] } });
    const cues = readStored(cueBook.durable, cueBook.stateSteps, 2, { on: [{ cueId: "c", sinceMs: 1, moments: [alert] }], pending });
    expect(cues).toMatchObject({ ok: true, value: { on: [{ cueId: "c", alerts: [alert] }], pending: [{ orders: due }] } });
    const { snapshot, ...rest } = freshShow();
    expect(snapshot).toBeNull();
    const show = readStored(showRules.durable, showRules.stateSteps, 1, { ...rest, aside: { boss: { health: 3 } } });
    expect(show).toMatchObject({ ok: true, value: { snapshot: { boss: { health: 3 } } } });
  });
});
