import { count } from "../words/sentence";
import type { Proof } from "./proof";
import { byNearness, canonical, drawTicket, type Guess, guessesOf, type ListChange, settingsHash, type Ticket } from "./scheme";

/** What following a proof has in common in both formats: steps, and the words for them. */
export const promiseWords = [
  "The secret is the one that was promised before the first entry.",
  "The secret is not the one that was promised: its hash is another.",
] as const;
export const settingsWords = [
  "The round was run as it was announced.",
  "The round’s settings are not the ones that were announced.",
] as const;
export const listWords = "The list that was drawn from is not the one that the entries lead to.";
export const otherResult = "The secret and the list lead to another result than the published one.";

export const drawsWords = ({ draws, number }: Pick<Proof, "draws" | "number">): string =>
  draws.length === 0
    ? "Nobody was drawn."
    : number !== undefined
      ? `Secret and list lead to exactly the number ${count(number.target)}, and the viewer who named the nearest won.`
      : `Secret and list lead to exactly ${draws.length === 1 ? "this result" : `these ${count(draws.length)} results`}.`;

/** Whether these settings have this hash; what is no JSON has none. */
export function haveHash(settings: unknown, hash: string): boolean {
  try {
    return settingsHash(settings) === hash;
  } catch {
    return false;
  }
}
export const sameList = (a: readonly (Ticket | Guess)[], b: readonly (Ticket | Guess)[]): boolean => canonical(a) === canonical(b);

type Range = Readonly<{ from: number; to: number }>;
/** Whether the secret leads to this number in this range. */
export function isDrawn(
  { from, to }: Range,
  { target, attempts }: NonNullable<Proof["number"]>,
  key: Parameters<typeof drawTicket>[0],
): boolean {
  const drawn = drawTicket(key, 0, to - from + 1);
  return drawn.ok && from + drawn.value.ticket === target && drawn.value.attempts === attempts;
}
/** Whether these are the nearest to a number that was drawn, in their order: of two that are as near, the earlier. */
export function areNearest(
  draws: Proof["draws"],
  changes: readonly ListChange[],
  { from, to }: Range,
  { target, attempts }: NonNullable<Proof["number"]>,
): boolean {
  const order = byNearness(guessesOf(changes), target);
  const of = { weight: 1, total: to - from + 1, ticket: target - from, attempts };
  return draws.every((d, index) => canonical(d) === canonical({ ...of, index, id: order[index]?.id ?? "" }));
}
