import { commandRules } from "../commands/rules";
import { cueBook } from "../cues/cues";
import { type Refusal, refusal } from "../kernel/refusal";
import type { GameRules } from "../kernel/step";
import { readStored, settingsVersion } from "../kernel/stored";
import { rulebook } from "../rules/rules";
import { pointsRules } from "../points/rules";
import { rewardsRules } from "../rewards/rules";
import { showRules } from "../show/rules";
import { bossBattle } from "./boss-battle/rules";
import { emoteWall } from "./emote-wall/rules";

/**
 * The rules of every game, for the engine. The registry erases each game's own types: the engine parses
 * settings and durable state with the game's schemas before it hands them back to the same game.
 */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- see above: erased here, parsed by schema
export type AnyRules = GameRules<any, any, any, any>;
export const gameRules: Readonly<Record<string, AnyRules>> = { [emoteWall.kind]: emoteWall, [bossBattle.kind]: bossBattle };
/** Parts with the same contract and no picture of their own; a channel has one of each. */
export const bookRules: Readonly<Record<string, AnyRules>> = {
  [rulebook.kind]: rulebook,
  [cueBook.kind]: cueBook,
  [showRules.kind]: showRules,
  [commandRules.kind]: commandRules,
  // Rewards before points: what is bought is looked at before what a word brings.
  [rewardsRules.kind]: rewardsRules,
  [pointsRules.kind]: pointsRules,
};
const parts = { ...gameRules, ...bookRules };
export const rulesOf = (kind: string): AnyRules | null => (Object.hasOwn(parts, kind) ? (parts[kind] ?? null) : null);
export const isGame = (kind: string): boolean => Object.hasOwn(gameRules, kind);

/**
 * Settings of a part as this version writes them, whichever version stored them; as they are stored, and why, where
 * they can't be read.
 */
export function readSettings(kind: string, stored: unknown): Readonly<{ settings: unknown; why: Refusal | null }> {
  const rules = rulesOf(kind);
  if (rules === null) return { settings: stored, why: refusal("stored/unreadable", { why: `there is no kind of game called ${kind}` }) };
  const read = readStored<unknown>(rules.settings, rules.settingsSteps, settingsVersion(stored), stored);
  return read.ok ? { settings: read.value, why: null } : { settings: stored, why: read.refusal };
}
