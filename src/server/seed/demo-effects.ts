import { alertLookDefaults } from "../../core/alerts/alert";
import type { RuleEffect } from "../../core/rules/effect";

export const bossId = "old-spall";
export const wallId = "emote-wall";

/** Effects as the demo's rules and cues have them. */
export const show = (part: Partial<Extract<RuleEffect, { do: "show" }>>): RuleEffect => ({
  do: "show",
  picture: "",
  sound: "",
  volume: 80,
  text: "",
  ms: 4_500,
  queue: "main",
  look: alertLookDefaults,
  ...part,
});
export const act = (game: string, name: string, input: Record<string, unknown>, per = 1): RuleEffect => ({
  do: "act",
  game,
  act: name,
  input,
  per,
});
export const flock = (count: number, from: "message" | "most-used" | "chosen", chosen: string[] = [], motion = "spout"): RuleEffect =>
  act(wallId, "flock", { count, overMs: 2_000, emotes: { from, chosen }, motion });
