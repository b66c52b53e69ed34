import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { fold } from "../kernel/fold";
import { commandsFromJson, commandsFromRows, commandsOut, rowsOut } from "./files";
import { type CommandBook, commandBookDefaults, commandBookSchema, newCommand, type OwnCommand } from "./settings";

const word = fc.constantFrom("!kiln", "!mug", "!cone", "!Ünder", "!🔥", "!constructor", "!__proto__", "=cmd");
const answer = fc.constantFrom(
  "The kiln is hot.",
  "{viewer} raises a mug",
  "a, b",
  'he said "hi"',
  "{count, plural, one {# mug} other {# mugs}}",
);
const command = fc
  .record({ word, answers: fc.uniqueArray(answer, { minLength: 1, maxLength: 3 }), about: fc.constantFrom("", "hot, or not") })
  .map(({ word, answers, about }): OwnCommand => ({
    ...newCommand("c", word, answers[0]),
    answers,
    about,
    how: answers.length > 1 ? "random" : newCommand("c", word).how,
  }));
const book = fc
  .uniqueArray(command, { selector: (c) => fold(c.words[0] ?? ""), maxLength: 6 })
  .map((list): CommandBook => ({ ...commandBookDefaults, commands: list.map((c, i) => ({ ...c, id: `c${i}` })) }));
const empty = commandBookDefaults;
const id = (i: number): string => `n${i}`;
const without = (commands: readonly OwnCommand[]): unknown => commands.map(({ id: _, ...rest }) => rest);

describe("a channel's commands as a file, whatever they are", () => {
  test("JSON comes in as it went out, into a channel that has none", () => {
    fc.assert(
      fc.property(book, (given) => {
        expect(commandBookSchema.safeParse(given).success).toBe(true);
        const read = commandsFromJson(commandsOut(given), empty, id);
        expect(read.problems).toEqual([]);
        expect(without(read.commands)).toEqual(without(given.commands));
      }),
    );
  });
  test("CSV comes in as it went out: words, answers and what is read about them", () => {
    fc.assert(
      fc.property(book, (given) => {
        const read = commandsFromRows(rowsOut(given), empty, id);
        expect(read.problems).toEqual([]);
        expect(read.commands.map((c) => [c.words, c.answers, c.about])).toEqual(given.commands.map((c) => [c.words, c.answers, c.about]));
      }),
    );
  });
  test("what is there already is left as it is, and said", () => {
    fc.assert(
      fc.property(book, (given) => {
        const read = commandsFromJson(commandsOut(given), given, id);
        expect([read.commands, read.problems.length]).toEqual([[], given.commands.length]);
      }),
    );
  });
  test("whatever else is in a file, what is taken can be published, and nothing is thrown", () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 4 }), fc.array(fc.array(fc.string(), { maxLength: 4 }), { maxLength: 6 }), (value, rows) => {
        for (const text of [
          JSON.stringify(value),
          JSON.stringify({ commands: value }),
          JSON.stringify({ commands: [value, null, 3] }),
          "{",
        ])
          expect(commandBookSchema.safeParse({ ...empty, commands: commandsFromJson(text, empty, id).commands }).success).toBe(true);
        const read = commandsFromRows(rows, empty, id);
        expect(commandBookSchema.safeParse({ ...empty, commands: read.commands }).success).toBe(true);
      }),
    );
  });
});
