import { describe, expect, test } from "@jest/globals";
import { alertLookDefaults } from "../alerts/alert";
import { cueBookDefaults } from "../cues/settings";
import { raffleDefaults } from "../games/raffle/settings";
import { ratesOfRoom } from "../lab/rates";
import { newReward, rewardBookDefaults } from "../rewards/settings";
import type { PlanItem } from "../show/plan";
import { wholePlace } from "../wire/messages";
import { checksInShort } from "./checks-short";
import { type CheckModule, liveChecks, type LiveFacts, settingsChecks, type SettingsFacts } from "./checks";

const module = (kind: string, settings: unknown, id = kind): CheckModule => ({ id, kind, name: id, settings });
const cue = (id: string, part: object = {}) => ({
  id,
  name: id,
  key: "",
  word: "",
  roles: ["moderator"],
  cooldownMs: 0,
  kind: "once",
  effects: [{ do: "say", text: "hello" }],
  offEffects: [],
  ...part,
});
const cues = (...list: object[]): CheckModule => module("cues", { ...cueBookDefaults, cues: list });
const rewards = (...list: object[]): CheckModule => module("rewards", { ...rewardBookDefaults, rewards: list });
const seen = (part: Partial<SettingsFacts>): readonly string[] =>
  settingsChecks({ modules: [], props: [], evenings: [], keyUse: () => null, ...part }).map((c) => `${c.tone}: ${c.about}: ${c.words}`);

describe("what is seen in the settings", () => {
  test("nothing, where all is well", () => expect(seen({ modules: [cues(cue("bell"))] })).toEqual([]));
  test("a cue whose picture is gone", () => {
    const show = { do: "show", picture: "gone", sound: "", volume: 80, text: "", ms: 4_000, queue: "", look: alertLookDefaults };
    expect(seen({ modules: [cues(cue("door", { effects: [show] }))] })).toEqual(["wrong: door: It shows a picture that is not there."]);
    expect(seen({ modules: [cues(cue("mute", { effects: [] }))] })).toEqual(["wrong: mute: It does nothing yet: choose what happens."]);
  });
  test("a key that something else has too", () => {
    expect(seen({ modules: [cues(cue("a", { key: "." }))], keyUse: (key) => (key === "." ? "hush" : null) })).toEqual([
      "wrong: a: Its key “.” is used for hush too: only one of them will hear it.",
    ]);
  });
  test("a draw without a prize", () => {
    expect(seen({ modules: [module("raffle", { ...raffleDefaults, prizes: [] }, "draw")] })).toEqual([
      "look: draw: It draws without a prize: whoever wins is named, and gets nothing.",
    ]);
  });
  test("a limit that a usual evening reaches: by the middle one of the last", () => {
    const roar = { ...newReward("roar", "Kiln roar", 200), perShow: 10, effects: [{ do: "say", text: "roar" }] };
    const evening = (buys: number) => ({ ...ratesOfRoom("usual", 2), buys, bought: ["roar", "roar", "other"] });
    const evenings = [evening(3), evening(30), evening(90)];
    expect(seen({ modules: [rewards(roar)], evenings })).toEqual([
      "look: Kiln roar: A usual evening asks for it 40 times; it may be had 10 times a show.",
    ]);
    expect(seen({ modules: [rewards({ ...roar, perShow: 100 })], evenings })).toEqual([]);
    expect(seen({ modules: [rewards({ ...roar, perShow: 0, stock: 5 })], evenings })[0]).toContain("there are 5 of it in all");
  });
  test("names like parts of objects are names like any other", () => {
    expect(seen({ modules: [cues(cue("constructor", { key: "__proto__" }))], keyUse: () => null })).toEqual([]);
  });
});

