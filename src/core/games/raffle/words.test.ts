import { describe, expect, test } from "@jest/globals";
import { plain } from "../../words/sentence";
import { raffleNoteInWords } from "./notes";
import { raffleDefaults, type RaffleSettings, raffleSettingsSchema, freshRaffle, type Round } from "./settings";
import { raffleView } from "./view";
import { raffleStands } from "./stands";
import { closedTold, lockedTold, openedTold, raffleHints, raffleSentences, rulesTold, winnerTold } from "./words";

const settings = (part: Partial<RaffleSettings> = {}): RaffleSettings => raffleSettingsSchema.parse({ ...raffleDefaults, ...part });
const sentence = (s: RaffleSettings, id: string): string => plain(raffleSentences(s, "clay").find((l) => l.id === id)!);

describe("the rules of a draw in sentences", () => {
  test("one ticket is one ticket, and a price has its points", () => {
    expect(sentence(settings(), "tickets")).toBe("One viewer has up to 1 ticket, for 0 clay.");
    expect(sentence(settings({ most: 5, price: 1_200 }), "tickets")).toBe("One viewer has up to 5 tickets, each for 1,200 clay.");
  });
  test("numbers instead of tickets", () => {
    const s = settings({ by: "number", number: { from: 1, to: 1_000 }, tries: 2, price: 5 });
    expect(sentence(s, "number")).toBe("Numbers go from 1 to 1,000; one may be named 2 times, each for 5 clay.");
    expect(raffleSentences(s).some((l) => l.id === "tickets")).toBe(false);
  });
  test("winners answer or need not", () => {
    expect(sentence(settings({ claimMs: 0 }), "winners")).toBe("There is 1 winner, who need not answer: 0 s.");
    expect(sentence(settings({ winners: 3 }), "winners")).toBe("There are 3 winners; each must write within 60 s, or the next is drawn.");
  });
  test("told in chat they fit a line", () =>
    expect(rulesTold(settings({ title: "x".repeat(60) }), "clay").length).toBeLessThanOrEqual(380));
});

describe("what chat is told", () => {
  test("how to take part, by what is asked for", () => {
    const told = (part: Partial<RaffleSettings>): string => openedTold(settings(part), "ab".repeat(32), "clay");
    expect(told({})).toBe("Last week’s mug is open: write !in to enter. Promised by abababababababababab.");
    expect(told({ most: 3, price: 10 })).toContain("write !in and how many, up to 3 tickets. A ticket costs 10 clay.");
    expect(told({ by: "number", price: 10 })).toContain("write !in and a number from 1 to 100. A number costs 10 clay.");
  });
  test("that it is locked, and who shakes the drum; who won, and by when to claim it; where it is checked", () => {
    const round = { id: "mug.1.a", settings: settings(), people: 1, tickets: 2, listHash: "cd".repeat(32), phase: "shaking" } as Round;
    expect(lockedTold(round)).toBe(
      "Last week’s mug is locked: 1 viewer, 2 tickets. List cdcdcdcdcdcdcdcdcdcd. Write anything now: the first 5 of you shake the drum.",
    );
    expect(lockedTold({ ...round, phase: "locked" })).not.toContain("shake");
    const winner = { name: "Ada", prize: "" } as Parameters<typeof winnerTold>[1];
    expect(winnerTold(settings(), winner)).toBe("Ada wins Last week’s mug. @Ada, write within 60 s to claim it.");
    expect(winnerTold(settings({ claimMs: 0 }), { ...winner, prize: "Tall vase" })).toBe("Ada wins Tall vase.");
    expect(closedTold(round)).toContain("round mug.1.a");
  });
});

describe("settings that will disappoint", () => {
  const hints = (part: Partial<RaffleSettings>): string[] => raffleHints(settings(part)).map((h) => h.id);
  test("are told before anybody enters", () => {
    const prizes = [{ id: "a", name: "Mug", count: 2, how: "" }];
    expect(hints({})).toEqual([]);
    expect(hints({ prizes, winners: 3 })).toEqual(["prizes"]);
    expect(hints({ prizes, winners: 1 })).toEqual(["winners"]);
    expect(hints({ claimMs: 5_000 })).toEqual(["claim"]);
    expect(hints({ shake: false })).toEqual(["shake"]);
    expect(hints({ by: "number", number: { from: 1, to: 5 } })).toEqual(["number"]);
  });
  test("numbers that go down are refused", () =>
    expect(raffleSettingsSchema.safeParse({ ...raffleDefaults, number: { from: 5, to: 5 } }).error?.issues[0]?.message).toBe(
      "The numbers must go up: the first is below the last.",
    ));
});

test("how it stands, before, open, and what nobody is shown", () => {
  const view = raffleView(settings(), freshRaffle(), "viewer");
  expect(raffleStands(view)).toBe("waits to be opened");
  expect(raffleStands({ ...view, phase: "open", people: 1 })).toBe("is open: 1 viewer in");
  expect(raffleStands({ ...view, phase: "locked", people: 1_204 })).toBe("is locked: 1,204 viewers in");
  expect(JSON.stringify(raffleView(settings(), freshRaffle(), "overlay"))).not.toContain("sealed");
  expect(raffleNoteInWords({ refusal: { code: "raffle/won-lately", facts: { shows: 1 } }, count: 1 })).toBe(
    "you won lately: again in 1 show",
  );
});
