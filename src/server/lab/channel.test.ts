import { describe, expect, test } from "@jest/globals";
import { bossDefaults } from "../../core/games/boss-battle/settings";
import { raffleDefaults } from "../../core/games/raffle/settings";
import { voicesDefaults } from "../../core/games/voices/settings";
import { newSegment, wheelDefaults } from "../../core/games/wheel/settings";
import { gameId } from "../../core/kernel/ids";
import { type EveningRates, ratesOfRoom } from "../../core/lab/rates";
import { summaryOf } from "../../core/lab/statistics";
import type { LabInput } from "../../core/module/lab";
import { moduleOf } from "../../core/modules";
import { pointsDefaults } from "../../core/points/settings";
import { newReward } from "../../core/rewards/settings";
import { newRule, rulebookDefaults } from "../../core/rules/settings";
import { freshShow, showDefaults } from "../../core/show/settings";
import type { GameRow, LedgerRows } from "../ports/engine-store";
import { testChannel } from "../testing/channel";
import { LabChannel } from "./channel";

const fromMs = Date.UTC(2026, 10, 28, 19);
const noRows: LedgerRows = { accounts: [], sold: [], soldInShow: [], last: [], prices: [], sales: [] };
const game = (id: string, kind: string, settings: unknown): GameRow => ({
  id: gameId(id),
  kind,
  name: id,
  version: 1,
  settings,
  durable: null,
});
const lab = (games: readonly GameRow[], rows: LedgerRows = noRows): LabChannel => new LabChannel(testChannel({ games }), rows, fromMs);
function questionOf(kind: string, id: string) {
  const found = moduleOf(kind)?.lab?.find((q) => q.id === id);
  if (found === undefined) throw new Error("no such question");
  return found;
}
/** Only follows, so many an hour, for so many hours. */
const follows = (perHour: number, hours: number): EveningRates => ({
  hours,
  chatters: 20,
  perHour: { message: 0, follow: perHour, membership: 0, gift: 0, tip: 0, reaction: 0, raid: 0, host: 0 },
  emotes: 0,
  sizes: {},
  buys: 0,
  bought: [],
});
function ask(
  at: LabChannel,
  module: string,
  question: ReturnType<typeof questionOf>,
  n: number,
  input: LabInput,
  rates: EveningRates | null = null,
  settings?: unknown,
) {
  const more = settings === undefined ? {} : { settings };
  return Array.from({ length: n }, (_, seed) => at.evening({ module, question, input, seed, rates, ...more }));
}
const valuesOf = (evenings: readonly Readonly<{ value: number | null }>[]): (number | null)[] => evenings.map((e) => e.value);

describe("how long a boss stands", () => {
  const jug = game("jug", "boss-battle", { ...bossDefaults, health: 200 });
  const stands = questionOf("boss-battle", "stands");
  test("twenty follows of ten each, thirty an hour: forty minutes, as an Erlang distribution has it", () => {
    const { p50, p5, p95, never } = summaryOf(valuesOf(ask(lab([jug]), "jug", stands, 300, {}, follows(30, 3))));
    // The sum of 20 waits of two minutes: median 39.3, 5th 26.5, 95th 55.8 min.
    expect(p50).toBeGreaterThan(37.5);
    expect(p50).toBeLessThan(41.5);
    expect(Math.abs((p5 ?? 0) - 26.5)).toBeLessThan(2);
    expect(Math.abs((p95 ?? 0) - 55.8)).toBeLessThan(3);
    expect(never).toBe(0);
  });
  test("it outlives an evening that is too short for it", () => {
    expect(valuesOf(ask(lab([jug]), "jug", stands, 20, {}, follows(30, 0.1)))).toEqual(Array(20).fill(null));
  });
  test("the same, if its health were half: on the same evenings it always falls sooner", () => {
    const at = lab([jug]);
    const whole = valuesOf(ask(at, "jug", stands, 100, {}, follows(30, 6)));
    const half = valuesOf(ask(at, "jug", stands, 100, {}, follows(30, 6), { ...bossDefaults, health: 100 }));
    for (const [i, v] of whole.entries()) expect(half[i] ?? 0).toBeLessThan(v ?? 0);
  });
  test("the same seed is the same evening, whatever was played before", () => {
    const at = lab([jug]);
    const first = valuesOf(ask(at, "jug", stands, 5, {}, follows(30, 3)));
    ask(at, "jug", stands, 40, {}, ratesOfRoom("busy", 0.2));
    expect(valuesOf(ask(at, "jug", stands, 5, {}, follows(30, 3)))).toEqual(first);
  });
  test("rules that strike it play along; those that can’t reach it do not", () => {
    const rules = (target: string) =>
      game("rules", "rules", {
        ...rulebookDefaults,
        rules: [
          {
            ...newRule("blow", "follow"),
            tiers: [{ at: "least", amount: 0, effects: [{ do: "act", game: target, act: "damage", input: { amount: 1_000 }, per: 1 }] }],
          },
        ],
      });
    const [struck] = valuesOf(ask(lab([jug, rules("jug")]), "jug", stands, 1, {}, follows(30, 3)));
    const [plain] = valuesOf(ask(lab([jug]), "jug", stands, 1, {}, follows(30, 3)));
    expect(struck).toBeLessThan((plain ?? 0) / 4);
    expect(valuesOf(ask(lab([jug, rules("urn"), game("urn", "boss-battle", bossDefaults)]), "jug", stands, 1, {}, follows(30, 3)))).toEqual(
      [plain],
    );
  });
  test("who is muted does nothing, as on air", () => {
    const muted = Array.from({ length: 20 }, (_, i) => ({ id: `lab-${i + 1}`, name: `n${i}`, by: "", atMs: 1 }));
    const show = { ...game("show", "show", showDefaults), durable: { ...freshShow(), muted }, stateVersion: 2 };
    const named = game("points", "points", { ...pointsDefaults, name: "jug" });
    const at = lab([
      jug,
      {
        ...show,
        settings: { ...showDefaults, commands: [{ id: "a", word: "!a", does: "act", game: "jug", act: "damage", roles: ["streamer"] }] },
      },
      named,
    ]);
    expect(valuesOf(ask(at, "jug", stands, 3, {}, follows(60, 2)))).toEqual([null, null, null]);
  });
});

