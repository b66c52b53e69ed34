import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { emoteIndex } from "../../chat/emotes";
import { replay } from "../../module/replay";
import { bareContext } from "../../module/module";
import type { Signal } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { bossBattle } from "./definition";
import { bossSettingsSchema } from "./settings";

const ctx = bareContext(emoteIndex([]));
const viewer = fc.constantFrom("ada", "bo", "cy").map((id): Viewer => ({ id, name: id.toUpperCase(), roles: [] }));
const giver = fc.option(viewer, { freq: 5 });
const upTo = (most: number) => fc.nat(most - 1);

const base = bossBattle.defaults;
const hitRate = fc.record({
  rate: fc.record({ give: upTo(60), per: fc.integer({ min: 1, max: 200 }) }),
  most: fc.oneof(fc.constant(0), fc.integer({ min: 1, max: 500 })),
});
const settingsOf = fc
  .record({
    health: fc.integer({ min: 1, max: 900 }),
    hits: fc.record({ tip: hitRate, raid: hitRate, gift: hitRate, follow: upTo(50) }),
    own: fc.constantFrom("heal", "nothing", "hurt"),
    healing: fc.constantFrom("full", "endless"),
    how: fc.constantFrom("none", "step", "percent", "matched"),
    step: upTo(300),
    percent: upTo(80),
    ceiling: fc.constantFrom(0, 3_000),
    carry: fc.constantFrom("nothing", "leftover", "whole", "strikes"),
    next: fc.constantFrom("striker", "roster", "same"),
  })
  .map(({ hits: { follow, ...hits }, own, healing, how, step, percent, ceiling, ...rest }) =>
    bossSettingsSchema.parse({
      ...base,
      ...rest,
      hits: { ...base.hits, ...hits, follow: { rate: { give: follow, per: 1 }, most: 0 } },
      champion: { own, healing },
      growth: { ...base.growth, how, step, percent, ceiling },
      roster: [...base.roster, { id: "b", name: "B", figure: "bowl" }],
    }),
  );

type Given<T = Signal> = T extends Signal ? Omit<T, "seq" | "atMs" | "id"> : never;
const tip = fc
  .record({ viewer: giver, amount: upTo(3_000) })
  .map(({ viewer, amount }): Given => ({ kind: "tip", viewer, amountMinor: amount, currency: "EUR", homeMinor: amount, text: "" }));
const command = fc
  .oneof(
    fc.constant({ do: "undo" }),
    upTo(90).map((amount) => ({ do: "heal", amount })),
    upTo(90).map((amount) => ({ do: "damage", amount })),
  )
  .map((command): Given => ({ kind: "command", gameId: "b", by: "op", viewer: null, command }));
const given: fc.Arbitrary<Given> = fc.oneof(
  { weight: 48, arbitrary: tip },
  { weight: 12, arbitrary: viewer.map((viewer): Given => ({ kind: "follow", viewer })) },
  {
    weight: 12,
    arbitrary: fc
      .record({ viewer: giver, count: fc.integer({ min: 1, max: 20 }) })
      .map(({ viewer, count }): Given => ({ kind: "gift", viewer, count, recipients: [] })),
  },
  {
    weight: 12,
    arbitrary: fc.record({ viewer, viewers: upTo(500) }).map(({ viewer, viewers }): Given => ({ kind: "raid", viewer, viewers })),
  },
  { weight: 12, arbitrary: command },
  { weight: 11, arbitrary: fc.constantFrom("live", "ended").map((kind): Given => ({ kind, viewer: null })) },
  {
    weight: 1,
    arbitrary: fc.constant<Given>({ kind: "command", gameId: "b", by: "op", viewer: null, command: { do: "start-over" } }),
  },
);
const evening = fc.array(fc.record({ afterMs: upTo(20_000), given }), { minLength: 1, maxLength: 250, size: "max" }).map((steps) => {
  let atMs = 1_000;
  return steps.map(({ afterMs, given }, i): Signal => ({ ...given, seq: i + 1, atMs: (atMs += afterMs), id: `s${i}` }));
});

describe("a boss battle under any settings and any signals", () => {
  test("every hit, heal and reign adds up; what fails is told as the shortest evening that fails", () => {
    fc.assert(fc.property(settingsOf, evening, addsUp), { numRuns: 60 });
  });
});

function addsUp(settings: ReturnType<typeof bossSettingsSchema.parse>, signals: readonly Signal[]): void {
  const outcomes = replay(bossBattle, settings, signals, ctx);
  let health = settings.health;
  let falls = 0;
  let reigns = 0;
  for (const { durable, kept = [], effects } of outcomes) {
    expect(Number.isSafeInteger(durable.health) && durable.health > 0).toBe(true);
    expect(durable.max).toBeGreaterThan(0);
    expect(durable.boss.name).not.toBe("");
    expect(durable.kept.every(([, r]) => r > 0)).toBe(true);
    for (const k of kept) {
      const body = k.body as { before?: number; after?: number; amount?: number; how?: string };
      if (k.kind === "reign") {
        reigns += 1;
        if (body.how === "start-over") falls = 0;
        else falls += 1;
        health = -1;
        continue;
      }
      // The first blow after a fall meets the next boss, whatever it was given.
      if (health >= 0) expect(body.before).toBe(health);
      health = body.after ?? health;
      if (k.kind === "hit") expect(body.after).toBe(Math.max(0, (body.before ?? 0) - (body.amount ?? 0)));
    }
    if (health < 0) health = durable.health;
    expect(durable.health).toBe(health);
    expect(durable.falls).toBe(falls);
    for (const e of effects) expect(e.health).toBeGreaterThan(0);
  }
  expect(reigns).toBeGreaterThanOrEqual(falls);
  // The same signals come to the same end.
  expect(replay(bossBattle, settings, signals, ctx).at(-1)).toEqual(outcomes.at(-1));
}
