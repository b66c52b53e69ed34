import { newRule, type Rule } from "./settings";

/** Three rules that any channel can use as they are: they only speak in chat, so that nothing else must be there. */
export const starterRules = (idOf: (n: number) => string): Rule[] =>
  (
    [
      ["follow", "Welcome who follows", "Welcome, {viewer}."],
      ["tip", "Thank who tips", "Thank you for {amount}, {viewer}."],
      ["raid", "Greet a raid", "Welcome, {viewer}, with {viewers, plural, one {# viewer} other {# viewers}}."],
    ] as const
  ).map(([when, name, text], n) => ({
    ...newRule(idOf(n), when),
    name,
    tiers: [{ at: "least", amount: 0, effects: [{ do: "say", text }] }],
  }));
