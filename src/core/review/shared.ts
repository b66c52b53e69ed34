import { theHouse } from "../signals/names";
import { z } from "zod";
import { alone } from "../kernel/text";

/**
 * What of a show is shown to whoever has its link: an allow-list. What is not named here is not shown: nothing that was
 * written, no sales, no points, no money, no list of people.
 */
export const sharedShowSchema = z.strictObject({
  channel: z.string(),
  name: z.string(),
  fromMs: z.number(),
  toMs: z.number(),
  numbers: z.strictObject({
    messages: z.number(),
    people: z.number(),
    busiest: z.number(),
    follows: z.number(),
    raids: z.number(),
    raiders: z.number(),
  }),
  /** How much was written, bin by bin. */
  curve: z.strictObject({ binMs: z.number(), chat: z.array(z.number()) }),
  /** Kept ones, as they were named by who kept them. */
  moments: z.array(z.strictObject({ afterMs: z.number(), ms: z.number(), name: z.string() })),
  /** As they were told in the show; `check` leads to its proof, empty for none. */
  results: z.array(z.strictObject({ afterMs: z.number(), game: z.string(), title: z.string(), result: z.string(), check: z.string() })),
});
export type SharedShow = z.infer<typeof sharedShowSchema>;

type Of = Readonly<{
  operators: readonly string[];
  channel: string;
  name: string;
  fromMs: number;
  toMs: number;
  numbers: SharedShow["numbers"];
  binMs: number;
  chat: readonly number[];
  moments: readonly Readonly<{ atMs: number; toMs: number; name: string; state: string }>[];
  rounds: readonly Readonly<{ atMs: number; gameName: string; title: string; result: string; check: string }>[];
}>;
const mostResults = 300;

/** Picks what may be shown, name by name. `operators`: names one signs in by, which are told to nobody. */
export function sharedShow({ operators, channel, name, fromMs, toMs, numbers, binMs, chat, moments, rounds }: Of): SharedShow {
  const names = operators.filter((o) => o !== "").map(alone);
  const without = (text: string): string => names.reduce((said, name) => said.replace(name, theHouse), text);
  const { messages, people, busiest, follows, raids, raiders } = numbers;
  return {
    channel,
    name,
    fromMs,
    toMs,
    numbers: { messages, people, busiest, follows, raids, raiders },
    curve: { binMs, chat: [...chat] },
    moments: moments
      .filter((m) => m.state === "kept")
      .map((m) => ({ afterMs: Math.max(0, m.atMs - fromMs), ms: m.toMs - m.atMs, name: m.name })),
    results: rounds
      .slice(0, mostResults)
      .map((r) => ({
        afterMs: Math.max(0, r.atMs - fromMs),
        game: r.gameName,
        title: without(r.title),
        result: without(r.result),
        check: r.check,
      }))
      .reverse(),
  };
}
