import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { prediction } from "../../core/games/prediction/definition";
import { predictionSettingsSchema } from "../../core/games/prediction/settings";
import { raffle } from "../../core/games/raffle/definition";
import { raffleSettingsSchema } from "../../core/games/raffle/settings";
import { parseJson } from "../../core/kernel/text";
import { type Shop, testShops, viewer } from "../testing/shop";

/** Points that are put into games, on the real database: whatever goes wrong, pools and ledger agree to the point. */
let shops: Awaited<ReturnType<typeof testShops>>;
beforeAll(async () => {
  shops = await testShops("stakes");
});
afterAll(() => shops.end());
const draw = raffleSettingsSchema.parse({ ...raffle.defaults, shake: false, claimMs: 0, price: 30, most: 5 });
const asked = predictionSettingsSchema.parse({ ...prediction.defaults, least: 1, feePercent: 10 });
const opened = async (): Promise<Shop> => {
  const s = await shops.opened([], {}, [
    ["raffle", draw],
    ["prediction", asked],
  ]);
  await s.onAir();
  return s;
};
const until = async (s: Shop, done: () => boolean): Promise<void> => {
  for (let i = 0; i < 400 && !done(); i += 1) {
    await s.settled();
    await new Promise((r) => setTimeout(r, 10));
  }
  expect(done()).toBe(true);
  await s.settled();
};
const phase = (s: Shop): unknown => s.runner.standing().games.find((g) => g.kind === "prediction")?.view["phase"];
const people = (s: Shop): unknown => s.runner.standing().games.find((g) => g.kind === "raffle")?.view["people"];

describe("tickets at a price", () => {
  test("lie in the pool, over a restart too; taken out they go back, at the end the channel keeps them", async () => {
    const s = await opened();
    for (const who of ["ada", "bo", "cy"]) await s.give(who, 100);
    await s.command("raffle", { do: "open" });
    s.say("ada", "!in 2");
    s.say("bo", "!in 9");
    s.say("__proto__", "!in");
    await s.settled();
    // Three tickets are all that 100 pay for: nobody pays for fewer than they asked for unasked.
    expect([await s.balance("ada"), await s.balance("bo")]).toEqual([40, 100]);
    s.say("bo", "!in 3");
    await s.settled();
    await s.sound();
    await s.restart();
    expect(people(s)).toBe(2);
    await s.command("raffle", { do: "remove", viewer: "bo" });
    expect(await s.balance("bo")).toBe(100);
    // It dies between each two steps, and goes on where it stood.
    for (const [what, did] of [
      ["lock", "raffle/locked"],
      ["draw", "raffle/drawn"],
      ["close", "raffle/closed"],
    ] as const) {
      expect(await s.command("raffle", { do: what })).toMatchObject({ ok: true, value: [{ did }] });
      await s.restart();
    }
    await s.sound();
    expect([await s.balance("ada"), await shops.balanceOf(s.id, "pool")]).toEqual([40, 0]);
  });
  test("all go back when it is cancelled while the server dies between two parts", async () => {
    const s = await opened();
    const names = Array.from({ length: 320 }, (_, i) => `v${i}`);
    await s.command("points", {
      do: "take-in",
      key: "list-1",
      why: "for the test",
      viewers: names.map((id) => ({ id, name: id, by: 90 })),
    });
    await s.command("raffle", { do: "open" });
    for (const who of names) s.say(who, "!in 3");
    await until(s, () => people(s) === names.length);
    expect(await shops.balanceOf(s.id, "pool")).toBe(names.length * 90);
    void s.command("raffle", { do: "cancel" });
    await s.restart();
    // Whether the word was written before it died or not: said again it is done, once.
    await s.command("raffle", { do: "cancel" });
    await until(s, () => people(s) === 0);
    await s.settled();
    await s.sound();
    expect(await Promise.all(names.slice(0, 5).map((n) => s.balance(n)))).toEqual([90, 90, 90, 90, 90]);
  });
});

