import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../../chat/emotes";
import { deepFreeze } from "../../kernel/freeze";
import { bareContext } from "../../module/module";
import type { Command, Signal } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { mostFalls, nextHealth } from "./blow";
import { readCommand } from "../../module/command";
import { bossBattle } from "./definition";
import { type BossDurable, type BossSettings, bossSettingsSchema } from "./settings";

const ctx = bareContext(emoteIndex([]));
const ada: Viewer = { id: "ada", name: "Ada", roles: [] };
const bo: Viewer = { id: "bo", name: "Bo", roles: [] };
let seq = 0;
type Part<T> = T extends unknown ? Omit<T, "seq" | "atMs" | "id"> : never;
const at = (part: Part<Signal>, atMs = 60_000): Signal => ({ ...part, seq: (seq += 1), atMs, id: `s${seq}` }) as Signal;
const follow = (viewer = ada) => at({ kind: "follow", viewer });
const tip = (minor: number, viewer: Viewer | null = ada, atMs?: number) =>
  at({ kind: "tip", viewer, amountMinor: minor, currency: "EUR", homeMinor: minor, text: "" }, atMs);
const command = (h: Command, viewer: Viewer | null = null) => at({ kind: "command", gameId: "boss", by: "kilnkeeper", viewer, command: h });

type Deep<T> = { [K in keyof T]?: T[K] extends object ? Deep<T[K]> : T[K] };
const settings = (part: Deep<BossSettings> = {}): BossSettings => {
  const base = bossBattle.defaults;
  const hits = { ...base.hits, ...(part.hits as object | undefined) };
  return bossSettingsSchema.parse({
    ...base,
    health: 100,
    ...part,
    hits,
    champion: { ...base.champion, ...part.champion },
    growth: { ...base.growth, ...part.growth },
    looks: base.looks,
    roster: part.roster ?? [
      { id: "a", name: "Old Spall", figure: "jug" },
      { id: "b", name: "Auntie", figure: "teapot" },
    ],
  });
};
const run = (s: BossSettings, signals: readonly Signal[], from?: BossDurable) => {
  let durable = from ?? bossBattle.freshDurable(s);
  const outcomes = signals.map((signal) => {
    const outcome = bossBattle.step(deepFreeze({ settings: s, durable, transient: null }), deepFreeze(signal), ctx);
    durable = outcome.durable;
    return outcome;
  });
  return { durable, outcomes, last: outcomes[outcomes.length - 1]! };
};
const hit = (give: number, per = 1, most = 0) => ({ rate: { give, per }, most });

