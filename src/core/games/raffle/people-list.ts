import { cut, wellFormed } from "../../kernel/text";
import { mostTickets } from "./limits";

export type Listed = Readonly<{ name: string; tickets: number }>;
export const mostListed = 5_000;

/**
 * People of a list: a name in the first column, and how many tickets in the second (1 when left out). A first line that
 * only names its columns is left out. What can't be read is told with its line, and keeps nobody else out.
 */
export function peopleIn(rows: readonly (readonly string[])[]): Readonly<{ people: readonly Listed[]; problems: readonly string[] }> {
  const people = new Map<string, Listed>();
  const problems: string[] = [];
  for (const [i, [first = "", second = ""]] of rows.entries()) {
    const name = wellFormed(first).trim().replace(/^@/, "");
    const many = second.trim();
    if (i === 0 && /^(name|viewer|user|chat name)$/i.test(name)) continue;
    if (name === "" && many === "") continue;
    const tickets = many === "" ? 1 : /^\d{1,6}$/.test(many) ? Number(many) : 0;
    if (name === "" || name.length > 80 || tickets < 1 || tickets > mostTickets)
      problems.push(
        `Line ${i + 1}: ${name === "" ? "there is no name" : name.length > 80 ? "the name is too long" : `“${cut(many, 20)}” is no number of tickets`}.`,
      );
    else if (people.size >= mostListed && !people.has(name)) {
      problems.push(`Line ${i + 1} and what follows: at most ${mostListed} come in at once.`);
      break;
    } else people.set(name, { name, tickets: Math.min(mostTickets, (people.get(name)?.tickets ?? 0) + tickets) });
  }
  return { people: [...people.values()], problems };
}