const item = (part: Partial<PlanItem>): PlanItem => ({
  id: "one",
  title: "One",
  atMin: 0,
  lengthMin: 0,
  note: "",
  does: { do: "note" },
  starts: { how: "hand" },
  ...part,
});
const overlay = (games: readonly string[]): LiveFacts["overlays"][number] => ({
  id: "main",
  name: "Main stage",
  width: 1_920,
  height: 1_080,
  backdrop: "studio",
  shows: true,
  places: games.map((game) => ({ game, place: wholePlace })),
});
const live = (part: Partial<LiveFacts>): readonly string[] =>
  liveChecks({ health: [], overlays: [], pages: [], games: [], plan: [], modules: [], ...part }).map(
    (c) => `${c.tone}: ${c.about}: ${c.words}`,
  );
const jug = { id: "jug", kind: "boss-battle", name: "Old Spall", view: { on: false } };

describe("what is seen in how everything stands", () => {
  test("an overlay that nobody has open, told once", () => {
    const health = [{ id: "overlays", name: "Overlay pages", state: "waiting" as const, says: "None is open.", means: "", todo: "" }];
    expect(live({ overlays: [overlay([])], health })).toEqual([
      "wrong: Main stage: Nobody has this overlay open: viewers see nothing of it.",
    ]);
  });
  test("a connection that is down, and none that was never wanted", () => {
    const item = (id: string, state: "bad" | "off" | "good") => ({ id, name: id, state, says: "It is away.", means: "", todo: "Wait." });
    expect(live({ health: [item("chat", "bad"), item("studio", "off"), item("speech", "bad"), item("database", "good")] })).toEqual([
      "wrong: chat: It is away.",
      "wrong: speech: It is away.",
    ]);
    expect(live({ health: [item("studio", "bad")] })).toHaveLength(1);
  });
  test("what the rundown names and is gone, can’t do, or stands nowhere", () => {
    const plan = [
      item({ id: "a", title: "A", does: { do: "cue", cue: "gone" } }),
      item({ id: "b", title: "B", does: { do: "start", game: "gone" } }),
      item({ id: "c", title: "C", does: { do: "act", game: "jug", act: "sing", input: {} } }),
      item({ id: "d", title: "D", does: { do: "start", game: "jug" } }),
      item({ id: "e", title: "E" }),
    ];
    expect(live({ plan, games: [jug] })).toEqual([
      "wrong: A: The rundown fires a cue that is not there any more.",
      "wrong: B: The rundown names a game that is not there any more.",
      "wrong: C: Old Spall can’t do what the rundown asks of it.",
      "look: D: Old Spall stands on no overlay, so nobody will see it.",
    ]);
    const page = { overlay: "main" } as LiveFacts["pages"][number];
    expect(live({ plan: [plan[3]!], games: [jug], overlays: [overlay(["jug"])], pages: [page] })).toEqual([]);
  });
  test("a reward whose game won’t run, unless the rundown starts it", () => {
    const hit = { ...newReward("knock", "Knock", 50), effects: [{ do: "act", game: "jug", act: "damage", input: { amount: 5 }, per: 1 }] };
    const modules = [rewards(hit)];
    expect(live({ games: [jug], modules })).toEqual([
      "look: Knock: It is sold, but Old Spall is off and nothing in the rundown starts it.",
    ]);
    expect(live({ games: [{ ...jug, view: { on: true } }], modules })).toEqual([]);
    const starts = [item({ does: { do: "start", game: "jug" } })];
    expect(live({ games: [jug], modules, plan: starts }).filter((c) => c.includes("Knock"))).toEqual([]);
  });
  test("in short: what does not work first, and how many more", () => {
    const check = (tone: "wrong" | "look", about: string) => ({ id: about, tone, about, words: "", href: "", fix: "" });
    expect([
      checksInShort([]),
      checksInShort([check("look", "Draw")]),
      checksInShort([check("look", "Draw"), check("wrong", "Main stage")]),
    ]).toEqual(["", "Worth a look: Draw", "Not ready: Main stage and 1 more"]);
  });
});
