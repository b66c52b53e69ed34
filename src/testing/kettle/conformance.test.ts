import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { allGames, gameOf, register } from "../../core/games/registry";
import { allTold, standsInWords } from "../../core/games/words";
import { wordsForViewers } from "../../core/module/game";
import { noteInShort, noteInWords } from "../../core/notes";
import { newRule, rulebookDefaults, type Rule } from "../../core/rules/settings";
import { effectInWords, orderInWords, whenInWords } from "../../core/rules/words";
import { amountInWords } from "../../core/rules/notes";
import { ruleHints } from "../../core/rules/hints";
import { markOf } from "../../core/show/timeline";
import { showDefaults } from "../../core/show/settings";
import { wordDoes } from "../../core/show/words";
import { gameId } from "../../core/kernel/ids";
import { inProcessBus } from "../../server/adapters/bus/in-process";
import { memoryEngineStore } from "../../server/adapters/memory/engine-store";
import { Runner } from "../../server/engine/runner";
import { pause, said, testChannel } from "../../server/testing/channel";
import { asksFor, buttonsOf, commandOf } from "../../core/games/buttons";
import { placeOf } from "../../server/web/games";
import { effectChoices, type Available } from "../../app/(operator)/prepare/_effects/available";
import { takeBack } from "../../app/(operator)/run/talk-rows";
import { chipsOf } from "../../core/chips";
import { kettle } from "./definition";

// The one line.
let takeOut: () => void;
beforeAll(() => {
  takeOut = register(kettle);
});
afterAll(() => takeOut());

const names = { game: () => "Tin kettle", kind: () => "kettle", prop: () => null, home: "EUR" };
const available: Available = {
  games: [{ id: "k", kind: "kettle", name: "Tin kettle", lists: {} }],
  props: [],
  emotes: [],
  pictures: [],
  queues: [],
  cues: [],
  home: "EUR",
};
const rule = (part: Partial<Rule>): Rule => ({ ...newRule("r", "happened"), what: "kettle/whistled", name: "R", ...part });

