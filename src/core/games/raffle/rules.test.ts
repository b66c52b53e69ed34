import { describe, expect, test } from "@jest/globals";
import { checkProof } from "../../chance/check";
import { returnedAtOnce } from "./entrants";
import { evening, proofIn, settingsOf } from "./evening";

describe("entering", () => {
  test("by the chat word, so many tickets and no more; each is answered in words", () => {
    const e = evening(settingsOf({ most: 5 }));
    expect(e.say("ada", "!in").words).toEqual(["nothing is open to enter"]);
    expect(e.command({ do: "open" }).says[0]).toMatch(
      /^Last week’s mug is open: write !in and how many, up to 5 tickets\. Promised by [0-9a-f]{20}\.$/,
    );
    expect(e.say("ada", "!in").words).toEqual(["ticket 1 of 5"]);
    expect(e.say("ada", "!IN 3").words).toEqual(["ticket 4 of 5"]);
    expect(e.say("ada", "!in 9").words).toEqual(["ticket 5 of 5"]);
    expect(e.say("ada", "!in").words).toEqual(["you hold all 5 tickets"]);
    for (const text of ["!in 0", "!in -1", "!in 5000"]) expect(e.say("bo", text).codes).toEqual(["raffle/how-many"]);
    expect(e.say("bo", "i am in").codes).toEqual([]);
    expect(e.at().round).toMatchObject({ people: 1, tickets: 5 });
  });
  test("what somebody writes after the lock is told how late it was, for a minute", () => {
    const e = evening(settingsOf());
    e.command({ do: "open" });
    e.say("ada", "!in", 5_000);
    // At the very instant of the lock the order of arrival decides.
    expect(e.say("bo", "!in", 6_000).codes).toEqual(["raffle/entered"]);
    e.command({ do: "lock" }, 6_000);
    expect(e.say("cy", "!in", 6_000).codes).toEqual(["raffle/late"]);
    expect(e.say("cy", "!in", 9_000).words).toEqual(["it was locked 3 s before your message"]);
    expect(e.say("cy", "!in", 90_000).words).toEqual(["nothing is open to enter"]);
    expect(e.at().round?.people).toBe(2);
  });
  test("who may not: by role, barred, won lately, not there lately", () => {
    const e = evening(settingsOf({ roles: ["member"], barred: ["troll"], chattedMin: 5, restShows: 2 }));
    e.live();
    e.command({ do: "open" }, 1_000_000);
    expect(e.say("ada", "!in", 1_000_000).codes).toEqual(["raffle/role"]);
    expect(e.say("troll", "!in", 1_000_000, ["member"]).codes).toEqual(["raffle/barred"]);
    expect(e.say("bo", "!in", 1_000_000, ["member"]).words).toEqual(["only who wrote within the last 5 minutes can enter"]);
    expect(e.say("bo", "!in", 1_060_000, ["member"]).codes).toEqual(["raffle/entered"]);
    for (const act of ["lock", "draw", "close", "open"]) e.command({ do: act }, 1_100_000);
    expect(e.say("bo", "!in", 1_101_000, ["member"]).words).toEqual(["you won lately: again in 2 shows"]);
  });
  test("tickets cost points, which are held until the end and go back to who is taken out", () => {
    const e = evening(settingsOf({ price: 300, most: 10 }));
    e.command({ do: "open" });
    expect(e.say("ada", "!in all").words).toEqual(["ticket 3 of 10"]);
    expect(e.balance("ada")).toBe(100);
    expect(e.say("ada", "!in").words).toEqual(["that costs 300 points, and you have 100"]);
    expect(e.command({ do: "remove", viewer: "ada" }).words).toEqual(["ada was taken out; 900 went back"]);
    expect(e.balance("ada")).toBe(1_000);
    // In and out again: nothing is paid twice, and no key stands twice.
    e.say("ada", "!in 2");
    e.command({ do: "remove", viewer: "ada" });
    expect(e.balance("ada")).toBe(1_000);
    expect(new Set(e.entries.map((x) => x.key)).size).toBe(e.entries.length);
  });
  test("names that look like something else are names", () => {
    const e = evening(settingsOf());
    e.command({ do: "open" });
    for (const who of ["__proto__", "constructor", "ａｄａ", "ada"]) expect(e.say(who, "!in").codes).toEqual(["raffle/entered"]);
    expect(e.at().round?.people).toBe(4);
    for (const act of ["lock", "draw", "close"]) e.command({ do: act });
    expect(checkProof(JSON.parse(JSON.stringify(proofIn(e.rows)))).holds).toBe(true);
  });
  test("a list by hand costs nothing, and nobody gets more than they may have", () => {
    const e = evening(settingsOf({ most: 3, price: 50, barred: ["troll"] }));
    e.command({ do: "open" });
    const viewers = [
      { id: "ada", name: "Ada", tickets: 9 },
      { id: "troll", name: "Troll", tickets: 1 },
      { id: "ada", name: "Ada", tickets: 1 },
    ];
    expect(e.command({ do: "add", viewers }).words).toEqual(["1 viewer was added; 2 left out"]);
    expect([e.at().round?.tickets, e.balance("ada")]).toEqual([3, 1_000]);
  });
});

