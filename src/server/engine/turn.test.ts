import { describe, expect, test } from "@jest/globals";
import { newCue } from "../../core/cues/settings";
import { bossBattle } from "../../core/games/boss-battle/definition";
import { clips } from "../../core/games/clips/definition";
import { emoteWall } from "../../core/games/emote-wall/definition";
import { voices } from "../../core/games/voices/definition";
import { gameId } from "../../core/kernel/ids";
import { alertLookDefaults } from "../../core/alerts/alert";
import type { RuleEffect } from "../../core/rules/effect";
import { newRule, type Rule, rulebookDefaults, type When } from "../../core/rules/settings";
import { markOf } from "../../core/show/timeline";
import { newPlanItem } from "../../core/show/plan";
import { showDefaults } from "../../core/show/settings";
import type { Command } from "../../core/signals/signal";
import { wholePlace } from "../../core/wire/messages";
import { inProcessBus } from "../adapters/bus/in-process";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import type { Publication } from "../ports/bus";
import type { GameRow } from "../ports/engine-store";
import { pause, said, testChannel } from "../testing/channel";
import { Runner } from "./runner";

const game = (id: string, kind: string, settings: unknown): GameRow => ({
  id: gameId(id),
  kind,
  name: id,
  version: 1,
  settings,
  durable: null,
});
const rule = (id: string, when: When, effects: RuleEffect[], part: Partial<Rule> = {}): Rule => ({
  ...newRule(id, when),
  name: id,
  tiers: [{ at: "least", amount: 0, effects }],
  ...part,
});
const damage = (give: number): RuleEffect => ({ do: "act", game: "boss", act: "damage", input: { amount: give }, per: 1 });
const show = (queue: string, ms = 1_000): RuleEffect => ({
  do: "show",
  picture: "",
  sound: "",
  volume: 80,
  text: "hello {viewer}",
  ms,
  queue,
  look: alertLookDefaults,
});
const ada = { id: "ada", name: "Ada", roles: [] };

function setUp(rules: Rule[], effects: RuleEffect[] = [], health = 100) {
  const store = memoryEngineStore();
  const row = testChannel({
    games: [
      game("wall", "emote-wall", emoteWall.defaults),
      game("boss", "boss-battle", { ...bossBattle.defaults, health }),
      game("book", "rules", { ...rulebookDefaults, rules }),
      game("cues", "cues", { schema: 3, cues: [{ ...newCue("door", "Door"), effects, cooldownMs: 0 }] }),
    ],
  });
  store.put(row);
  const bus = inProcessBus();
  const heard: Publication[] = [];
  bus.subscribe((_, p) => heard.push(p));
  const says: string[] = [];
  const time = { nowMs: 1_000_000 };
  const runner = new Runner({ store, clock: { now: () => time.nowMs }, bus, say: (t) => says.push(t) > 0 }, row, 0);
  const of = <K extends Publication["kind"]>(kind: K) => heard.filter((p): p is Extract<Publication, { kind: K }> => p.kind === kind);
  const boss = () => runner.standing().games.find((g) => g.id === "boss")!.view;
  let n = 0;
  const follow = () => runner.inbox.platform([{ id: `f${(n += 1)}`, signal: { kind: "follow", viewer: ada } }]);
  return { store, runner, heard, of, says, boss, follow, time };
}