describe("stakes", () => {
  const staked = async (s: Shop): Promise<void> => {
    for (const who of ["ada", "bo", "cy"]) await s.give(who, 200);
    await s.command("prediction", { do: "open", template: "" });
    s.say("ada", "!back A 100");
    s.say("bo", "!back B 50");
    await s.settled();
    const act = { id: "page-act-1", game: `prediction-${s.id}`, command: { do: "back", outcome: "B", amount: "31" } };
    // On the page, twice with the same id: once.
    const both = await Promise.all([s.runner.requests.act(viewer("cy"), act), s.runner.requests.act(viewer("cy"), act)]);
    expect(both.map((r) => r.ok)).toEqual([true, true]);
    await s.command("prediction", { do: "lock" });
  };
  test("are paid to the point; a wrong result is taken back, who spent it owes and pays back out of what they earn next", async () => {
    const s = await opened();
    await staked(s);
    await s.sound();
    await s.command("prediction", { do: "result", outcome: "A" });
    await until(s, () => phase(s) === "done");
    expect([await s.balance("ada"), await s.balance("bo"), await s.balance("cy")]).toEqual([263, 150, 169]);
    await s.sound();
    // Nearly all of it is given away.
    await s.command("points", { do: "adjust", viewer: "ada", name: "ada", by: -260, why: "spent" });
    await s.command("prediction", { do: "undo" });
    await until(s, () => phase(s) === "locked");
    expect([await s.balance("ada"), await shops.balanceOf(s.id, "owed"), await shops.balanceOf(s.id, "pool")]).toEqual([0, -160, 181]);
    await s.sound();
    await s.restart();
    await s.command("prediction", { do: "result", outcome: "B" });
    await until(s, () => phase(s) === "done");
    await s.sound();
    // A follow earns 100: it pays back first.
    await s.runner.inbox.platform([{ id: "follow-1", signal: { kind: "follow", viewer: viewer("ada") } }]);
    await s.settled();
    expect([await s.balance("ada"), await shops.balanceOf(s.id, "owed")]).toEqual([0, -60]);
    await s.runner.inbox.platform([{ id: "follow-2", signal: { kind: "follow", viewer: viewer("ada") } }]);
    await s.settled();
    expect([await s.balance("ada"), await shops.balanceOf(s.id, "owed")]).toEqual([40, 0]);
    await s.sound();
  });
  test("who is muted, and who is nobody's viewer of this game, does nothing on the page", async () => {
    const s = await opened();
    await s.give("rude", 100);
    await s.command("prediction", { do: "open", template: "" });
    await s.command("show", { do: "mute", id: "rude", name: "rude", on: true });
    const game = `prediction-${s.id}`;
    const act = (id: string, command: object) => s.runner.requests.act(viewer("rude"), { id, game, command: command as never });
    expect(await act("page-rude-1", { do: "back", outcome: "A", amount: "10" })).toMatchObject({ refusal: { code: "viewer/muted" } });
    // What belongs to operators is not theirs, whatever it is called.
    for (const what of ["result", "cancel", "switch", "constructor", "__proto__"])
      expect(await act(`page-rude-${what}`, { do: what, outcome: "A", on: false })).toMatchObject({ refusal: { code: "game/cannot" } });
    expect(await s.runner.requests.act(viewer("rude"), { id: "page-rude-2", game: "points", command: { do: "adjust" } })).toMatchObject({
      refusal: { code: "game/unknown" },
    });
    expect(await s.balance("rude")).toBe(100);
  });
  test("in a rehearsal nothing is staked, and nobody's page takes part", async () => {
    const s = await opened();
    await s.give("ada", 100);
    await s.command("show", { do: "show", what: "end" });
    await s.command("show", { do: "show", what: "rehearse" });
    await s.command("prediction", { do: "open", template: "" });
    s.say("ada", "!back A 100");
    await s.settled();
    const act = { id: "page-ada-1", game: `prediction-${s.id}`, command: { do: "back", outcome: "A", amount: "1" } };
    expect(await s.runner.requests.act(viewer("ada"), act)).toMatchObject({ refusal: { code: "game/rehearsing" } });
    await s.command("prediction", { do: "lock" });
    await s.command("prediction", { do: "result", outcome: "A" });
    await until(s, () => phase(s) === "done");
    await s.command("show", { do: "show", what: "end" });
    await s.settled();
    expect([await s.balance("ada"), await shops.balanceOf(s.id, "pool"), phase(s)]).toEqual([100, 0, ""]);
    await s.sound();
  });
});

describe("strangers", () => {
  test("half letters, nothings and names of other things are texts like any other; one that can't be kept stops nobody", async () => {
    const s = await opened();
    // As the engine reads what the web process sends.
    const command = (game: string, what: object) => s.command(game, parseJson(JSON.stringify(what)) as Record<string, unknown>);
    const half = "\ud83d";
    const odd = [half, "\u0000", "__proto__", "constructor", "a\u202eb", "x".repeat(80)];
    expect(
      await command("prediction", {
        do: "ask",
        title: `Half ${half} a kiln?`,
        outcomes: [`A${half}`, "B\u0000", "__proto__"],
        openMs: 60_000,
      }),
    ).toMatchObject({
      ok: true,
    });
    for (const who of odd) {
      s.say(who.slice(0, 60), "!back C 1");
      await command("raffle", { do: "bar", viewer: who.slice(0, 64), name: who, on: true });
    }
    await s.command("raffle", { do: "open" });
    await command("raffle", { do: "add", viewers: odd.map((name) => ({ name, tickets: 1 })) });
    await s.give("ada", 100);
    s.say("ada", "!back __proto__ 40");
    s.say("ada", "!in");
    await s.settled();
    await s.sound();
    await s.restart();
    expect(await s.balance("ada")).toBe(30);
    await s.command("prediction", { do: "lock" });
    await s.command("prediction", { do: "result", outcome: "__proto__" });
    await until(s, () => phase(s) === "done");
    for (const what of ["lock", "draw", "close"]) await s.command("raffle", { do: what });
    await s.sound();
    expect(await s.balance("ada")).toBe(70);
  });
  test("a viewer who is called otherwise half-way is the same viewer", async () => {
    const s = await opened();
    await s.give("ada", 100);
    await s.command("prediction", { do: "open", template: "" });
    const line = (name: string, text: string) => ({ id: null, viewerId: "ada", name, roles: [], text, marks: [], target: "#kiln" });
    s.runner.inbox.message(line("ada", "!back A 30"));
    s.runner.inbox.message(line("Countess_Ada", "!back 20"));
    await s.settled();
    const view = s.runner.standing().games.find((g) => g.kind === "prediction")?.view;
    expect(view).toMatchObject({ people: 1, pot: 50 });
    expect((view?.["outcomes"] as { top: string[] }[])[0]?.top).toEqual(["Countess_Ada"]);
  });
});
