import type { CommandOf } from "../../module/fields";
import { actionsOf } from "../../module/action";
import { count } from "../../words/sentence";

const most = 1_000_000_000_000;
const byHand = (verb: string) => (input: Readonly<Record<string, unknown>>, by: string, byOperator: boolean) =>
  byOperator ? { tone: "ochre" as const, weight: 1 as const, label: `${by} ${verb} for ${count(Number(input["amount"] ?? 0))}` } : null;

/** What one can make a boss battle do. */
export const bossActions = actionsOf({
  damage: {
    label: "Hit",
    form: "Hit {game} by {amount}",
    input: { amount: { kind: "amount", label: "Damage", start: 50, min: 0, most } },
    quick: [10, 50, 100, 250].map((amount) => ({ label: `−${amount}`, amount })),
    key: "h",
    word: "hit",
    tape: byHand("hit"),
  },
  heal: {
    label: "Heal",
    form: "Heal {game} by {amount}",
    input: { amount: { kind: "amount", label: "Healing", start: 50, min: 0, most } },
    quick: [{ label: "Heal 50", amount: 50 }],
    key: "m",
    word: "heal",
    tape: byHand("healed"),
  },
  undo: {
    label: "Undo hit",
    form: "Undo the last hit on {game}",
    // The last hit; with a signal's number, only if it still is the one of that signal.
    input: { seq: { kind: "signal" } },
    key: "u",
    word: "undo",
    byRule: false,
    can: (view) => view["undoable"] === true,
    tape: () => ({ tone: "soft", weight: 1, label: "A hit was undone" }),
  },
  "start-over": {
    label: "Start over",
    form: "Start {game} over",
    input: {},
    word: "startover",
    sure: true,
    done: "Started over. Who was the boss until now is kept in its history.",
    tape: () => ({ tone: "ochre", weight: 2, label: "Started over" }),
  },
  "tell-rules": {
    label: "Tell the rules",
    form: "Tell the rules of {game} in chat",
    input: {},
    word: "rules",
    done: "Chat was told the rules.",
  },
});
export type BossCommand = CommandOf<typeof bossActions> | Readonly<{ do: "switch"; on: boolean }>;