describe("one turn", () => {
  test("a rule's blow lands in the same turn, is committed with its signal, and is told once", async () => {
    const { runner, follow, boss, store, of } = setUp([rule("r", "follow", [damage(25), { do: "say", text: "hi {viewer}" }])]);
    expect(await follow()).toEqual({ ok: true, value: ["taken"] });
    // 10 by the boss's own sentence, 25 by the rule.
    expect(boss()["health"]).toBe(65);
    expect(store.log(runner.id).map((r) => [r.kind, r.source])).toEqual([
      ["follow", "event"],
      ["command", "rules"],
    ]);
    expect(store.keptRows(runner.id)).toMatchObject([
      { kind: "hit", gameId: "boss", body: { amount: 10, kind: "follow" } },
      { kind: "hit", gameId: "boss", viewer: { id: "ada" }, body: { amount: 25, kind: "rule" } },
    ]);
    expect(of("talk").map((t) => t.of)).toEqual(["follow", "said"]);
    expect(of("talk")[0]?.notes.map((n) => n.note.did)).toEqual(["boss/hit", "rule/fired", "boss/hit"]);
    await runner.stop();
  });
  test.each<[string, string, Readonly<{ taken?: boolean; clipsOn?: boolean }>, string[]]>([
    ["names a clip", "!clip https://films.invalid/a.webm 0:07", {}, ["clips"]],
    ["names a clip, where both are wanted", "!clip https://films.invalid/a.webm 0:07", { taken: true }, ["clips", "voices"]],
    ["names a clip while clips are off", "!clip https://films.invalid/a.webm 0:07 look", { clipsOn: false }, ["clips"]],
    ["has a link in it and asks for nothing", "look: https://films.invalid/a.webm", {}, ["voices"]],
    ["asks for a clip and names none", "!clip please", {}, ["voices"]],
  ])("the text of a tip that %s is taken by one alone", async (_, text, { taken = false, clipsOn = true }, by) => {
    const row = testChannel({
      games: [
        game("voices", "voices", { ...voices.defaults, tipLeast: 100, taken }),
        game("clips", "clips", { ...clips.defaults, tips: { ...clips.defaults.tips, perSecond: 10, least: 1 } }),
      ],
    });
    const store = memoryEngineStore();
    store.put(row);
    const bus = inProcessBus();
    const heard: Publication[] = [];
    bus.subscribe((_id, p) => heard.push(p));
    const runner = new Runner({ store, clock: { now: () => 1_000_000 }, bus }, row, 0);
    if (!clipsOn) await runner.requests.command("clips", "maria", "clips-off-1", { do: "switch", on: false });
    heard.length = 0;
    const tip = { kind: "tip" as const, viewer: ada, amountMinor: 1_000, currency: "EUR", homeMinor: null, text };
    await runner.inbox.platform([{ id: "t1", signal: tip }]);
    const talk = heard.flatMap((p) => (p.kind === "talk" && p.of === "tip" ? p.notes.map((n) => n.game) : []));
    expect([...new Set(talk)].sort()).toEqual(by);
    await runner.stop();
  });
  test("what a game tells is answered by rules: a fall sets off a flock and a word in chat", async () => {
    const flock: RuleEffect = {
      do: "act",
      game: "wall",
      act: "flock",
      input: { count: 30, overMs: 0, emotes: { from: "chosen", chosen: ["own:w"] }, motion: "" },
      per: 1,
    };
    const { runner, of, says, boss } = setUp([
      rule("r", "happened", [flock, { do: "say", text: "{text} falls to {viewer}" }], { what: "boss/fell" }),
    ]);
    await runner.inbox.platform([{ id: "1", signal: { kind: "raid", viewer: ada, viewers: 80 } }]);
    expect(boss()).toMatchObject({ name: "Ada", falls: 1 });
    expect(says).toEqual(["Old Spall falls to Ada"]);
    expect(of("effects").map((e) => e.game)).toEqual(["boss", "wall"]);
    await runner.stop();
  });
  test("rules that set each other off stop after twenty in a row, and say so", async () => {
    const { runner, follow, boss, of } = setUp([rule("loop", "happened", [damage(1)], { what: "boss/hit" })], [], 10_000);
    await follow();
    const notes = of("talk")[0]?.notes ?? [];
    expect(notes.some((n) => n.note.refusal?.code === "order/too-deep")).toBe(true);
    // The follow's ten, and ten more for every second of twenty steps.
    expect(boss()["health"]).toBe(10_000 - 10 - 10 * 10);
    await runner.stop();
  });
  test("a rule that acts on a game that is gone harms nothing", async () => {
    const { runner, follow, of } = setUp([rule("r", "follow", [{ ...damage(5), game: "gone" } as RuleEffect])]);
    expect((await follow()).ok).toBe(true);
    expect(of("talk")[0]?.notes.some((n) => n.note.refusal?.code === "game/unknown")).toBe(true);
    await runner.stop();
  });
  test("a chat word answered by a rule waits for the database only when something durable changes", async () => {
    const { runner, store, says, boss } = setUp([
      rule("w", "message", [{ do: "say", text: "yes" }], { words: { how: "is", list: ["!ask"] } }),
      rule("d", "message", [damage(7)], { words: { how: "is", list: ["!hit"] } }),
    ]);
    store.away = true;
    runner.inbox.message(said("!ask", "m1"));
    expect(says).toEqual(["yes"]);
    store.away = false;
    runner.inbox.message(said("!hit", "m2"));
    await pause(20);
    expect(boss()["health"]).toBe(93);
    await runner.stop();
  });
});