describe("a wheel", () => {
  const two = { ...wheelDefaults, spinMs: 3_000, segments: [{ ...newSegment("a", "Ash", 0), weight: 9 }, newSegment("b", "Gold", 1)] };
  test("one in ten is drawn five times in fifty", () => {
    const drawn = questionOf("wheel", "drawn");
    const values = valuesOf(ask(lab([game("glaze", "wheel", two)]), "glaze", drawn, 80, { segment: "Gold", spins: 50 }));
    const mean = values.reduce<number>((sum, v) => sum + (v ?? 0), 0) / values.length;
    // The mean of 80 binomials of 50 and a tenth: 5 ± 0.24.
    expect(mean).toBeGreaterThan(4.2);
    expect(mean).toBeLessThan(5.8);
    expect(Math.max(...values.map(Number))).toBeGreaterThan(7);
    expect(valuesOf(ask(lab([game("glaze", "wheel", two)]), "glaze", drawn, 3, { segment: "", spins: 50 }))).toEqual(values.slice(0, 3));
  });
});

describe("a draw", () => {
  const one = { ...raffleDefaults, shake: false, claimMs: 0, winners: 1 };
  test("with as many draws as entrants, a good third never win", () => {
    const evenings = ask(lab([game("mug", "raffle", one)]), "mug", questionOf("raffle", "winners"), 8, {
      entrants: 20,
      rounds: 20,
      many: 0,
      tickets: 1,
    });
    const values = valuesOf(evenings).map(Number);
    const mean = values.reduce((sum, v) => sum + v, 0) / values.length;
    // 20 · (1 − (19/20)^20) = 12.8
    expect(mean).toBeGreaterThan(11);
    expect(mean).toBeLessThan(14.6);
  });
  test("who holds all but a few tickets wins nearly alone", () => {
    const input = { entrants: 10, rounds: 10, many: 1, tickets: 1_000 };
    const values = valuesOf(
      ask(lab([game("mug", "raffle", { ...one, most: 1_000 })]), "mug", questionOf("raffle", "winners"), 5, input),
    ).map(Number);
    expect(Math.max(...values)).toBeLessThanOrEqual(2);
  });
});

test("the longest queue of voices grows with what is asked", () => {
  const at = lab([game("voices", "voices", { ...voicesDefaults, ownRestMs: 0, mostWaiting: 50 })]);
  const queue = (asks: number): number =>
    summaryOf(valuesOf(ask(at, "voices", questionOf("voices", "queue"), 5, { asks, letters: 100, hours: 1 }))).p50 ?? -1;
  expect(queue(10)).toBeLessThanOrEqual(2);
  expect(queue(900)).toBe(50);
});

describe("points", () => {
  const rich = (n: number): LedgerRows => ({
    ...noRows,
    accounts: Array.from({ length: n }, (_, i) => ({ account: `v:p${i}`, name: `potter ${i}`, balance: 1_000_000, day: 0, earned: 0 })),
  });
  const moving = {
    ...newReward("roar", "Kiln roar", 100),
    effects: [{ do: "say" as const, text: "roar" }],
    moving: { ceiling: 400, raiseBp: 1_000, halfLifeMs: 600_000 },
  };
  const games = [
    game("points", "points", { ...pointsDefaults, presence: { ...pointsDefaults.presence, points: 0 } }),
    game("rewards", "rewards", { schema: 3, rewards: [moving] }),
    game("show", "show", showDefaults),
  ];
  test("what is bought is taken, to the point", () => {
    const at = lab(
      games.map((g) =>
        g.id === "rewards"
          ? { ...g, settings: { schema: 3, rewards: [{ ...newReward("roar", "Kiln roar", 100), effects: [{ do: "say", text: "roar" }] }] } }
          : g,
      ),
      rich(20),
    );
    const rates = { ...follows(0, 1), buys: 30 };
    const [one] = ask(at, "points", questionOf("points", "flow"), 1, { what: "take" }, rates);
    expect(one?.signals).toBeGreaterThan(10);
    expect(one?.value).toBe((one?.signals ?? 0) * 100);
    // Nothing of it stays: the next evening meets the same accounts.
    expect(valuesOf(ask(at, "points", questionOf("points", "flow"), 1, { what: "take" }, rates))).toEqual([one?.value]);
  });
  test("a price moves up to its ceiling where many want it, and stays where nobody does", () => {
    const at = lab(games, rich(20));
    const price = (buys: number): number | null =>
      valuesOf(ask(at, "rewards", questionOf("rewards", "price"), 1, { reward: "Kiln roar", when: "most", buys }, follows(0, 1)))[0] ??
      null;
    expect(price(600)).toBe(400);
    expect(price(1)).toBeLessThan(130);
  });
});

test("who is asked about is not there: it is said", () => {
  expect(() => ask(lab([]), "gone", questionOf("wheel", "drawn"), 1, {})).toThrow("not there");
});
