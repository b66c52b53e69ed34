import { expect, test } from "@jest/globals";
import { evening } from "./evening";

/** Short evenings, told as an operator would read them; what is said here is what the rules say. */
test("an evening with a slip: backed, locked, told wrong, taken back, told right", () => {
  const e = evening({ answers: "all", least: 10, openMs: 60_000 });
  const told: string[] = [];
  const tell = ({ words }: { words: readonly string[] }): void => void told.push(...words);
  tell(e.open(1_000));
  tell(e.say("ada", "!back A 5", 2_000));
  tell(e.say("ada", "!back A 100", 3_000));
  tell(e.say("bo", "!back it cracks 40", 4_000));
  tell(e.say("bo", "!back A 10", 5_000));
  tell(e.command({ do: "longer" }, 6_000));
  tell(e.timer(121_000));
  tell(e.result("B", 130_000));
  tell(e.timer(131_000));
  tell(e.command({ do: "undo" }, 140_000));
  tell(e.timer(141_000));
  tell(e.result("A", 150_000));
  tell(e.timer(151_000));
  expect(told).toEqual([
    "“Will it survive the firing?” was opened",
    "the least is 10 points",
    "100 on A It survives",
    "40 on B It cracks",
    "you are with B It cracks, and that stands",
    "“Will it survive the firing?” is open a minute longer",
    "“Will it survive the firing?” was locked with 2 viewers",
    "It cracks it is; 1 viewer was right",
    "1 viewer was paid for It cracks",
    "the result It cracks is taken back",
    "“Will it survive the firing?” is locked again",
    "It survives it is; 1 viewer was right",
    "1 viewer was paid for It survives",
  ]);
  expect([e.balance("ada"), e.balance("bo")]).toEqual([1_040, 960]);
});