describe("paid reactions inside a chat message", () => {
  test("strike after the message they stood in, are logged, and come once", async () => {
    const { runner, boss, store } = setUp([], [], 1_000);
    const line = {
      ...said("for the kiln", "m1"),
      paid: [
        { reaction: "sherd", count: 50, valueEach: 1 },
        { reaction: "golden sherd", count: 2, valueEach: 100 },
      ],
    };
    runner.inbox.message(line);
    runner.inbox.message(line);
    await pause(30);
    expect(boss()["health"]).toBe(750);
    await runner.stop();
    expect(store.log(runner.id).map((r) => [r.kind, r.source, r.id])).toEqual(
      expect.arrayContaining([
        ["message", "chat", "m1"],
        ["reaction", "chat", "m1#0"],
        ["reaction", "chat", "m1#1"],
      ]),
    );
  });
});

describe("what overlays are sent", () => {
  test("holds no viewer's id, no rule, no word that is hidden, no token, nothing of cues but what they show", async () => {
    const { runner } = setUp([rule("secret-rule", "follow", [{ do: "say", text: "secret-text" }])], [{ do: "say", text: "secret-cue" }]);
    await runner.inbox.platform([
      { id: "1", signal: { kind: "raid", viewer: { id: "secret-id", name: "Ada", roles: ["moderator"] }, viewers: 80 } },
    ]);
    const places = ["wall", "boss", "book", "cues"].map((id, order) => ({ gameId: gameId(id), place: { ...wholePlace }, order }));
    runner.reload({
      ...runner.row,
      overlays: runner.row.overlays.map((o) => ({ ...o, places })),
      triggers: [{ cueId: "door", tokenHash: "secret-hash" }],
      events: { secret: "secret-sealed", oldSecret: null, oldUntilMs: 0 },
    });
    const sent = JSON.stringify(runner.view.overlay("main", ""));
    expect(sent).toContain("Ada");
    expect(sent).not.toMatch(/secret|moderator|tokenHash/);
    await runner.stop();
  });
});

describe("names of viewers", () => {
  test("are made fit for the picture where they come in: by chat and by events", async () => {
    const { runner, of, boss } = setUp([]);
    await runner.inbox.platform([
      { id: "1", signal: { kind: "raid", viewer: { id: "x", name: `Zed\u202E${"z".repeat(90)} `, roles: [] }, viewers: 90 } },
    ]);
    expect([...String(boss()["name"])]).toHaveLength(40);
    expect(String(boss()["name"])).toMatch(/^Zedz+…$/);
    runner.inbox.message(said("wobblePot", "m1", "\u200b\u200b"));
    expect(of("talk").pop()?.name).toBe("someone");
    await runner.stop();
  });
});

