import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { kettle } from "../../testing/kettle/definition";
import { emoteIndex } from "../chat/emotes";
import { chanceFrom, pick } from "../kernel/chance";
import { deepFreeze } from "../kernel/freeze";
import { readStored, settingsVersion, versionOf } from "../kernel/stored";
import { readCommand } from "../module/command";
import { formParts } from "../module/fields";
import { entriesOf, startOf } from "../module/field-of";
import { type AnyGame, wordsForViewers } from "../module/game";
import { bareContext } from "../module/module";
import { emptyLedgerView } from "../rewards/ledger-view";
import { noteInShort, noteInWords } from "../notes";
import type { Signal } from "../signals/signal";
import { plain, valueAt, withValueAt } from "../words/sentence";
import { allGames, register } from "./registry";

/** What every game owes to the house, asked of each that is registered, and of the one the tests keep. */
const takeOut: (() => void)[] = [];
beforeAll(() => {
  takeOut.push(register(kettle));
});
afterAll(() => takeOut.forEach((out) => out()));

const facts = { home: "EUR", ownEmotes: 1, points: "points" };
const sprites = [{ key: "own:w", word: "wobblePot", url: "", frames: 1, columns: 1, frameWidth: 1, frameHeight: 1, frameMs: 0 }];
const ctx = bareContext(emoteIndex([{ id: "w", word: "wobblePot" }]), { ledgerView: { ...emptyLedgerView, balance: () => 10_000 } });

/** A lively crowd by the game's own samples: each weighed, with amounts and another viewer each time. */
function lively(game: AnyGame, seed: number, length: number) {
  const chance = chanceFrom(seed);
  const able = game.samples.filter((s) => s.weight > 0);
  const total = able.reduce((sum, s) => sum + s.weight, 0);
  const settings = game.defaults as unknown;
  let durable = game.freshDurable(settings) as unknown;
  let transient = game.freshDust() as unknown;
  let seq = 0;
  const outcomes = [];
  for (let times = 0; times < length; times += 1) {
    let at = chance() * total;
    const sample = able.find((s) => (at -= s.weight) < 0) ?? able[0]!;
    const tried = sample.make({ settings, durable, sprites, amount: pick(chance, 40), times, nowMs: times * 1_500, chance });
    for (const { afterMs, signal } of tried.signals) {
      seq += 1;
      const given = { ...signal, seq, atMs: times * 1_500 + afterMs, id: `s${seq}` } as Signal;
      const read = given.kind === "command" ? readCommand(game, given.command) : null;
      if (read?.ok === false) continue;
      const ready = given.kind === "command" && read?.ok === true ? { ...given, command: read.value } : given;
      const outcome = game.step(deepFreeze({ settings, durable, transient }), deepFreeze(ready), ctx);
      durable = outcome.durable;
      transient = outcome.transient;
      outcomes.push(outcome);
    }
  }
  return outcomes;
}

const each = (check: (game: AnyGame) => void) => (): void => {
  expect(allGames().length).toBeGreaterThan(2);
  for (const game of allGames()) check(game);
};

