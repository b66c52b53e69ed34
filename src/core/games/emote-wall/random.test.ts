import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { bareContext } from "../../module/module";
import { emoteIndex } from "../../chat/emotes";
import { replay } from "../../module/replay";
import type { Signal } from "../../signals/signal";
import { roles } from "../../signals/names";
import { emoteWall } from "./definition";
import { wallDefaults, wallEffectSchema, wallSettingsSchema, type WallSettings } from "./settings";
import { motions } from "./limits";
import { wallHints, wallRulesInWords, wallSentences } from "./words";
import { wallNoteInWords } from "./notes";

const ctx = {
  ...bareContext(emoteIndex([])),
  emotes: emoteIndex([
    { id: "w", word: "wobblePot" },
    { id: "k", word: "kilnGlow" },
  ]),
  salt: 3,
};

const someRoles = fc.subarray([...roles], { minLength: 1 });
const withinMs = fc.integer({ min: 1_000, max: 21_000 });
const settingsOf: fc.Arbitrary<WallSettings> = fc
  .record({
    roles: someRoles,
    sources: fc.record({ own: fc.boolean(), marked: fc.boolean(), emoji: fc.boolean() }),
    eachOncePerMessage: fc.boolean(),
    mostPerMessage: fc.integer({ min: 1, max: 12 }),
    singles: fc.boolean(),
    combo: fc.record({
      on: fc.boolean(),
      needed: fc.integer({ min: 2, max: 5 }),
      withinMs,
      counted: fc.constantFrom("copies", "viewers"),
      spawns: fc.constantFrom("one", "all"),
      roles: someRoles,
      emoji: fc.boolean(),
    }),
    perViewer: fc.record({ on: fc.boolean(), most: fc.integer({ min: 1, max: 6 }), withinMs }),
    motion: fc.constantFrom(...motions),
    chosen: fc.constantFrom<string[]>([], ["own:w"]),
    from: fc.constantFrom("chosen", "most-used"),
  })
  .map(({ chosen, from, ...rest }) =>
    wallSettingsSchema.parse({ ...wallDefaults, ...rest, flock: { ...wallDefaults.flock, chosen, from } }),
  );

const word = fc.constantFrom("wobblePot", "kilnGlow", "🔥", "hello", "👩‍🚀", "tide", "\u200B", "__proto__");
type Given<T = Signal> = T extends Signal ? Omit<T, "seq" | "atMs" | "id"> : never;
const command = fc
  .oneof(
    fc.boolean().map((on) => ({ do: "switch", on })),
    fc.constant({ do: "clear" }),
    fc
      .record({ count: fc.integer({ min: 1, max: 50 }), from: fc.constantFrom("chosen", "most-used") })
      .map(({ count, from }) => ({ do: "flock", count, overMs: 500, emotes: { from, chosen: ["own:k"] }, motion: "" })),
  )
  .map((command): Given => ({ kind: "command", gameId: "wall", by: "x", viewer: null, command }));
const message = fc
  .record({
    id: fc.constantFrom("v0", "v1", "v2", "v3", "v4"),
    roles: fc.subarray([...roles], { maxLength: 1 }),
    text: fc.array(word, { minLength: 1, maxLength: 9 }).map((w) => w.join(" ")),
    marked: fc.boolean(),
  })
  .map(({ id, roles, text, marked }): Given => ({
    kind: "message",
    viewer: { id, name: id, roles },
    text,
    marks: marked ? [{ start: 0, length: Math.min(4, text.length), id: "tide" }] : [],
  }));
const evening: fc.Arbitrary<Signal[]> = fc
  .array(
    fc.record({
      afterMs: fc.nat(3_000),
      given: fc.oneof({ weight: 11, arbitrary: message }, { weight: 1, arbitrary: command }),
    }),
    { minLength: 1, maxLength: 120, size: "max" },
  )
  .map((steps) => {
    let atMs = 0;
    return steps.map(({ afterMs, given }, i): Signal => ({ ...given, seq: i + 1, atMs: (atMs += afterMs), id: `s${i}` }));
  });

describe("whatever the settings and signals", () => {
  test("nothing breaks a rule; what does is told as the shortest evening that does", () => {
    fc.assert(
      fc.property(settingsOf, evening, (settings, signals) => {
        const outcomes = replay(emoteWall, settings, signals, ctx);
        expect(JSON.stringify(replay(emoteWall, settings, signals, ctx))).toBe(JSON.stringify(outcomes));
        const spawnsOf = new Map<string, number[]>();
        outcomes.forEach((outcome, i) => {
          const signal = signals[i]!;
          // What is stored and what is sent; what may be lost in a crash never leaves memory.
          const { transient: _, ...told } = outcome;
          if (i % 40 === 0) expect(JSON.parse(JSON.stringify(told))).toEqual(told);
          if (!outcome.effects.every((e) => wallEffectSchema.safeParse(e).success)) throw new Error(`a malformed effect`);
          // Every decision is said, in words, and never as a bare code.
          if (outcome.notes.length === 0 || !outcome.notes.every((n) => /^[^/]+$/.test(wallNoteInWords(n))))
            throw new Error(`a decision without words`);
          if (signal.kind !== "message") return;
          const spawned = outcome.effects.reduce((n, e) => n + (e.do === "spawn" ? e.count : 0), 0);
          if (!settings.combo.on) {
            if (spawned > settings.mostPerMessage) throw new Error(`more than the most per message`);
            spawnsOf.set(signal.viewer.id, [...(spawnsOf.get(signal.viewer.id) ?? []), ...Array<number>(spawned).fill(signal.atMs)]);
          }
          if (!settings.singles && !settings.combo.on && spawned > 0) throw new Error(`a single while singles are off`);
        });
        if (!settings.perViewer.on) return;
        for (const times of spawnsOf.values())
          for (const t of times)
            if (times.filter((u) => u > t - settings.perViewer.withinMs && u <= t).length > settings.perViewer.most)
              throw new Error(`over the limit at ${t}`);
      }),
      { numRuns: 150 },
    );
  });
  test("every setting can be told in sentences whose blanks name a real setting", () => {
    fc.assert(
      fc.property(settingsOf, (settings) => {
        for (const sentence of wallSentences(settings))
          for (const part of sentence.parts) {
            if (typeof part === "string") continue;
            expect(part.path.split(".").reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], settings)).toBeDefined();
            expect(part.text).not.toMatch(/undefined|NaN|\[object/);
          }
        expect(wallRulesInWords(settings).join(" ")).toMatch(/^Emotes written by .+\.$/);
        wallHints(settings, { ownEmotes: 0 });
      }),
    );
  });
});
