import { describe, expect, test } from "@jest/globals";
import { prediction } from "./definition";
import { evening, settingsOf } from "./evening";

describe("taking part", () => {
  test("by the chat word, a letter or a name, and an amount, in either order; adding to it goes on", () => {
    const e = evening({ answers: "all" });
    expect(e.say("ada", "!back A 100").codes).toEqual(["prediction/not-open"]);
    expect(e.open().says[0]).toBe(
      "Will it survive the firing? A It survives, B It cracks. Write !back, a letter and how much: !back A 100 (points). It closes in 120 s.",
    );
    expect(e.say("ada", "!BACK a 100").words).toEqual(["100 on A It survives"]);
    expect(e.say("ada", "!back 50").words).toEqual(["150 on A It survives"]);
    expect(e.say("bo", "!back it cracks 70").words).toEqual(["70 on B It cracks"]);
    expect(e.say("cy", "!back 30 b").words).toEqual(["30 on B It cracks"]);
    expect(e.say("di", "!back B all").words).toEqual(["1,000 on B It cracks"]);
    expect(e.say("ed", "!back B half").words).toEqual(["500 on B It cracks"]);
    expect([e.balance("ada"), e.balance("di"), e.balance("ed")]).toEqual([850, 0, 500]);
    expect(e.at().round).toMatchObject({
      people: 5,
      totals: [
        { stakes: 150, people: 1 },
        { stakes: 1_600, people: 4 },
      ],
    });
  });
  test("one backs one outcome, and it stands", () => {
    const e = evening();
    e.open();
    e.say("ada", "!back A 10");
    expect(e.say("ada", "!back B 10").words).toEqual(["you are with A It survives, and that stands"]);
  });
  test.each([
    ["!back A 0", "prediction/no-amount"],
    ["!back A -1", "prediction/no-amount"],
    ["!back A 1.5", "prediction/no-amount"],
    ["!back A 9007199254740992", "prediction/no-amount"],
    ["!back A", "prediction/no-amount"],
    ["!back", "prediction/which"],
    ["!back Z 10", "prediction/which"],
    ["!back it 10", "prediction/which"],
    ["!back A 1001", "prediction/too-poor"],
  ])("%s is refused with its reason, and nothing is taken", (text, code) => {
    const e = evening();
    e.open();
    expect(e.say("ada", text).codes).toEqual([code]);
    expect([e.balance("ada"), e.at().round?.people]).toEqual([1_000, 0]);
  });
  test("half of 1 is 1; of nothing there is no half", () => {
    const e = evening();
    e.open();
    e.spend("ada", 999);
    expect(e.say("ada", "!back A half").words).toEqual(["1 on A It survives"]);
    expect(e.say("ada", "!back A half").words).toEqual(["you have no points"]);
  });
  test("who runs the channel takes no part, unless they may; roles and bounds hold", () => {
    const e = evening({ least: 20, most: 100 });
    e.open();
    expect(e.say("mo", "!back A 20", 1_000, ["moderator"]).codes).toEqual(["prediction/own"]);
    expect(e.say("ada", "!back A 19").words).toEqual(["the least is 20 points"]);
    e.say("ada", "!back A 90");
    expect(e.say("ada", "!back A 11").words).toEqual(["the most is 100 points, and you have 90 on it"]);
    // Once in, one may add less than the least.
    expect(e.say("ada", "!back A 10").codes).toEqual(["prediction/backed"]);
    const free = evening({ barOwn: false, roles: ["moderator"] });
    free.open();
    expect(free.say("mo", "!back A 20", 1_000, ["moderator"]).codes).toEqual(["prediction/backed"]);
    expect(free.say("ada", "!back A 20").codes).toEqual(["prediction/role"]);
  });
  test("on the viewer page as in chat", () => {
    const e = evening();
    e.open();
    expect(e.for("ada", { do: "back", outcome: "B", amount: "25" }).codes).toEqual(["prediction/backed"]);
    expect(e.for("ada", { do: "back", outcome: "", amount: "half" }).words).toEqual(["512 on B It cracks"]);
    expect(e.command({ do: "back", outcome: "B", amount: "25" }).codes).toEqual(["prediction/no-viewer"]);
  });
  test("names that look like something else are names", () => {
    const e = evening();
    e.open();
    for (const who of ["__proto__", "constructor", "ａｄａ", "ada"]) expect(e.say(who, "!back A 5").codes).toEqual(["prediction/backed"]);
    expect(e.at().round?.people).toBe(4);
  });
});

