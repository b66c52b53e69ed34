import { describe, expect, test } from "@jest/globals";
import { eveningOf } from "./evening";
import { frontOf } from "./fronts";
import { raffle } from "./raffle/definition";
import { raffleView } from "./raffle/view";
import { raffleSettingsSchema, type RaffleSettings } from "./raffle/settings";

/** What a draw says of itself when the show is to end, and what can be done about it. */
function draw(part: Partial<RaffleSettings> = {}) {
  const settings = raffleSettingsSchema.parse({ ...raffle.defaults, title: "Mug", shake: false, claimMs: 60_000, ...part });
  const e = eveningOf(raffle, settings);
  const left = () => {
    const found = frontOf("raffle")?.unfinished?.(raffleView(settings, e.at(), "operator")) ?? [];
    return found.map((u) => [u.words, u.ways.map((w) => w.label)]);
  };
  return { e, left };
}

describe("a draw when the show is to end", () => {
  test("not opened, or closed, nothing is asked", () => {
    const { e, left } = draw({ claimMs: 0 });
    expect(left()).toEqual([]);
    e.command({ do: "open" });
    e.say("ada", "!in");
    for (const what of ["lock", "draw", "close"]) e.command({ do: what });
    expect(left()).toEqual([]);
  });
  test("open, locked, drawn, claimed: each has its own ways, and the last of them leads to nothing left", () => {
    const { e, left } = draw();
    e.command({ do: "open" });
    e.say("ada", "!in");
    expect(left()).toEqual([["“Mug” is open with 1 viewer in it.", ["Lock it", "Cancel it"]]]);
    e.command({ do: "lock" });
    expect(left()).toEqual([["“Mug” is locked with 1 viewer in it, and nobody was drawn.", ["Draw the winner", "Cancel it"]]]);
    e.command({ do: "draw-all" });
    expect(left()).toEqual([["ada won Mug and is to answer in chat.", ["Claimed", "Pass over and draw the next"]]]);
    e.command({ do: "claimed", index: 0 });
    expect(left()).toEqual([["“Mug” was drawn and is not closed.", ["Close it"]]]);
    e.command({ do: "close" });
    expect(left()).toEqual([]);
  });
});

test("a prediction without a result offers its results, and stakes go back when it is cancelled", () => {
  const view = (phase: string) => ({
    phase,
    title: "Will it crack?",
    people: 2,
    outcomes: [
      { label: "Yes", stakes: 40 },
      { label: "No", stakes: 2 },
    ],
  });
  const left = (phase: string) => frontOf("prediction")?.unfinished?.(view(phase)) ?? [];
  expect(left("open").map((u) => [u.words, u.ways.map((w) => w.label)])).toEqual([
    ["“Will it crack?” has no result yet: 2 viewers took part, and 42 points are staked.", ["Lock it", "Cancel it, stakes go back"]],
  ]);
  expect(left("locked")[0]?.ways.map((w) => w.label)).toEqual(["It came to A: Yes", "It came to B: No", "Cancel it, stakes go back"]);
  for (const phase of ["", "paying", "done", "cancelled"]) expect(left(phase)).toEqual([]);
});