describe("every game", () => {
  test(
    "has defaults that can be published, and settings that are read as they are stored",
    each((game) => {
      expect(game.settings.safeParse(game.defaults).success).toBe(true);
      expect(settingsVersion(game.defaults)).toBe(versionOf(game.settingsSteps));
      for (const { settings } of game.setUps ?? []) expect(game.settings.safeParse(settings).success).toBe(true);
      const stored = JSON.parse(JSON.stringify(game.freshDurable(game.defaults))) as unknown;
      expect(readStored(game.durable, game.stateSteps, versionOf(game.stateSteps), stored).ok).toBe(true);
    }),
  );
  test(
    "lives through a thousand of its own samples: nothing throws, all can be stored, and comes out the same again",
    each((game) => {
      const outcomes = lively(game, 7, 1_000);
      expect(outcomes.length).toBeGreaterThan(500);
      for (const [i, { durable, notes, effects }] of outcomes.entries()) {
        if (i % 97 === 0) expect(game.durable.safeParse(JSON.parse(JSON.stringify(durable))).success).toBe(true);
        if (i % 97 === 0) expect(JSON.parse(JSON.stringify(effects))).toEqual(effects);
        for (const note of notes) {
          // Every decision is said in words, never as a bare code.
          const said = noteInWords(game.kind, note);
          if (!/^[^/]*[a-z0-9][^/]*$/i.test(said)) throw new Error(`${game.kind}: “${said}” for ${JSON.stringify(note)}`);
          expect(noteInShort(game.kind, note).length).toBeLessThan(60);
        }
      }
      expect(JSON.stringify(lively(game, 7, 100))).toBe(JSON.stringify(lively(game, 7, 100)));
    }),
  );
  test(
    "shows viewers and overlays nothing of who somebody is",
    each((game) => {
      const last = lively(game, 3, 300).at(-1)!;
      for (const audience of ["overlay", "viewer"] as const)
        expect(JSON.stringify(game.view(game.defaults, last.durable, audience))).not.toMatch(/viewerId|"id":/);
    }),
  );
  test(
    "has sentences whose blanks each change a setting, and what they say",
    each((game) => {
      const before = game.sentences(game.defaults, facts);
      for (const { parts } of before)
        for (const part of parts) {
          if (typeof part === "string") continue;
          const value = valueAt(game.defaults, part.path);
          expect(value).toBeDefined();
          const other =
            part.field.kind === "choice"
              ? part.field.options.find((o) => o.value !== value)?.value
              : part.field.kind === "toggle"
                ? value !== true
                : typeof value === "number"
                  ? value + ("min" in part.field && value + 1 > part.field.max ? -1 : 1_000)
                  : typeof value === "string"
                    ? `${value}x`
                    : undefined;
          if (other === undefined) continue;
          const changed = game.sentences(withValueAt(game.defaults, part.path, other), facts);
          expect([part.path, changed.map(plain)]).not.toEqual([part.path, before.map(plain)]);
        }
      expect(wordsForViewers(game, game.defaults, facts).join(" ")).toMatch(/^“?[A-Z].+\.$/);
      expect(Array.isArray(game.hints?.(game.defaults, facts) ?? [])).toBe(true);
    }),
  );
  test(
    "has actions that can be asked for as they begin, with a sentence that names the game and each thing it asks",
    each((game) => {
      const keys = Object.values(game.actions ?? {}).flatMap((a) => (a.key === undefined ? [] : [a.key]));
      expect(new Set(keys).size).toBe(keys.length);
      for (const [name, action] of Object.entries(game.actions ?? {})) {
        expect(readCommand(game, { ...startOf(action.input), do: name }).ok).toBe(true);
        const blanks = formParts(action.form).flatMap((p) => (typeof p === "string" ? [] : [p.blank]));
        const asked = entriesOf(action.input).flatMap(([field, f]) => (f.kind === "signal" ? [] : [field]));
        expect(blanks.filter((b) => b !== "game").sort()).toEqual([...asked].sort());
        expect(blanks).toContain("game");
        expect(action.label.length).toBeLessThan(30);
        // What is picked from a list is picked from one that its settings hold.
        for (const [, field] of entriesOf(action.input))
          if (field.kind === "text" && field.oneOf !== undefined)
            expect(Object.keys(game.lists?.(game.defaults) ?? {})).toContain(field.oneOf.list);
      }
    }),
  );
  test(
    "tells things by names of its own, in words, and stands somewhere sensible",
    each((game) => {
      for (const [what, told] of Object.entries(game.told ?? {})) {
        expect(what).toMatch(/^[a-z-]+\/[a-z-]+$/);
        expect(told.words).toMatch(/^[a-z]/);
        for (const from of told.from ?? []) expect(Object.keys(game.actions ?? {})).toContain(from);
      }
      const { x, y, width, height } = game.place ?? { x: 0, y: 0, width: 1, height: 1 };
      expect(x >= 0 && y >= 0 && x + width <= 1 && y + height <= 1).toBe(true);
      expect(game.newNames.length).toBeGreaterThan(0);
    }),
  );
});