describe("opening and closing", () => {
  const templates = [
    { id: "vase", title: "Does the tall vase stand?", outcomes: ["It stands", "It falls"], openMs: 60_000 },
    { id: "lid", title: "Does the lid fit?", outcomes: ["At once", "After a shave", "Never"], openMs: 30_000 },
  ];
  test("from a template by how its name begins, from a question as somebody types it, and from the booth", () => {
    const e = evening({ templates });
    expect(e.command({ do: "open", template: "does the lid" }).codes).toEqual(["prediction/opened"]);
    expect(e.at().round).toMatchObject({ title: "Does the lid fit?", outcomes: ["At once", "After a shave", "Never"], locksMs: 31_000 });
    expect(e.open().codes).toEqual(["prediction/open-already"]);
    e.command({ do: "cancel" });
    e.settle();
    // Two begin so: nobody guesses which is meant.
    expect(e.command({ do: "open", template: "does the" }).codes).toEqual(["prediction/no-template"]);
    e.command({ do: "open", template: "Will it hold? It holds; It leaks" });
    expect(e.at().round).toMatchObject({ title: "Will it hold?", outcomes: ["It holds", "It leaks"] });
    e.command({ do: "cancel" });
    e.settle();
    expect(e.command({ do: "ask", title: "Now?", outcomes: ["Yes", "yes "], openMs: 60_000 }).codes).toEqual(["prediction/no-template"]);
    expect(e.command({ do: "ask", title: "Now?", outcomes: ["Yes", "No"], openMs: 60_000 }).codes).toEqual(["prediction/opened"]);
  });
  test("it locks at its time even if the server was down then; late stakes are told how late they are", () => {
    const e = evening({ openMs: 60_000 });
    e.open(1_000);
    e.say("ada", "!back A 10", 60_999);
    // The timer has not come yet: its time counts all the same.
    expect(e.say("bo", "!back A 10", 61_000).codes).toEqual(["prediction/late"]);
    expect(e.due()).toBe(61_000);
    expect(e.timer(900_000).told).toEqual(["prediction/locked"]);
    expect(e.at().round?.lockedMs).toBe(61_000);
    expect(e.say("bo", "!back A 10", 64_000).words).toEqual(["it was locked 3 s before your message"]);
    expect(e.say("bo", "!back A 10", 200_000).codes).toEqual(["prediction/not-open"]);
  });
  test("a minute longer; two who lock at once lock once", () => {
    const e = evening({ openMs: 60_000 });
    e.open(1_000);
    e.command({ do: "longer" }, 30_000);
    expect(e.at().round?.locksMs).toBe(121_000);
    expect(e.command({ do: "lock" }, 40_000).codes).toEqual(["prediction/locked"]);
    expect(e.command({ do: "lock" }, 40_000).codes).toEqual(["prediction/locked-already"]);
    expect(e.command({ do: "longer" }, 40_000).codes).toEqual(["prediction/locked-already"]);
  });
  test("the result is asked for when it is late", () => {
    const e = evening({ dueMs: 60_000 });
    e.open();
    e.command({ do: "lock" }, 10_000);
    expect([e.due(), e.at().round?.late]).toEqual([70_000, false]);
    e.timer(70_000);
    expect([e.due(), e.at().round?.late]).toEqual([null, true]);
    const [ask] = prediction.asks?.(prediction.view(settingsOf(), e.at(), "operator")) ?? [];
    expect(ask?.words).toBe("Will it survive the firing? The result is due: say what came, or cancel it.");
    e.command(ask!.main.command, 80_000);
    expect([e.due(), e.at().round?.late]).toEqual([140_000, false]);
  });
  test("switched off nothing is opened, and nobody takes part", () => {
    const e = evening();
    e.open();
    e.command({ do: "switch", on: false });
    expect(e.say("ada", "!back A 5").codes).toEqual(["prediction/off"]);
    expect(e.command({ do: "switch", on: false }).codes).toEqual(["prediction/already-off"]);
  });
});

describe("a poll", () => {
  test("has one vote each and no points; who is right again and again has a streak, who is wrong begins anew", () => {
    const e = evening({ stakes: false });
    const round = (votes: readonly (readonly [string, string])[], result: string): void => {
      e.open();
      for (const [who, letter] of votes) e.say(who, `!back ${letter}`);
      e.command({ do: "lock" });
      e.result(result);
      e.settle();
    };
    round(
      [
        ["ada", "A"],
        ["bo", "B"],
      ],
      "A",
    );
    round(
      [
        ["ada", "A"],
        ["bo", "A"],
      ],
      "A",
    );
    expect(e.at().streaks.toObject()).toEqual({ "v:ada": 2, "v:bo": 1 });
    // Who takes no part keeps theirs.
    round([["ada", "B"]], "A");
    expect(e.at().streaks.toObject()).toEqual({ "v:bo": 1 });
    expect(e.entries).toEqual([]);
    e.open();
    e.say("ada", "!back A");
    expect(e.say("ada", "!back A").words).toEqual(["you have voted, and that stands"]);
  });
});

describe("the platform’s own", () => {
  const told = (part: object) => ({
    kind: "forecast",
    viewer: null,
    forecast: "p1",
    title: "Tall or wide?",
    state: "open",
    outcomes: [
      { label: "Tall", stakes: 30, people: 3 },
      { label: "Wide", stakes: 70, people: 2 },
    ],
    result: null,
    locksMs: 90_000,
    ...part,
  });
  test("is shown as it is told, and what comes late brings nothing back", () => {
    const e = evening();
    expect(e.signal(told({}), 1_000).words).toEqual(["the platform’s “Tall or wide?” is open"]);
    // Stakes that grow are seen, and not worth a word each.
    expect(
      e.signal(
        told({
          outcomes: [
            { label: "Tall", stakes: 90, people: 4 },
            { label: "Wide", stakes: 70, people: 2 },
          ],
        }),
        2_000,
      ).words,
    ).toEqual([]);
    e.signal(told({ state: "done", result: 1 }), 3_000);
    e.signal(told({ state: "locked" }), 4_000);
    expect(e.at().foreign).toMatchObject({ state: "done", result: 1, endedMs: 3_000 });
    e.signal(told({ forecast: "p2" }), 5_000);
    expect(e.at().foreign).toMatchObject({ id: "p2", state: "open" });
  });
});