describe("points", () => {
  test("closing spends what was held; cancelling gives all of it back, part by part, whatever fails between", () => {
    const e = evening(settingsOf({ price: 100, most: 2 }));
    e.command({ do: "open" });
    const people = Array.from({ length: returnedAtOnce + 20 }, (_, i) => `v${i}`);
    for (const who of people) e.say(who, "!in 2");
    expect(e.at().round?.held).toBe(people.length * 200);
    e.command({ do: "cancel" });
    expect(e.command({ do: "draw" }).codes).toEqual(["raffle/none"]);
    let parts = 0;
    while (e.due() === 0) {
      e.timer(5_000);
      parts += 1;
    }
    expect(parts).toBe(2);
    expect(people.map(e.balance).every((b) => b === 1_000)).toBe(true);
    expect(e.rows.at(-1)).toMatchObject({ kind: "abandoned", body: { why: "cancelled" } });
    expect(e.at().round).toBeNull();
  });
  test("a cancelled one is kept with what its operator is here, and never by which name they sign in", () => {
    const e = evening(settingsOf({}));
    e.command({ do: "open" });
    e.say("ada", "!in");
    e.asHouse({ do: "cancel" }, "moderator");
    e.timer(2_000);
    const row = e.rows.find((r) => r.kind === "abandoned");
    expect(row?.body).toMatchObject({ gaveUp: { role: "moderator", people: 1 } });
    expect(JSON.stringify(row?.body)).not.toContain("kilnkeeper");
  });
  test("after a first winner it can’t be cancelled, whatever is pressed; it is closed with its whole proof", () => {
    const e = evening(settingsOf({ price: 100 }));
    for (const who of ["open", "lock"]) {
      e.command({ do: who });
      if (who === "open") for (const name of ["ada", "bo", "cy"]) e.say(name, "!in");
    }
    e.command({ do: "draw" });
    expect(e.command({ do: "cancel" }).codes).toEqual(["raffle/drawn-already"]);
    expect(e.at().round?.phase).toBe("locked");
    e.command({ do: "close" });
    const round = e.rows.at(-1);
    expect([round?.kind, checkProof(JSON.parse(JSON.stringify(proofIn(e.rows)))).holds]).toEqual(["round", true]);
    // There was nothing to try again.
    e.command({ do: "open" });
    expect(e.at().round?.tries).toBe(1);
  });
  test("rounds that are opened and cancelled in a row are counted, and each tells how it stood; a day later it begins anew", () => {
    const e = evening(settingsOf({}));
    const giveUp = (locked: boolean): void => {
      e.command({ do: "open" });
      e.say("ada", "!in");
      if (locked) e.command({ do: "lock" });
      e.command({ do: "cancel" });
      while (e.due() === 0) e.timer(5_000);
    };
    giveUp(false);
    giveUp(true);
    const given = e.rows.filter((r) => r.kind === "abandoned").map((r) => r.body as Record<string, unknown>);
    expect(given).toMatchObject([
      { tries: 1, gaveUp: { phase: "open", people: 1 } },
      { tries: 2, gaveUp: { phase: "locked", people: 1 } },
    ]);
    const dayMs = 86_400_000;
    e.command({ do: "open" }, dayMs);
    expect(e.at().round?.tries).toBe(3);
    e.command({ do: "lock" }, dayMs);
    e.command({ do: "close" }, dayMs);
    e.command({ do: "open" }, dayMs + 2_000);
    expect(e.at().round?.tries).toBe(1);
  });
  test("a round that is cleared goes on, empty, and can be entered again", () => {
    const e = evening(settingsOf({ price: 100 }));
    e.command({ do: "open" });
    e.say("ada", "!in");
    e.command({ do: "clear" });
    expect(e.say("bo", "!in").codes).toEqual(["raffle/clearing"]);
    e.timer(2_000);
    expect([e.balance("ada"), e.at().round?.people, e.due()]).toEqual([1_000, 0, null]);
    expect(e.say("ada", "!in").codes).toEqual(["raffle/entered"]);
    e.command({ do: "clear" });
    e.timer(3_000);
    expect(new Set(e.entries.map((x) => x.key)).size).toBe(e.entries.length);
  });
});

