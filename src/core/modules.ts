import { commandRules } from "./commands/rules";
import { cueBook } from "./cues/cues";
import { gameOf } from "./games/registry";
import { type Refusal, refusal } from "./kernel/refusal";
import { readStored, settingsVersion } from "./kernel/stored";
import type { AnyModule } from "./module/module";
import { pointsRules } from "./points/rules";
import { rewardsRules } from "./rewards/rules";
import { rulebook } from "./rules/rules";
import { showRules } from "./show/rules";

/** Modules that are not games; a channel has one of each. Rewards before points: what is bought is looked at before what a word brings. */
const others: ReadonlyMap<string, AnyModule> = new Map(
  [rulebook, cueBook, showRules, commandRules, rewardsRules, pointsRules].map((m): [string, AnyModule] => [m.kind, m]),
);
export const moduleOf = (kind: string): AnyModule | null => gameOf(kind) ?? others.get(kind) ?? null;
export const otherModules = (): readonly AnyModule[] => [...others.values()];

/**
 * Settings of a module as this version writes them, whichever version stored them; as they are stored, and why, where
 * they can't be read.
 */
export function readSettings(kind: string, stored: unknown): Readonly<{ settings: unknown; why: Refusal | null }> {
  const module = moduleOf(kind);
  if (module === null) return { settings: stored, why: refusal("stored/unreadable", { why: `there is no kind of game called ${kind}` }) };
  const read = readStored<unknown>(module.settings, module.settingsSteps, settingsVersion(stored), stored);
  return read.ok ? { settings: read.value, why: null } : { settings: stored, why: read.refusal };
}
