import { z } from "zod";
import { type CommandBook, commandBookSchema, newCommand, type OwnCommand, ownCommandSchema } from "./settings";
import { fold } from "../kernel/fold";

/** Commands in open formats: JSON whole, CSV as word, answer, and what viewers read about it. */
export type Brought = Readonly<{ commands: readonly OwnCommand[]; problems: readonly string[] }>;

export const commandsOut = (book: CommandBook): string => JSON.stringify({ commands: book.commands }, null, 2);
export const rowsOut = (book: CommandBook): readonly (readonly string[])[] => [
  ["word", "answer", "about"],
  ...book.commands.flatMap((c) => c.answers.map((a) => [c.words[0] ?? "", a, c.about])),
];

/** Takes in what a file holds; what can't be used says why, by line or by word, and the rest goes on. */
export function commandsFromJson(text: string, have: CommandBook, id: (i: number) => string): Brought {
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch {
    return { commands: [], problems: ["This is not JSON."] };
  }
  const list = z.object({ commands: z.array(z.unknown()) }).safeParse(given);
  if (!list.success) return { commands: [], problems: ["There is no list called “commands” in it."] };
  const read = list.data.commands.map((c, i) => ({
    at: `Command ${i + 1}`,
    parsed: ownCommandSchema.safeParse({ ...(c as object), id: id(i) }),
  }));
  return joined(
    have,
    read.flatMap(({ parsed }) => (parsed.success ? [parsed.data] : [])),
    read.flatMap(({ at, parsed }) => (parsed.success ? [] : [`${at}: ${parsed.error.issues[0]?.message ?? "not understood"}`])),
  );
}

/** Rows of a CSV: lines with the same word are one command that chooses among its answers. */
export function commandsFromRows(rows: readonly (readonly string[])[], have: CommandBook, id: (i: number) => string): Brought {
  const headed = fold(rows[0]?.[0] ?? "") === "word";
  const problems: string[] = [];
  const byWord = new Map<string, OwnCommand>();
  rows.forEach((row, i) => {
    if (headed && i === 0) return;
    const [word = "", answer = "", about = ""] = row.map((c) => c.trim());
    const known = byWord.get(fold(word));
    const next =
      known === undefined
        ? { ...newCommand(id(i), word, answer), about }
        : { ...known, answers: [...known.answers, answer], how: "random" as const };
    const parsed = ownCommandSchema.safeParse(next);
    if (parsed.success) byWord.set(fold(word), parsed.data);
    else problems.push(`Line ${i + 1}: ${parsed.error.issues[0]?.message ?? "not understood"}`);
  });
  return joined(have, [...byWord.values()], problems);
}

function joined(have: CommandBook, brought: readonly OwnCommand[], problems: readonly string[]): Brought {
  const taken = new Set(have.commands.flatMap((c) => c.words.map(fold)));
  const good: OwnCommand[] = [];
  const more = [...problems];
  for (const command of brought) {
    const twice = command.words.find((w) => taken.has(fold(w)));
    if (twice !== undefined) more.push(`“${twice}” is there already; it was left as it is.`);
    else {
      good.push(command);
      for (const w of command.words) taken.add(fold(w));
    }
  }
  const whole = commandBookSchema.safeParse({ ...have, commands: [...have.commands, ...good] });
  return whole.success ? { commands: good, problems: more } : { commands: [], problems: [...more, whole.error.issues[0]?.message ?? ""] };
}