describe("other ways in", () => {
  const viewers = [
    { name: "Ada", tickets: 1 },
    { name: "Nobody yet", tickets: 2 },
  ];
  const ledgerView = {
    named: (name: string) => (name === "Ada" ? { id: "42", name: "ada" } : null),
    areSeveral: (name: string) => name === "Bee",
    top: () => [{ id: "42", name: "Ada", balance: 9 }],
  };
  test("a name that several have is asked about, before anybody of the list is in; with an id it is clear", () => {
    const e = evening(settingsOf({ most: 3 }), { ledgerView: ledgerView as never });
    e.command({ do: "open" });
    const twice = [...viewers, { name: "Bee", tickets: 1 }];
    expect(e.command({ do: "add", viewers: twice }).codes).toEqual(["viewer/several"]);
    expect(e.command({ do: "bar", name: "Bee", on: true }).codes).toEqual(["viewer/several"]);
    expect(e.at().entrants.size).toBe(0);
    expect(e.command({ do: "add", viewers: [{ id: "b7", name: "Bee", tickets: 1 }] }).words).toEqual(["1 viewer was added"]);
  });
  test("from a list by name: whoever has an account is known by it", () => {
    const e = evening(settingsOf({ most: 3 }), { ledgerView: ledgerView as never });
    e.command({ do: "open" });
    expect(e.command({ do: "add", viewers }).words).toEqual(["2 viewers were added"]);
    expect([...e.at().entrants.values()].map((x) => [x.id, x.name, x.tickets])).toEqual([
      ["42", "ada", 1],
      ["nobody yet", "Nobody yet", 2],
    ]);
    expect(e.command({ do: "add-top", count: 3, tickets: 3 }).words).toEqual(["1 viewer was added"]);
    expect(e.at().round?.tickets).toBe(5);
  });
  test("everyone who is there: who wrote, or has the page open, within the minutes", () => {
    const e = evening(settingsOf());
    e.command({ do: "open" }, 1_000);
    expect(e.command({ do: "add-present", minutes: 5, tickets: 1 }, 1_000).words).toEqual(["nobody wrote within the last 5 minutes"]);
    e.say("ada", "hello", 10_000);
    e.say("bo", "hello", 400_000);
    e.command({ do: "add-present", minutes: 5, tickets: 1 }, 400_000);
    expect([...e.at().entrants.values()].map((x) => x.id)).toEqual(["bo"]);
  });
  test("by a rule or a reward for a viewer, without a price; by the viewer page, at the price", () => {
    const e = evening(settingsOf({ price: 100, most: 5 }));
    e.command({ do: "open" });
    expect(e.for("ada", { do: "enter", tickets: 2, guess: "" }).words).toEqual(["ticket 2 of 5"]);
    expect(e.balance("ada")).toBe(1_000);
    expect(e.for("ada", { do: "join", guess: "2" }).words).toEqual(["ticket 4 of 5"]);
    expect(e.balance("ada")).toBe(800);
    expect(e.command({ do: "enter", tickets: 1, guess: "" }).codes).toEqual(["raffle/no-viewer"]);
  });
  test("the text of a reward may be the number", () => {
    const e = evening(settingsOf({ by: "number" }));
    e.command({ do: "open" });
    expect(e.for("ada", { do: "enter", tickets: 1, guess: "37" }).words).toEqual(["37 it is"]);
    expect(e.for("bo", { do: "enter", tickets: 1, guess: "three" }).codes).toEqual(["raffle/no-number"]);
  });
  test("barred by name or by hand, wherever they come from; who is in goes out with their points", () => {
    const e = evening(settingsOf({ barred: ["TROLL"], price: 10 }));
    e.command({ do: "open" });
    expect(e.say("troll", "!in").codes).toEqual(["raffle/barred"]);
    e.say("ada", "!in");
    expect(e.command({ do: "bar", viewer: "ada", name: "ada", on: true }).codes).toEqual(["raffle/was-barred", "raffle/removed"]);
    expect(e.balance("ada")).toBe(1_000);
    expect(e.say("ada", "!in").codes).toEqual(["raffle/barred"]);
    expect(e.command({ do: "add", viewers: [{ id: "ada", name: "ada", tickets: 1 }] }).codes).toEqual(["raffle/nobody-added"]);
    e.command({ do: "bar", viewer: "ada", name: "ada", on: false });
    expect(e.say("ada", "!in").codes).toEqual(["raffle/entered"]);
  });
});

