import { describe, expect, test } from "@jest/globals";
import { bareContext } from "../../module/module";
import { emoteIndex } from "../../chat/emotes";
import { chanceFrom, pick } from "../../kernel/chance";
import { replay } from "../../module/replay";
import { roles, type Signal } from "../../signals/signal";
import { emoteWall } from "./definition";
import { motions, wallDefaults, wallEffectSchema, wallSettingsSchema, type WallSettings } from "./settings";
import { wallHints, wallNoteInWords, wallRulesInWords, wallSentences } from "./words";

const ctx = {
  ...bareContext(emoteIndex([])),
  emotes: emoteIndex([
    { id: "w", word: "wobblePot" },
    { id: "k", word: "kilnGlow" },
  ]),
  salt: 3,
};

function settingsFrom(seed: number): WallSettings {
  const chance = chanceFrom(seed);
  const flip = (): boolean => chance() < 0.5;
  const some = () => {
    const kept = roles.filter(flip);
    return kept.length > 0 ? kept : ["viewer" as const];
  };
  return wallSettingsSchema.parse({
    ...wallDefaults,
    roles: some(),
    sources: { own: flip(), marked: flip(), emoji: flip() },
    eachOncePerMessage: flip(),
    mostPerMessage: 1 + pick(chance, 12),
    singles: flip(),
    combo: {
      on: flip(),
      needed: 2 + pick(chance, 4),
      withinMs: 1_000 + pick(chance, 20_000),
      counted: flip() ? "copies" : "viewers",
      spawns: flip() ? "one" : "all",
      roles: some(),
      emoji: flip(),
    },
    perViewer: { on: flip(), most: 1 + pick(chance, 6), withinMs: 1_000 + pick(chance, 20_000) },
    motion: motions[pick(chance, motions.length)],
    flock: { ...wallDefaults.flock, chosen: flip() ? ["own:w"] : [], from: flip() ? "chosen" : "most-used" },
  });
}

function signalsFrom(seed: number): Signal[] {
  const chance = chanceFrom(seed ^ 0xabcdef);
  const words = ["wobblePot", "kilnGlow", "🔥", "hello", "👩‍🚀", "tide", "\u200B", "__proto__"];
  let atMs = 0;
  return Array.from({ length: 120 }, (_, i): Signal => {
    atMs += pick(chance, 3_000);
    const head = { seq: i + 1, atMs, id: `s${i}` };
    if (chance() < 0.08) {
      const command = [
        { do: "switch" as const, on: chance() < 0.6 },
        { do: "clear" as const },
        {
          do: "flock" as const,
          count: 1 + pick(chance, 50),
          overMs: 500,
          emotes: { from: chance() < 0.5 ? ("chosen" as const) : ("most-used" as const), chosen: ["own:k"] },
          motion: "",
        },
      ][pick(chance, 3)]!;
      return { ...head, kind: "command", gameId: "wall", by: "x", viewer: null, command };
    }
    const viewer = `v${pick(chance, 5)}`;
    const text = Array.from({ length: 1 + pick(chance, 9) }, () => words[pick(chance, words.length)]!).join(" ");
    return {
      ...head,
      kind: "message",
      viewer: { id: viewer, name: viewer, roles: chance() < 0.3 ? [roles[pick(chance, roles.length)]!] : [] },
      text,
      marks: chance() < 0.2 ? [{ start: 0, length: Math.min(4, text.length), id: "tide" }] : [],
    };
  });
}

describe("whatever the settings and signals", () => {
  const seeds = Array.from({ length: 150 }, (_, i) => i + 1);
  test("nothing breaks a rule", () => {
    for (const seed of seeds) {
      const settings = settingsFrom(seed);
      const signals = signalsFrom(seed);
      const outcomes = replay(emoteWall, settings, signals, ctx);
      expect(JSON.stringify(replay(emoteWall, settings, signals, ctx))).toBe(JSON.stringify(outcomes));
      const spawnsOf = new Map<string, number[]>();
      outcomes.forEach((outcome, i) => {
        const signal = signals[i]!;
        if (i % 40 === 0) expect(JSON.parse(JSON.stringify(outcome))).toEqual(outcome);
        if (!outcome.effects.every((e) => wallEffectSchema.safeParse(e).success)) throw new Error(`seed ${seed}: a malformed effect`);
        // Every decision is said, in words, and never as a bare code.
        if (outcome.notes.length === 0 || !outcome.notes.every((n) => /^[^/]+$/.test(wallNoteInWords(n))))
          throw new Error(`seed ${seed}: a decision without words`);
        if (signal.kind !== "message") return;
        const spawned = outcome.effects.reduce((n, e) => n + (e.do === "spawn" ? e.count : 0), 0);
        if (!settings.combo.on) {
          if (spawned > settings.mostPerMessage) throw new Error(`seed ${seed}: more than the most per message`);
          spawnsOf.set(signal.viewer.id, [...(spawnsOf.get(signal.viewer.id) ?? []), ...Array<number>(spawned).fill(signal.atMs)]);
        }
        if (!settings.singles && !settings.combo.on && spawned > 0) throw new Error(`seed ${seed}: a single while singles are off`);
      });
      if (!settings.perViewer.on) continue;
      for (const times of spawnsOf.values())
        for (const t of times)
          if (times.filter((u) => u > t - settings.perViewer.withinMs && u <= t).length > settings.perViewer.most)
            throw new Error(`seed ${seed}: over the limit at ${t}`);
    }
  });
  test("every setting can be told in sentences whose blanks name a real setting", () => {
    for (const seed of seeds) {
      const settings = settingsFrom(seed);
      for (const sentence of wallSentences(settings))
        for (const part of sentence.parts) {
          if (typeof part === "string") continue;
          expect(part.path.split(".").reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], settings)).toBeDefined();
          expect(part.text).not.toMatch(/undefined|NaN|\[object/);
        }
      expect(wallRulesInWords(settings).join(" ")).toMatch(/^Emotes written by .+\.$/);
      wallHints(settings, { ownEmotes: 0 });
    }
  });
});
