import { describe, expect, test } from "@jest/globals";
import { rulebookDefaults, rulebookSchema } from "./settings";
import { starterRules } from "./starter";

describe("rules to begin with", () => {
  const rules = starterRules((n) => `r${n}`);
  test("can be published as they are, each with an id and a name of its own", () => {
    expect(rulebookSchema.safeParse({ ...rulebookDefaults, rules }).success).toBe(true);
    expect(new Set(rules.map((r) => r.id)).size).toBe(rules.length);
    expect(new Set(rules.map((r) => r.name)).size).toBe(rules.length);
  });
  test("need nothing that a new channel does not have: they only speak", () => {
    expect(rules.flatMap((r) => r.tiers.flatMap((t) => t.effects.map((d) => d.do)))).toEqual(["say", "say", "say"]);
  });
});