describe("what chat is told", () => {
  test("one's own chance, in the draw's own words", () => {
    const e = evening(settingsOf({ most: 3, replies: { "not-in-yet": "write {word} first" } }));
    expect(() => settingsOf({ replies: { chance: "{viewer}" } })).toThrow(/names a variable/);
    e.command({ do: "open" });
    const told = (who: string) => e.say(who, "!mychance").orders?.map((o) => (o.do === "say" ? o.text : o.do));
    expect(told("ada")).toEqual(["@ada write !in first"]);
    e.say("ada", "!in 1");
    e.say("bo", "!in 3");
    expect(e.say("ada", "!mychance").words).toEqual(["your chance is 25.00 %, with 1 ticket"]);
  });
  test("who won rests for shows, or for days", () => {
    const day = 86_400_000;
    const e = evening(settingsOf({ restDays: 2 }));
    e.command({ do: "open" }, day);
    e.say("ada", "!in", day);
    for (const act of ["lock", "draw", "close", "open"]) e.command({ do: act }, day);
    expect(e.say("ada", "!in", day + 1_000).words).toEqual(["you won lately: again in 2 days"]);
    expect(e.say("ada", "!in", 3 * day).codes).toEqual(["raffle/entered"]);
  });
  test("roles count as they are at the lock, also for who got theirs after entering", () => {
    const e = evening(settingsOf({ times: [{ role: "member", times: 4 }] }));
    e.command({ do: "open" });
    e.say("ada", "!in");
    e.say("ada", "thanks for the membership", 2_000, ["member"]);
    e.command({ do: "lock" }, 3_000);
    expect(e.at().round?.tickets).toBe(4);
  });
});
