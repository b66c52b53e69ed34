import { describe, expect, test } from "@jest/globals";
import { mostListed, peopleIn } from "./people-list";

describe("a list of people", () => {
  test("has a name, and tickets where it says how many; a line of headings is none", () =>
    expect(peopleIn([["Name", "Tickets"], ["@ada", "3"], ["bo"], ["", ""], ["ada", "2"]])).toEqual({
      people: [
        { name: "ada", tickets: 5 },
        { name: "bo", tickets: 1 },
      ],
      problems: [],
    }));
  test("what can’t be read is told with its line, and keeps nobody else out", () => {
    const { people, problems } = peopleIn([["ada", "many"], ["", "3"], ["x".repeat(81)], ["bo", "0"], ["__proto__"], ["\ud83d"]]);
    expect(people.map((p) => p.name)).toEqual(["__proto__", "\ufffd"]);
    expect(problems).toEqual([
      "Line 1: “many” is no number of tickets.",
      "Line 2: there is no name.",
      "Line 3: the name is too long.",
      "Line 4: “0” is no number of tickets.",
    ]);
  });
  test("ends where more can’t come in at once", () => {
    const { people, problems } = peopleIn(Array.from({ length: mostListed + 9 }, (_, i) => [`v${i}`]));
    expect([people.length, problems.length]).toEqual([mostListed, 1]);
  });
});
