import { commandRules } from "./commands/rules";
import { cueBook } from "./cues/cues";
import { gameOf } from "./games/registry";
import { type Refusal, refusal } from "./kernel/refusal";
import { readStored, settingsVersion } from "./kernel/stored";
import type { AnyModule, Note } from "./module/module";
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

/** What the engine itself answers, whichever module was meant. */
export function engineRefusalInWords({ code, facts }: Refusal): string | null {
  switch (code) {
    case "viewer/muted":
      return "muted in games, so it did nothing";
    case "game/unknown":
      return "this game is not there any more";
    case "game/cannot":
      return "it has nothing of the kind";
    case "command/input":
      return `what was asked for does not fit: ${String(facts["where"]) || "all of it"}: ${String(facts["why"])}`;
    case "order/too-deep":
      return `rules answered rules ${String(facts["deepest"])} times in a row; the rest was left out`;
    default:
      return null;
  }
}

/** What a module's note says, in plain words: beside a message, in the try-it strip, as an answer in chat. */
export function noteInWords(kind: string, note: Note): string {
  const common = note.refusal === undefined ? null : engineRefusalInWords(note.refusal);
  return common ?? moduleOf(kind)?.noteInWords(note) ?? note.refusal?.code ?? "";
}

/** The same in a word or two, for a chip beside a message. */
export function noteInShort(kind: string, note: Note): string {
  const own = moduleOf(kind)?.noteInShort?.(note) ?? null;
  if (own !== null) return own;
  const { refusal } = note;
  if (refusal === undefined) return noteInWords(kind, note);
  const wait = refusal.facts["freeInS"];
  if (refusal.code === "viewer/muted") return "muted";
  if (refusal.code.endsWith("/already-on")) return "on already";
  if (refusal.code.endsWith("/already-off")) return "off already";
  if (refusal.code.endsWith("/off")) return "off";
  return typeof wait === "number" ? `not yet: ${wait} s` : "refused";
}