describe("what hits", () => {
  test.each<[string, Part<Signal>, number]>([
    ["a follow", { kind: "follow", viewer: ada }, 10],
    ["a membership, however long", { kind: "membership", viewer: ada, months: 30, text: "", fromGift: "" }, 50],
    ["gifts, for each", { kind: "gift", viewer: ada, count: 3, recipients: [] }, 60],
    ["a tip, by its amount", { kind: "tip", viewer: ada, amountMinor: 250, currency: "EUR", homeMinor: 250, text: "" }, 50],
    ["reactions, by their worth", { kind: "reaction", viewer: null, reaction: "x", count: 2, value: 20, text: "" }, 20],
    ["a raid, by its viewers", { kind: "raid", viewer: ada, viewers: 15 }, 30],
    ["hosting", { kind: "host", viewer: ada, viewers: 15 }, 15],
    ["a message, if so set", { kind: "message", viewer: ada, text: "hi", marks: [] }, 1],
  ])("%s", (_, part, damage) => {
    const s = settings({ hits: { membership: { ...hit(50), by: "each" }, gift: hit(20), message: hit(1) } as never });
    const { durable, last } = run(s, [at(part)]);
    expect(durable.health).toBe(100 - damage);
    expect(last.notes[0]).toMatchObject({ did: "boss/hit", count: damage });
    expect(last.kept).toMatchObject([{ kind: "hit", body: { amount: damage, before: 100, after: 100 - damage } }]);
  });
  test("a membership for every month of it, if so set", () => {
    const s = settings({ hits: { membership: { ...hit(2), by: "months" } } as never });
    expect(run(s, [at({ kind: "membership", viewer: ada, months: 30, text: "", fromGift: "" })]).durable.health).toBe(40);
  });
  test("four small tips count as much as one, until the show ends", () => {
    const s = settings({ hits: { tip: hit(5, 100) } as never });
    const small = [tip(25), tip(25), tip(25)];
    const { durable, outcomes } = run(s, small);
    expect(outcomes.map((o) => o.notes[0]?.did ?? o.notes[0]?.refusal?.code)).toEqual(["boss/hit", "boss/hit", "boss/hit"]);
    expect(durable.health).toBe(97);
    expect(run(s, [...small, tip(25)]).durable.health).toBe(95);
    expect(run(s, [...small, at({ kind: "ended", viewer: null }), tip(25)]).durable.health).toBe(96);
    // Another viewer's remainder is their own.
    expect(run(s, [...small, tip(25, bo)]).durable.health).toBe(96);
  });
  test("too little for damage yet is told, and kept", () => {
    const s = settings({ hits: { tip: hit(1, 100) } as never });
    const { durable, outcomes } = run(s, [tip(60), tip(60)]);
    expect(outcomes[0]?.notes[0]?.refusal?.code).toBe("boss/not-yet");
    expect(durable.health).toBe(99);
  });
  test("at most so much from one signal", () => {
    expect(run(settings({ hits: { tip: hit(20, 100, 35) } as never }), [tip(10_000)]).durable.health).toBe(65);
  });
  test("nothing and less than nothing never hit", () => {
    const s = settings();
    for (const n of [0, -500, -Number.MAX_SAFE_INTEGER]) expect(run(s, [tip(n)]).durable.health).toBe(100);
    expect(run(s, [command({ do: "damage", amount: 0 })]).last.notes[0]?.refusal?.code).toBe("boss/no-damage");
  });
  test("the largest amount there is fells it once, and nothing overflows", () => {
    const { durable } = run(settings({ carry: "whole" }), [tip(Number.MAX_SAFE_INTEGER)]);
    expect(durable.falls).toBe(1);
    expect(Number.isSafeInteger(durable.health)).toBe(true);
  });
  test("a membership that names its gift is not counted again where the gift was, and is where it was not", () => {
    const given = at({ kind: "membership", viewer: bo, months: 1, text: "", fromGift: "g1" });
    expect(run(settings(), [given]).last.notes[0]?.refusal?.code).toBe("boss/gift-counted");
    expect(run(settings({ hits: { gift: hit(0), membership: { ...hit(7), by: "each" } } as never }), [given]).durable.health).toBe(93);
  });
  test("a currency without a rate does no damage, and that is told", () => {
    const sek = at({ kind: "tip", viewer: ada, amountMinor: 900, currency: "SEK", homeMinor: null, text: "" });
    expect(run(settings(), [sek]).last.notes[0]?.refusal).toEqual({ code: "boss/currency", facts: { currency: "SEK" } });
  });
  test("switched off, nothing hits; chat is not even told", () => {
    const off = run(settings(), [command({ do: "switch", on: false })]).durable;
    expect(run(settings(), [follow()], off).last.notes[0]?.refusal?.code).toBe("boss/off");
    expect(run(settings(), [at({ kind: "message", viewer: ada, text: "x", marks: [] })], off).last.notes).toEqual([]);
  });
});