describe("alerts", () => {
  test("play in their queue one after another, and beside it at once", async () => {
    const { runner, follow, of } = setUp([rule("r", "follow", [show("main", 60_000), show(""), show("main")])]);
    await follow();
    expect(of("alert").map((m) => m.alert.text)).toEqual(["hello Ada", "hello Ada"]);
    expect(runner.standing().queues).toMatchObject([{ id: "main", playing: "hello Ada", waiting: 1 }]);
    expect(runner.actOnQueue("skip", "main").ok).toBe(true);
    expect(of("alert-end")).toHaveLength(1);
    expect(of("alert")).toHaveLength(3);
    await runner.stop();
  });
  test("under hush nothing begins, what plays ends, games go on counting; on release what was held waits for a person", async () => {
    const { runner, follow, of, boss } = setUp([rule("r", "follow", [show("main", 60_000)])]);
    await follow();
    await runner.hush(true);
    expect(of("alert-end")).toHaveLength(1);
    await follow();
    expect([of("alert").length, boss()["health"]]).toEqual([1, 80]);
    await runner.hush(false);
    expect(of("alert")).toHaveLength(1);
    expect(runner.standing().held).toMatchObject([{ text: "hello Ada" }]);
    runner.held("play", "");
    expect(of("alert")).toHaveLength(2);
    await runner.stop();
  });
  test("nothing is shown of what could not be committed", async () => {
    const { runner, store, of, follow, says } = setUp([rule("r", "follow", [show(""), { do: "say", text: "x" }])]);
    const { commit } = store;
    Object.assign(store, {
      commit: async () => {
        throw Object.assign(new Error("away"), { code: "ECONNREFUSED" });
      },
    });
    expect(await follow()).toMatchObject({ ok: false, refusal: { code: "store/away" } });
    expect([of("alert"), of("effects"), says]).toEqual([[], [], []]);
    Object.assign(store, { commit });
    await runner.stop();
  });
});

describe("cues", () => {
  test("are fired by an operator once per press, and refused in words", async () => {
    const { runner, boss } = setUp([], [damage(5)]);
    expect((await runner.requests.cue("door", "kilnkeeper", "press-0001", "key")).ok).toBe(true);
    // The same press once more: its answer again, and nothing is done twice.
    expect(await runner.requests.cue("door", "kilnkeeper", "press-0001", "key")).toMatchObject({ ok: true });
    expect(await runner.requests.cue("none", "kilnkeeper", "press-0002", "key")).toMatchObject({
      ok: false,
      refusal: { code: "cue/unknown" },
    });
    expect(boss()["health"]).toBe(95);
    await runner.stop();
  });
});

describe("waits", () => {
  test("are kept through a restart and done when they are due", async () => {
    const first = setUp([
      rule("r", "follow", [
        { do: "wait", ms: 100 },
        { do: "say", text: "soon" },
      ]),
    ]);
    await first.follow();
    await first.runner.stop();
    const says: string[] = [];
    const row = (await first.store.channel(first.runner.id))!;
    const again = new Runner(
      { store: first.store, clock: { now: () => first.time.nowMs + 150 }, bus: inProcessBus(), say: (t) => says.push(t) > 0 },
      row,
      await first.store.lastSeq(row.id),
    );
    for (let i = 0; i < 50 && says.length === 0; i += 1) await pause(10);
    expect(says).toEqual(["soon"]);
    await again.stop();
  });
});

