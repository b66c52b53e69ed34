import { expect, test } from "@jest/globals";
import { evening, settingsOf } from "./evening";

/** Short evenings, told as an operator would read them; what is said here is what the rules say. */
test("a giveaway: entered, shaken, drawn, passed over, claimed, closed", () => {
  const e = evening(
    settingsOf({ most: 2, price: 50, shake: true, shakers: 2, claimMs: 30_000, prizes: [{ id: "m", name: "Mug", count: 1, how: "" }] }),
  );
  const told: string[] = [];
  const tell = ({ words }: { words: readonly string[] }): void => void told.push(...words);
  tell(e.say("ada", "!in", 1_000));
  tell(e.command({ do: "open" }, 2_000));
  tell(e.say("ada", "!in 2", 3_000));
  tell(e.say("bo", "!in", 4_000));
  tell(e.say("bo", "!in 2", 5_000));
  tell(e.say("bo", "!in", 5_500));
  tell(e.command({ do: "draw" }, 6_000));
  tell(e.command({ do: "lock" }, 7_000));
  tell(e.say("cy", "!in", 8_000));
  tell(e.say("di", "brrr", 9_000));
  tell(e.say("cy", "!in", 10_000));
  tell(e.command({ do: "draw" }, 11_000));
  tell(e.timer(41_001));
  const second = e.at().round!.winners[1]!.name;
  tell(e.say(second, "me", 42_000));
  tell(e.command({ do: "close" }, 50_000));
  const first = second === "ada" ? "bo" : "ada";
  expect(told).toEqual([
    "nothing is open to enter",
    "Last week’s mug was opened",
    "ticket 2 of 2",
    "ticket 1 of 2",
    "ticket 2 of 2",
    "you hold all 2 tickets",
    "lock it first",
    "locked with 2 viewers and 4 tickets",
    "cy shook the drum",
    "it was locked 1 s before your message",
    "di shook the drum",
    "it was locked 3 s before your message",
    `${first} was drawn for Mug`,
    `${first} did not answer in time`,
    `${second} was drawn for Mug`,
    `${second} claimed it`,
    "Last week’s mug was closed with 1 winner",
  ]);
});
test("a number: named, changed, out of range, too often", () => {
  const e = evening(settingsOf({ by: "number", number: { from: -5, to: 5 }, tries: 2, word: "!guess" }));
  e.command({ do: "open" });
  const said = ["!guess -3", "!guess +4", "!guess 0", "!guess -6", "!guess 2.5", "!guess"].map(
    (text, i) => e.say(i < 3 ? "ada" : "bo", text).words[0],
  );
  expect(said).toEqual([
    "-3 it is",
    "4 it is",
    "you named 4, and that stands",
    "the numbers go from -5 to 5",
    "that is no number: say one from -5 to 5",
    "say a number from -5 to 5",
  ]);
});