describe("a fall", () => {
  const felled = (part: Deep<BossSettings>, damage = 130, viewer: Viewer | null = ada) =>
    run(settings(part), [viewer === null ? command({ do: "damage", amount: damage }) : at({ kind: "raid", viewer, viewers: damage / 2 })]);
  test("whoever struck last reigns; the reign that ended is kept", () => {
    const { durable, last } = felled({});
    expect(durable).toMatchObject({ boss: { name: "Ada", viewerId: "ada" }, health: 100, max: 100, falls: 1, lastHit: null });
    expect(last.kept?.filter((k) => k.kind === "reign")).toMatchObject([
      { viewer: null, toMs: 60_000, body: { name: "Old Spall", by: "Ada", health: 100, nth: 1 } },
    ]);
    expect(last.orders).toMatchObject([{ do: "emit", what: "boss/fell", text: "Old Spall", amount: 130 }]);
    expect(last.effects).toMatchObject([{ do: "fall", fallen: { name: "Old Spall" }, next: { name: "Ada" } }]);
  });
  test("the next of the roster, round and round; the same", () => {
    expect(felled({ next: "roster" }).durable.boss.name).toBe("Auntie");
    const twice = run(settings({ next: "roster" }), [command({ do: "damage", amount: 100 }), command({ do: "damage", amount: 100 })]);
    expect(twice.durable.boss.name).toBe("Old Spall");
    expect(felled({ next: "same" }).durable.boss).toEqual({ name: "Old Spall", viewerId: null, figure: "jug" });
  });
  test("what felled it has no viewer: the roster's next, never nobody", () => {
    expect(felled({}, 130, null).durable.boss).toEqual({ name: "Auntie", viewerId: null, figure: "teapot" });
  });
  test("a champion always wears the same vessel", () => {
    expect(felled({}).durable.boss.figure).toBe(felled({}, 200).durable.boss.figure);
  });
  test.each<[string, Deep<BossSettings>, number]>([
    ["none", { growth: { how: "none" } }, 100],
    ["a step", { growth: { how: "step", step: 40 } }, 140],
    ["a step up to a ceiling", { growth: { how: "step", step: 40, ceiling: 120 } }, 120],
    ["a percentage", { growth: { how: "percent", percent: 15 } }, 115],
    ["a percentage of nothing is at least 1", { growth: { how: "percent", percent: 0 } }, 101],
  ])("growth: %s", (_, part, health) => expect(felled(part).durable.max).toBe(health));
  test.each<[BossSettings["carry"], number, string, number]>([
    ["nothing", 100, "Ada", 1],
    ["leftover", 130, "Ada", 1],
    ["whole", 230, "Ada", 1],
    ["strikes", 70, "Ada", 1],
  ])("carried over: %s", (carry, health, name, falls) =>
    expect(felled({ carry }).durable).toMatchObject({ health, boss: { name }, falls }),
  );
  test("what is left over strikes as a plain hit, also the champion's own: it never heals", () => {
    const { durable, last } = felled({ carry: "strikes" }, 260);
    expect(durable).toMatchObject({ falls: 2, health: 40, boss: { viewerId: "ada" } });
    expect(last.notes.map((n) => n.did)).toEqual(["boss/hit", "boss/fell", "boss/hit", "boss/fell", "boss/hit"]);
  });
  test("one signal defeats at most twenty; the rest is dropped, and said", () => {
    const { durable, last } = felled({ carry: "strikes" }, 100_000);
    expect(durable.falls).toBe(mostFalls);
    expect(last.notes.find((n) => n.did === "boss/leftover-dropped")?.count).toBe(100_000 - mostFalls * 100);
  });
  test("matched to the room: what at the pace of the last minutes would last so long, within limits", () => {
    const s = settings({ health: 500, growth: { how: "matched", lookBackMin: 5, lastMin: 10, least: 50, most: 5_000 } });
    const base = bossBattle.freshDurable(s);
    const at10 = 10 * 60_000;
    const with_ = (minutes: [number, number][], showStartMs: number | null = 0): number =>
      nextHealth(s, { ...base, minutes, showStartMs }, at10);
    expect(
      with_([
        [6, 100],
        [8, 150],
        [10, 250],
      ]),
    ).toBe(1_000);
    // Before the last five minutes does not count.
    expect(
      with_([
        [5, 9_000],
        [8, 250],
      ]),
    ).toBe(500);
    expect(with_([])).toBe(500);
    expect(with_([[5, 400]])).toBe(500);
    expect(with_([[9, 1]])).toBe(50);
    expect(with_([[9, 1_000_000]])).toBe(5_000);
    // A show of two minutes has had two minutes.
    expect(
      with_(
        [
          [9, 100],
          [10, 100],
        ],
        9 * 60_000,
      ),
    ).toBe(1_000);
  });
});

describe("the champion's own", () => {
  const reigning = (part: Deep<BossSettings> = {}): { s: BossSettings; durable: BossDurable } => {
    const s = settings(part);
    return { s, durable: run(s, [at({ kind: "raid", viewer: ada, viewers: 50 }), follow(bo)]).durable };
  };
  test("heals, up to full", () => {
    const { s, durable } = reigning();
    expect(durable.health).toBe(90);
    const healed = run(s, [follow(ada)], durable);
    expect(healed.durable.health).toBe(100);
    expect(healed.last.notes[0]).toMatchObject({ did: "boss/healed", count: 10 });
    expect(run(s, [follow(ada)], healed.durable).last.notes[0]?.refusal?.code).toBe("boss/full");
  });
  test("heals without end", () => {
    const { s, durable } = reigning({ champion: { healing: "endless" } });
    expect(run(s, [tip(1_000), tip(1_000)], durable).durable).toMatchObject({ health: 490, max: 100 });
  });
  test("does nothing", () => {
    const { s, durable } = reigning({ champion: { own: "nothing" } });
    expect(run(s, [follow(ada)], durable)).toMatchObject({
      durable: { health: 90 },
      last: { notes: [{ refusal: { code: "boss/champion-idle" } }] },
    });
  });
  test("hurts it like anyone's, and can fell itself", () => {
    const { s, durable } = reigning({ champion: { own: "hurt" } });
    const after = run(s, [at({ kind: "raid", viewer: ada, viewers: 60 })], durable).durable;
    expect(after).toMatchObject({ falls: 2, boss: { viewerId: "ada" } });
  });
  test("a rule's blow for the champion is the champion's own; an operator's is not", () => {
    const { s, durable } = reigning();
    expect(run(s, [command({ do: "damage", amount: 5 }, ada)], durable).durable.health).toBe(95);
    expect(run(s, [command({ do: "damage", amount: 5 })], durable).durable.health).toBe(85);
  });
});

