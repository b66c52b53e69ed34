import { expect, test } from "@jest/globals";
import { withNote } from "./settling";

const note = (id: number, who: string | null, minor = 100, currency = "EUR") => ({
  id,
  viewer: who === null ? null : { id: who, name: who },
  minor,
  currency,
  why: "it was left out",
  title: "a sail",
  atMs: id,
});

test("of very many notes of what is owed none is dropped: those to one person become one, to the cent", () => {
  let owed = Array.from({ length: 500 }, (_, i) => note(i, `v${i % 7}`));
  for (const more of [note(900, "v3", 250), note(901, "v3", 5, "USD"), note(902, "new", 40), note(903, null, 60), note(904, null, 61)])
    owed = [...withNote(owed, more)];
  const sum = (of: (n: (typeof owed)[number]) => boolean): number => owed.filter(of).reduce((all, n) => all + n.minor, 0);
  expect(sum(() => true)).toBe(500 * 100 + 250 + 5 + 40 + 60 + 61);
  expect(sum((n) => n.viewer?.id === "v3" && n.currency === "EUR")).toBe(71 * 100 + 250);
  expect(owed.filter((n) => n.viewer?.id === "v3" && n.currency === "USD")).toHaveLength(1);
  expect(owed.filter((n) => n.viewer === null)).toHaveLength(2);
  expect(new Set(owed.map((n) => n.id)).size).toBe(owed.length);
});
