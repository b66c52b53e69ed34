import { chanceFrom } from "../kernel/chance";

/** How likely somebody is among the winners: between 0 and 1; `about` where it was simulated. */
export type OwnChance = Readonly<{ share: number; about: boolean }>;
/** Draws that one answer may cost, all trials together: a few milliseconds. */
const mostDraws = 60_000;

/**
 * The chance of at least one of `winners` prizes for who holds `own` of the tickets, drawn without replacement: exact for
 * one winner, and for several where all hold as many; else by simulated draws (RULES section 7). `others` are how
 * many of everybody else hold how many. Whole numbers from 1; the same question gets the same answer.
 */
export function ownChance(own: number, others: ReadonlyMap<number, number>, winners: number): OwnChance {
  if (own < 1 || winners < 1) return { share: 0, about: false };
  // What is drawn from is a few kinds, not all people.
  const kinds = new Map([...others].filter(([, many]) => many > 0));
  const people = [...kinds.values()].reduce((sum, many) => sum + many, 1);
  if (winners >= people) return { share: 1, about: false };
  const total = [...kinds].reduce((sum, [n, many]) => sum + n * many, own);
  if (winners === 1) return { share: own / total, about: false };
  if (kinds.size === 1 && kinds.has(own)) return { share: winners / people, about: false };
  const chance = chanceFrom((own * 7_919 + total * 31 + people) >>> 0);
  const trials = Math.max(500, Math.floor(mostDraws / winners));
  let won = 0;
  for (let t = 0; t < trials; t += 1) {
    const left = [...kinds];
    let sum = total;
    for (let i = 0; i < winners; i += 1) {
      let at = chance() * sum - own;
      if (at < 0) {
        won += 1;
        break;
      }
      const place = left.findIndex(([n, many]) => (at -= n * many) < 0);
      const [n, many] = left[place] ?? [0, 0];
      if (n === 0) break;
      left[place] = [n, many - 1];
      sum -= n;
    }
  }
  return { share: won / trials, about: true };
}