describe("correcting", () => {
  test("the last hit can be undone while no fall came of it, once", () => {
    const s = settings();
    const struck = run(s, [follow(), tip(100)]);
    expect(struck.durable.health).toBe(70);
    const undone = run(s, [command({ do: "undo" })], struck.durable);
    expect(undone.durable).toMatchObject({ health: 90, lastHit: null });
    expect(undone.last.kept).toMatchObject([{ kind: "undo", body: { amount: 20, of: "Ada" } }]);
    expect(run(s, [command({ do: "undo" })], undone.durable).last.notes[0]?.refusal?.code).toBe("boss/nothing-to-undo");
    expect(run(s, [at({ kind: "raid", viewer: ada, viewers: 500 }), command({ do: "undo" })]).last.notes[0]?.refusal?.code).toBe(
      "boss/nothing-to-undo",
    );
  });
  test("an undone hit never lifts health above what it may be, however it was healed since", () => {
    const s = settings();
    const healed = run(s, [tip(100), command({ do: "heal", amount: 500 })]);
    expect(healed.durable.health).toBe(100);
    expect(run(s, [command({ do: "undo" })], healed.durable).durable.health).toBe(100);
    // Where healing has no end, it is given back whole.
    const endless = settings({ champion: { healing: "endless" } });
    const over: BossDurable = { ...bossBattle.freshDurable(endless), health: 140 };
    expect(run(endless, [tip(100), command({ do: "undo" })], over).durable.health).toBe(140);
  });
  test("an undone hit does not count for the next one's health", () => {
    const s = settings({ growth: { how: "matched", least: 1, lookBackMin: 5, lastMin: 5 } });
    const { durable } = run(s, [tip(100), command({ do: "undo" })]);
    expect(durable.minutes.reduce((sum, [, d]) => sum + d, 0)).toBe(0);
  });
  test("starting over resets health, growth and roster place, and keeps the reign that it ended", () => {
    const s = settings({ growth: { how: "step", step: 50 }, next: "roster" });
    const { durable, last } = run(s, [
      command({ do: "damage", amount: 100 }),
      command({ do: "damage", amount: 30 }),
      command({ do: "start-over" }),
    ]);
    expect(durable).toMatchObject({ health: 100, max: 100, falls: 0, rosterAt: 0, boss: { name: "Old Spall" } });
    expect(last.kept).toMatchObject([{ kind: "reign", body: { name: "Auntie", how: "start-over" } }]);
  });
  test("the rules are told in chat from the sentences", () => {
    const { last } = run(settings(), [command({ do: "tell-rules" })]);
    expect(last.orders).toEqual([
      { do: "say", text: expect.stringMatching(/A follow does 10 damage\. .*A tip does 20 damage for every 1\.00 EUR/) },
    ]);
    expect(JSON.stringify(last.orders)).not.toMatch(/A chat message does 0/);
  });
  test("what is no boss's business is refused", () => {
    const no = (command: Command) => readCommand(bossBattle, command);
    expect(no({ do: "flock", count: 1 })).toMatchObject({ ok: false, refusal: { code: "game/cannot" } });
    expect(no({ do: "__proto__" })).toMatchObject({ ok: false, refusal: { code: "game/cannot" } });
    for (const amount of [-1, 1.5, NaN, "9", 1e30])
      expect(no({ do: "damage", amount })).toMatchObject({ refusal: { code: "command/input" } });
    expect(no({ do: "damage", amount: 9, extra: "x" })).toEqual({ ok: true, value: { do: "damage", amount: 9 } });
  });
});

describe("who may see what", () => {
  test("no viewer's id is in what overlays and viewers see, nor what rounding left over", () => {
    const s = settings();
    const { durable } = run(s, [
      tip(33),
      at({ kind: "raid", viewer: { ...ada, id: "secret-id" }, viewers: 60 }),
      tip(33, { ...bo, id: "other-secret" }),
    ]);
    expect(durable.boss.viewerId).toBe("secret-id");
    for (const audience of ["overlay", "viewer"] as const) {
      const text = JSON.stringify(bossBattle.view(s, durable, audience));
      expect(text).toContain("Ada");
      expect(text).not.toMatch(/secret/);
      expect(text).not.toMatch(/kept|minutes/);
    }
  });
  test("its state survives a round trip through JSON", () => {
    const { durable } = run(settings(), [tip(33), follow(), at({ kind: "live", viewer: null })]);
    expect(bossBattle.durable.parse(JSON.parse(JSON.stringify(durable)))).toEqual(durable);
  });
});