describe("the show, among the other parts", () => {
  const onShow = (settings: Record<string, unknown> = {}, rules: Rule[] = []) => {
    const made = setUp(rules);
    const row = testChannel({
      games: [
        game("wall", "emote-wall", emoteWall.defaults),
        game("boss", "boss-battle", { ...bossBattle.defaults, health: 100 }),
        game("book", "rules", { ...rulebookDefaults, rules }),
        game("cues", "cues", { schema: 3, cues: [newCue("door", "Door")] }),
        game("the-show", "show", { ...showDefaults, ...settings }),
      ],
    });
    made.store.put(row);
    made.runner.reload(row);
    const view = (id: string) => made.runner.standing().games.find((g) => g.id === id)!.view;
    let n = 0;
    const command = (given: Command, by = "maria", on = "show") => made.runner.requests.command(on, by, `command-${(n += 1)}`, given);
    return { ...made, view, command };
  };

  test("a rehearsal counts like a show, keeps nothing, says nothing in chat, and leaves every game as it was", async () => {
    const { command, follow, boss, view, store, runner, says } = onShow({}, [
      rule("hi", "follow", [{ do: "say", text: "hi {viewer}" }]),
      rule("off", "ended", [{ do: "switch", game: "wall", on: false }]),
    ]);
    await follow();
    expect(boss()["health"]).toBe(90);
    await command({ do: "show", what: "rehearse" });
    await follow();
    await follow();
    await command({ do: "switch", on: false }, "maria", "boss");
    expect(boss()).toMatchObject({ health: 70, on: false });
    const before = store.keptRows(runner.id).length;
    await command({ do: "show", what: "end" });
    expect(boss()).toMatchObject({ health: 90, on: true });
    // What its end set off is undone with it.
    expect(view("wall")["on"]).toBe(true);
    expect(view("the-show")["state"]).toBe("off");
    expect(store.keptRows(runner.id).slice(before)).toMatchObject([{ kind: "show", body: { rehearsal: true } }]);
    expect(store.keptRows(runner.id).filter((k) => k.kind === "hit")).toHaveLength(1);
    expect(says).toEqual(["hi Ada"]);
  });
  test("the platform's word begins the show once, and rules that answer it answer once", async () => {
    const { runner, view, says } = onShow({}, [rule("hello", "live", [{ do: "say", text: "we are live" }])]);
    const live = (id: string) => runner.inbox.platform([{ id, signal: { kind: "live", viewer: null } }]);
    await live("l1");
    await live("l2");
    expect(view("the-show")["state"]).toBe("on");
    expect(view("book")["showStartMs"]).toBe(1_000_000);
    expect(says).toEqual(["we are live"]);
  });
  test("going on air by hand sets off the same rules", async () => {
    const { command, says } = onShow({}, [rule("hello", "live", [{ do: "say", text: "we are live" }])]);
    await command({ do: "show", what: "on-air" });
    expect(says).toEqual(["we are live"]);
  });
  test("who asked hears of what was asked, not of what rules made of it elsewhere", async () => {
    const { command, of } = onShow({}, [rule("wake", "live", [{ do: "switch", game: "wall", on: true }])]);
    const done = await command({ do: "show", what: "rehearse" });
    expect(done).toMatchObject({ ok: true, value: [{ did: "show/rehearsing" }] });
    expect(done.ok && done.value).toHaveLength(1);
    // The wall was on already: that stands in the talk.
    expect(of("talk")[0]!.notes.map((n) => n.note.refusal?.code)).toContain("wall/already-on");
  });
  test("a command in chat acts in the moderator's name and answers with what came of it", async () => {
    const commands = [
      { id: "h", word: "!hit", does: "act" as const, act: "damage", game: "boss", roles: ["moderator" as const] },
      { id: "q", word: "!quiet", does: "hush" as const, act: "", game: "", roles: ["moderator" as const] },
    ];
    const { runner, boss, says, store, of } = onShow({ commands });
    runner.inbox.message({ ...said("!hit 30", "m1", "mo"), roles: ["moderator"] });
    await pause(30);
    expect(boss()["health"]).toBe(70);
    expect(says).toEqual(["−30 to Old Spall by mo, 70 of 100 left."]);
    expect(store.log(runner.id).find((r) => r.kind === "command")).toMatchObject({ source: "operator", body: { by: "mo" } });
    runner.inbox.message({ ...said("!quiet", "m2", "mo"), roles: ["moderator"] });
    await pause(10);
    expect(of("hush")).toEqual([{ kind: "hush", on: true }]);
  });
  test("a muted viewer's signals reach no game, and it is said beside them", async () => {
    const { command, follow, boss, runner, of } = onShow();
    await command({ do: "mute", id: "ada", name: "Ada", on: true });
    await follow();
    runner.inbox.message(said("wobblePot", "w1", "ada"));
    expect(boss()["health"]).toBe(100);
    expect(of("effects")).toEqual([]);
    expect(of("talk").map((t) => t.notes.map((x) => x.note.refusal?.code))).toEqual([[undefined], ["viewer/muted"], ["viewer/muted"]]);
    await command({ do: "mute", id: "ada", name: "Ada", on: false });
    await follow();
    expect(boss()["health"]).toBe(90);
  });
  test("two operators who press the same at once do it once; one who presses twice does it twice", async () => {
    const { command, boss, time } = onShow();
    const hit: Command = { do: "damage", amount: 10 };
    const [one, two] = await Promise.all([command(hit, "maria", "boss"), command(hit, "tom", "boss")]);
    expect(one.ok).toBe(true);
    expect(two).toEqual({ ok: false, refusal: { code: "command/twin", facts: { by: "maria" } } });
    expect(boss()["health"]).toBe(90);
    expect((await command(hit, "maria", "boss")).ok).toBe(true);
    time.nowMs += 1_001;
    expect((await command(hit, "tom", "boss")).ok).toBe(true);
    expect(boss()["health"]).toBe(70);
  });
  test("the last hit is taken back only while it is the last", async () => {
    const { command, follow, boss, of } = onShow();
    await follow();
    const seq = of("talk")[0]!.notes.find((x) => x.note.did === "boss/hit")!.note.facts!["seq"] as number;
    await follow();
    expect(await command({ do: "undo", seq }, "maria", "boss")).toMatchObject({
      ok: true,
      value: [{ refusal: { code: "boss/not-the-last" } }],
    });
    expect(boss()["health"]).toBe(80);
    const last = of("talk")
      .at(-2)!
      .notes.find((x) => x.note.did === "boss/hit")!.note.facts!["seq"] as number;
    await command({ do: "undo", seq: last }, "maria", "boss");
    expect(boss()["health"]).toBe(90);
  });
  test("a show, its rundown and a rehearsal go on through a restart", async () => {
    const { command, store, follow, runner } = onShow();
    await command({ do: "plan", revision: 1, items: [newPlanItem("a", "Raffle", 5)] });
    await command({ do: "show", what: "rehearse" });
    await follow();
    await runner.stop();
    const row = (await store.channel(runner.id))!;
    const again = new Runner({ store, clock: { now: () => 1_002_000 }, bus: inProcessBus() }, row, await store.lastSeq(runner.id));
    const view = (id: string) => again.standing().games.find((g) => g.id === id)!.view;
    expect(view("the-show")).toMatchObject({ state: "rehearsing", show: { sinceMs: 1_000_000 }, plan: { items: [{ title: "Raffle" }] } });
    expect(view("boss")["health"]).toBe(90);
    await again.requests.command("show", "maria", "hand-end-1", { do: "show", what: "end" });
    expect(view("boss")["health"]).toBe(100);
    await again.stop();
  });
  test("what happened is on the tape, the same as the log gives it back", async () => {
    const { runner, command, of, store } = onShow();
    await command({ do: "show", what: "on-air" });
    await runner.inbox.platform([{ id: "r", signal: { kind: "raid", viewer: ada, viewers: 60 } }]);
    const told = of("mark").map((m) => m.mark);
    expect(told.map((m) => m.label)).toEqual(["The show began", "Raid · Ada brought 60", "Old Spall fell"]);
    const rows = store.log(runner.id).map((r) => markOf({ ...r, body: JSON.parse(JSON.stringify(r.body)) as unknown }));
    expect(rows.filter((m) => m !== null)).toEqual(told);
  });
});
