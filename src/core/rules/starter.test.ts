import { describe, expect, test } from "@jest/globals";
import { cueBookDefaults, cueBookSchema } from "../cues/settings";
import { starterCues } from "../cues/starter";
import { rewardBookDefaults, rewardBookSchema } from "../rewards/settings";
import { starterRewards } from "../rewards/starter";
import type { RuleEffect } from "./effect";
import { cueHints, rewardHints, ruleHints } from "./hints";
import { mainQueue, rulebookDefaults, rulebookSchema } from "./settings";
import { starterRules } from "./starter";

describe("rules, cues and rewards to begin with", () => {
  const rules = starterRules((n) => `r${n}`);
  const cues = starterCues((n) => `c${n}`);
  const rewards = starterRewards((n) => `w${n}`);
  const all: readonly (readonly Readonly<{ id: string; name: string }>[])[] = [rules, cues, rewards];
  test("can be published as they are, each with an id and a name of its own", () => {
    expect(rulebookSchema.safeParse({ ...rulebookDefaults, rules }).success).toBe(true);
    expect(cueBookSchema.safeParse({ ...cueBookDefaults, cues }).success).toBe(true);
    expect(rewardBookSchema.safeParse({ ...rewardBookDefaults, rewards }).success).toBe(true);
    for (const list of all) for (const field of ["id", "name"] as const) expect(new Set(list.map((r) => r[field])).size).toBe(list.length);
  });
  test("need nothing that a new channel does not have: they speak, and show words", () => {
    const effects: readonly RuleEffect[] = [
      ...rules.flatMap((r) => r.tiers.flatMap((t) => t.effects)),
      ...cues.flatMap((c) => [...c.effects, ...c.offEffects]),
      ...rewards.flatMap((r) => r.effects),
    ];
    for (const e of effects) {
      expect(["say", "show"]).toContain(e.do);
      if (e.do === "show") expect([e.picture, e.sound, ["", mainQueue].includes(e.queue)]).toEqual(["", "", true]);
    }
    const nothing = { games: [], props: [], audible: true };
    expect([...ruleHints({ ...rulebookDefaults, rules }, nothing), ...cueHints(cues, nothing)]).toEqual([]);
    expect(rewardHints(rewards, nothing)).toEqual([]);
  });
});