describe("a game that was added by one line is known", () => {
  test("where games are added, and where rules, cues and rewards are written", () => {
    expect(allGames().map((g) => g.offer.name)).toContain("a kettle");
    const choices = effectChoices(available, "tip");
    const pour = choices.find((c) => c.words === "kettle: pour");
    expect(choices.map((c) => c.words)).toContain("kettle: empty");
    expect(pour?.make()).toEqual({ do: "act", game: "k", act: "pour", input: { cups: 2 }, per: 1 });
    expect(effectInWords({ do: "act", game: "k", act: "pour", input: { cups: 3 }, per: 100 }, { when: "tip" }, names)).toBe(
      "pour 3 for every 1.00 EUR into Tin kettle",
    );
  });
  test("by what it tells: to be answered, counted in its own unit, tried, and warned of when it goes round", () => {
    expect(allTold().map((t) => t.told.words)).toContain("a kettle whistles");
    expect(whenInWords(rule({}))).toBe("a kettle whistles");
    expect(amountInWords({ when: "happened", what: "kettle/whistled" }, 1, "EUR")).toBe("1 cup");
    const hints = (games: { id: string; kind: string }[], effects: Rule["tiers"][number]["effects"] = []): string =>
      ruleHints({ ...rulebookDefaults, rules: [rule({ tiers: [{ at: "least", amount: 0, effects }] })] }, { games, props: [] })
        .map((h) => h.text)
        .join(" ");
    expect(hints([])).toContain("It can never answer yet: there is no kettle.");
    const pour = [{ do: "act" as const, game: "k", act: "pour", input: { cups: 1 }, per: 1 }];
    expect(hints([{ id: "k", kind: "kettle" }], pour)).toContain("doing the same again");
    expect(hints([{ id: "k", kind: "kettle" }], [{ ...pour[0]!, act: "whistle" }])).toContain("its game can’t do");
  });
  test("in what would happen if", () =>
    expect(orderInWords({ do: "command", gameId: "k", viewer: null, command: { do: "pour", cups: 4 } }, names)).toBe(
      "pour 4 into Tin kettle",
    ));
  test("by the booth's keys and buttons, and the phone's", () => {
    const [pour, empty] = buttonsOf("kettle");
    expect([pour?.[1].key, empty?.[1].key]).toEqual(["p", "e"]);
    expect(pour === undefined ? null : asksFor(pour[1])?.[0]).toBe("cups");
    expect(empty === undefined ? null : commandOf(empty)).toEqual({ do: "empty" });
    expect(pour?.[1].quick).toEqual([{ label: "+1 cup", amount: 1 }]);
  });
  test("by moderators' words", () =>
    expect(wordDoes({ id: "w", word: "!pour", does: "act", game: "k", act: "pour", roles: ["moderator"] }, names.game, names.kind)).toBe(
      "Tin kettle: Pour, by the number behind it",
    ));
  test("in the talk, with what can be taken back; what is true of every line stays unsaid", () => {
    const item = (note: object) => ({
      n: 1,
      seq: 1,
      atMs: 0,
      kind: "message",
      name: "Ada",
      viewer: null,
      text: "tea",
      notes: [{ game: "k", note: note as never }],
    });
    const [chip] = chipsOf(item({ did: "kettle/filled", count: 1, subject: "Ada", facts: { seq: 1 } }), () => "kettle");
    expect(chip).toMatchObject({ short: "+1", words: "Ada poured 1", tone: "good" });
    expect(takeBack(chip!)).toMatchObject([{ command: { do: "empty" } }]);
    expect(chipsOf(item({ did: "kettle/whistled", count: 1, subject: "Ada" }), () => "kettle")[0]?.tone).toBe("spent");
    expect(chipsOf(item({ refusal: { code: "kettle/off", facts: {} }, count: 1 }), () => "kettle")).toEqual([]);
  });
  test("on the tape: what it tells, and what is done to it", () => {
    const body = { gameId: "k", viewer: { id: "ada", name: "Ada" }, what: "kettle/whistled", amount: 5, text: "tea" };
    expect(markOf({ seq: 1, atMs: 0, kind: "happened", source: "game", body })).toMatchObject({ label: "Ada made it whistle", weight: 3 });
    const command = {
      gameId: "k",
      by: "maria",
      command: { do: "pour", cups: 3 },
      notes: [{ game: "k", note: { did: "kettle/filled", count: 3 } }],
    };
    expect(markOf({ seq: 2, atMs: 0, kind: "command", source: "operator", body: command }, () => "kettle")?.label).toBe("maria poured 3");
  });
  test("on a stage, in a place of its own; on the viewer page, in words; in chat", () => {
    expect(placeOf("kettle")).toMatchObject({ x: 0.02, width: 0.2 });
    expect(standsInWords("kettle", { on: true, cups: 2, of: 5 })).toBe("2 of 5 cups");
    expect(wordsForViewers(gameOf("kettle")!, kettle.defaults, { home: "EUR", ownEmotes: 0, points: "points" })).toEqual([
      "Who writes tea pours a cup; at 5 it whistles.",
    ]);
    expect(noteInWords("kettle", { did: "kettle/emptied", count: 2 })).toBe("2 poured away");
    expect(noteInShort("kettle", { refusal: { code: "kettle/off", facts: {} }, count: 1 })).toBe("off");
  });
  test("by the engine: it is stepped, told to do things by name, answered by rules, logged, and refused in words", async () => {
    const store = memoryEngineStore();
    const game = (id: string, kind: string, settings: unknown) => ({ id: gameId(id), kind, name: id, version: 1, settings, durable: null });
    const answer = rule({ tiers: [{ at: "least", amount: 0, effects: [{ do: "say", text: "{text} is ready, {viewer}" }] }] });
    const commands = [{ id: "w", word: "!pour", does: "act" as const, game: "k", act: "pour", roles: ["moderator" as const] }];
    const row = testChannel({
      games: [
        game("k", "kettle", { ...kettle.defaults, cups: 3 }),
        game("rules", "rules", { ...rulebookDefaults, rules: [answer] }),
        game("show", "show", { ...showDefaults, commands }),
      ],
    });
    store.put(row);
    const says: string[] = [];
    const bus = inProcessBus();
    const runner = new Runner({ store, clock: { now: () => 1_000 }, bus, say: (text) => says.push(text) > 0 }, row, 0);
    const cups = () => runner.view.game("k")?.["cups"];
    runner.inbox.message(said("TEA", "m1", "Ada"));
    await pause(10);
    expect(cups()).toBe(1);
    expect(await runner.requests.command("k", "maria", "command-1", { do: "pour", cups: 1 })).toMatchObject({
      ok: true,
      value: [{ did: "kettle/filled" }],
    });
    for (const command of [{ do: "pour", cups: -1 }, { do: "damage", amount: 3 }, { do: "__proto__" }])
      expect(await runner.requests.command("k", "maria", `bad-${JSON.stringify(command)}`, command)).toMatchObject({
        value: [{ refusal: { code: expect.stringMatching(/^(command\/input|game\/cannot)$/) } }],
      });
    expect(cups()).toBe(2);
    runner.inbox.message({ ...said("!pour 1", "m2", "Mo"), roles: ["moderator"] });
    await pause(30);
    expect(cups()).toBe(0);
    expect(says).toEqual(["Someone made it whistle.", "tea is ready, someone"]);
    expect(store.log(runner.id).map((r) => r.kind)).toContain("happened");
    await runner.stop();
  });
});
