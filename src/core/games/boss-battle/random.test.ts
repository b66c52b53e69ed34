import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../../chat/emotes";
import { chanceFrom, pick } from "../../kernel/chance";
import { replay } from "../../module/replay";
import { bareContext } from "../../module/module";
import type { Signal, Viewer } from "../../signals/signal";
import { bossBattle } from "./definition";
import { type BossSettings, bossSettingsSchema } from "./settings";

const ctx = bareContext(emoteIndex([]));
const viewers: Viewer[] = ["ada", "bo", "cy"].map((id) => ({ id, name: id.toUpperCase(), roles: [] }));
const from = <T>(chance: () => number, list: readonly T[]): T => list[pick(chance, list.length)] as T;

function settingsFrom(chance: () => number): BossSettings {
  const rate = () => ({
    rate: { give: pick(chance, 60), per: 1 + pick(chance, 200) },
    most: pick(chance, 3) === 0 ? 1 + pick(chance, 500) : 0,
  });
  const base = bossBattle.defaults;
  return bossSettingsSchema.parse({
    ...base,
    health: 1 + pick(chance, 900),
    hits: { ...base.hits, tip: rate(), raid: rate(), gift: rate(), follow: { rate: { give: pick(chance, 50), per: 1 }, most: 0 } },
    champion: { own: from(chance, ["heal", "nothing", "hurt"]), healing: from(chance, ["full", "endless"]) },
    growth: {
      ...base.growth,
      how: from(chance, ["none", "step", "percent", "matched"]),
      step: pick(chance, 300),
      percent: pick(chance, 80),
      ceiling: pick(chance, 2) * 3_000,
    },
    carry: from(chance, ["nothing", "leftover", "whole", "strikes"]),
    next: from(chance, ["striker", "roster", "same"]),
    roster: [...base.roster, { id: "b", name: "B", figure: "bowl" }],
  });
}

function signalsFrom(chance: () => number, count: number): Signal[] {
  let atMs = 1_000;
  return Array.from({ length: count }, (_, i): Signal => {
    atMs += pick(chance, 20_000);
    const head = { seq: i + 1, atMs, id: `s${i}` };
    const viewer = from(chance, viewers);
    const giver = pick(chance, 5) === 0 ? null : viewer;
    switch (pick(chance, 9)) {
      case 0:
        return { ...head, kind: "follow", viewer };
      case 1:
        return { ...head, kind: "gift", viewer: giver, count: 1 + pick(chance, 20), recipients: [] };
      case 2:
        return { ...head, kind: "raid", viewer, viewers: pick(chance, 500) };
      case 3:
        return {
          ...head,
          kind: "command",
          gameId: "b",
          by: "op",
          viewer: null,
          command: from(chance, [
            { do: "undo" },
            { do: "heal", amount: pick(chance, 90) },
            { do: "damage", amount: pick(chance, 90) },
          ] as const),
        };
      case 4:
        return pick(chance, 12) === 0
          ? { ...head, kind: "command", gameId: "b", by: "op", viewer: null, command: { do: "start-over" } }
          : { ...head, kind: from(chance, ["live", "ended"]), viewer: null };
      default: {
        const amount = pick(chance, 3_000);
        return { ...head, kind: "tip", viewer: giver, amountMinor: amount, currency: "EUR", homeMinor: amount, text: "" };
      }
    }
  });
}

describe("a boss battle under any settings and any signals", () => {
  test.each(Array.from({ length: 30 }, (_, i) => i + 1))("seed %i: every hit, heal and reign adds up", (seed) => {
    const chance = chanceFrom(seed * 7919);
    const settings = settingsFrom(chance);
    const signals = signalsFrom(chance, 250);
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
    expect(replay(bossBattle, settings, signals, ctx)[249]).toEqual(outcomes[249]);
  });
});
