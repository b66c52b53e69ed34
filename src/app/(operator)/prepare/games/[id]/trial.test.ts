/** @jest-environment jsdom */
import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { allGames, gameOf } from "../../../../../core/games/registry";
import { chanceFrom } from "../../../../../core/kernel/chance";
import type { Tried } from "../../../../../core/module/game";
import { commanded, one, said, sampleViewer } from "../../../../../core/module/samples";
import type { Sprite } from "../../../../../core/wire/messages";
import { Trial, type TrialReport } from "./trial";

beforeEach(() => void jest.useFakeTimers({ now: 1_000_000 }));
afterEach(() => void jest.useRealTimers());
const heard = () => {
  const reports: TrialReport[] = [];
  const effects: unknown[] = [];
  const views: unknown[] = [];
  return {
    reports,
    effects,
    views,
    show: {
      report: (r: TrialReport) => void reports.push(r),
      effect: (e: unknown) => void effects.push(e),
      changed: (v: unknown) => void views.push(v),
    },
  };
};

describe.each(allGames().map((g) => [g.name, g] as const))("what a game's tries do, by its real rules: %s", (_, game) => {
  test.each(game.samples.map((s) => [s.label, s] as const))("%s: is told in words, to its end", (_label, sample) => {
    const sprites = [{ key: "own:w", word: "wobblePot" } as Sprite];
    const trial = new Trial(game, game.defaults, sprites, "EUR");
    for (let times = 0; times < 3; times += 1) {
      const { show, reports } = heard();
      const tried = sample.make({
        amount: 1,
        times,
        durable: trial.state(),
        settings: game.defaults,
        sprites,
        nowMs: Date.now(),
        chance: chanceFrom(times),
      });
      expect(tried.says).not.toMatch(/undefined|NaN|\b1 (months|memberships|viewers|messages|hits)\b/);
      trial.run(tried, show);
      // Longer than any game waits by itself: a question is open for two minutes, and its result is due twenty later.
      jest.advanceTimersByTime(1_800_000);
      expect(reports.at(-1)).toMatchObject({ says: tried.says, running: false });
    }
  });
});

describe("a trial", () => {
  const wall = gameOf("emote-wall")!;
  const emote = { key: "own:w", word: "wobblePot" } as never;
  const viewer = sampleViewer(0);
  const storm = (n: number): Tried => ({
    says: "a storm",
    signals: Array.from({ length: n }, (_, i) => ({ afterMs: i * 100, signal: said(sampleViewer(i), "wobblePot") })),
  });
  test("adds up what came of it, one note for each kind", () => {
    const { show, reports, effects } = heard();
    new Trial(wall, wall.defaults, [emote], "EUR").run(storm(5), show);
    expect(reports.at(-1)).toMatchObject({ running: true });
    jest.advanceTimersByTime(2_000);
    expect(reports.at(-1)?.running).toBe(false);
    expect(reports.at(-1)?.notes.reduce((sum, n) => sum + n.count, 0)).toBeGreaterThanOrEqual(5);
    expect(effects.length).toBeGreaterThan(0);
  });
  test("what the engine would refuse, it refuses too, and goes on", () => {
    const { show, reports } = heard();
    const trial = new Trial(wall, wall.defaults, [emote], "EUR");
    trial.run(one("nonsense", commanded({ do: "constructor" })), show);
    expect(reports.at(-1)).toMatchObject({ running: false, notes: [{ refusal: { code: "game/cannot" }, count: 1 }] });
    trial.run(one("an emote", said(viewer, "wobblePot")), show);
    expect(reports.at(-1)?.notes[0]?.refusal).toBeUndefined();
  });
  test("of two at once the last one is told; started over, nothing of before comes any more", () => {
    const first = heard();
    const second = heard();
    const trial = new Trial(wall, wall.defaults, [emote], "EUR");
    trial.run(storm(8), first.show);
    trial.run(one("an emote", said(viewer, "wobblePot")), second.show);
    const told = first.reports.length;
    jest.advanceTimersByTime(300);
    expect(first.reports).toHaveLength(told);
    expect(second.reports.at(-1)?.says).toBe("an emote");
    const before = first.effects.length;
    trial.startOver();
    jest.advanceTimersByTime(10_000);
    expect(first.effects).toHaveLength(before);
  });
  test("new settings leave what was tried so far, unless the game would begin otherwise", () => {
    const boss = gameOf("boss-battle")!;
    const trial = new Trial(boss, boss.defaults, [], "EUR");
    const { show } = heard();
    trial.run(one("a hit", commanded({ do: "damage", amount: 7 })), show);
    const struck = trial.state();
    expect(struck).not.toEqual(boss.freshDurable(boss.defaults));
    trial.take({ ...boss.defaults });
    expect(trial.state()).toBe(struck);
    trial.take({ ...boss.defaults, health: 77 });
    expect(trial.state()).toEqual(boss.freshDurable({ ...boss.defaults, health: 77 }));
  });
});
