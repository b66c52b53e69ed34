import { describe, expect, test } from "@jest/globals";
import { arrivals, type EveningParts, peopleFor } from "./arrivals";
import { type EveningRates, eveningRatesSchema, ratesOfRoom, thinned } from "./rates";
import { roomNames } from "./crowd";

const parts: EveningParts = {
  people: peopleFor([{ id: "ada", name: "ada", roles: ["member"] }], 30),
  emotes: ["wobblePot"],
  lines: ["hello"],
  rewards: ["bell", "roar"],
  homeCurrency: "EUR",
};
const rates = (part: Partial<EveningRates> = {}): EveningRates => ({ ...ratesOfRoom("usual", 1), ...part });
const all = (seed: number, given = rates(), with_ = parts) => [...arrivals(seed, given, with_)];

test("the same seed sends the same, another another", () => {
  expect(all(3)).toEqual(all(3));
  expect(all(3)).not.toEqual(all(4));
});

test("each kind comes as often as its rate says, within what chance allows, in order, and never after the end", () => {
  const hours = 6;
  const sent = all(11, rates({ hours, perHour: { ...rates().perHour, message: 400, tip: 50, host: 0 }, buys: 100 }));
  const count = (kind: string): number => sent.filter((a) => a.signal.kind === kind).length;
  // A Poisson count of n lies within four times its root.
  for (const [kind, n] of [
    ["message", 2_400],
    ["tip", 300],
    ["purchase-request", 600],
  ] as const)
    expect(Math.abs(count(kind) - n)).toBeLessThan(4 * Math.sqrt(n));
  expect(count("host")).toBe(0);
  expect(sent.every((a, i) => i === 0 || a.afterMs >= (sent[i - 1]?.afterMs ?? 0))).toBe(true);
  expect(sent.at(-1)?.afterMs ?? Infinity).toBeLessThan(hours * 3_600_000);
});

describe("what is sent", () => {
  test("sizes are those that came, each as often as it came", () => {
    const tips = all(
      5,
      rates({ hours: 10, perHour: { ...rates().perHour, message: 0, tip: 100 }, sizes: { tip: [100, 100, 100, 900] } }),
    ).flatMap((a) => (a.signal.kind === "tip" ? [a.signal.homeMinor] : []));
    expect(new Set(tips)).toEqual(new Set([100, 900]));
    const large = tips.filter((t) => t === 900).length / tips.length;
    expect(large).toBeGreaterThan(0.19);
    expect(large).toBeLessThan(0.31);
  });
  test("as many messages carry an emote as did", () => {
    const said = all(6, rates({ emotes: 0.25, perHour: { ...rates().perHour, message: 4_000 } })).flatMap((a) =>
      a.signal.kind === "message" ? [a.signal.text] : [],
    );
    const share = said.filter((t) => t.includes("wobblePot")).length / said.length;
    expect(Math.abs(share - 0.25)).toBeLessThan(0.03);
  });
  test("only what is sold is bought; where nothing that was bought is sold any more, anything is", () => {
    const bought = (given: readonly string[], rewards = parts.rewards) =>
      new Set(
        all(7, rates({ buys: 400, bought: [...given] }), { ...parts, rewards }).flatMap((a) =>
          a.signal.kind === "purchase-request" ? [a.signal.rewardId] : [],
        ),
      );
    expect(bought(["bell", "gone"])).toEqual(new Set(["bell"]));
    expect(bought(["gone"])).toEqual(new Set(["bell", "roar"]));
    expect(bought(["bell"], [])).toEqual(new Set());
  });
  test("some say much and most say little", () => {
    const by = new Map<string, number>();
    for (const { signal } of all(8))
      if ("viewer" in signal && signal.viewer !== null) by.set(signal.viewer.id, (by.get(signal.viewer.id) ?? 0) + 1);
    const counts = [...by.values()].sort((a, b) => b - a);
    expect((counts[0] ?? 0) / (counts.at(-1) ?? 1)).toBeGreaterThan(4);
  });
});

test("nobody there, or nothing to send: an empty evening, not one without end", () => {
  expect(all(1, rates(), { ...parts, people: [] })).toEqual([]);
  const none = Object.fromEntries(Object.keys(rates().perHour).map((k) => [k, 0])) as EveningRates["perHour"];
  expect(all(1, rates({ perHour: none, buys: 0 }))).toEqual([]);
});

test("those who are known come first, and nobody twice", () => {
  const people = peopleFor([{ id: "lab-1", name: "a clever name", roles: ["viewer"] }], 4);
  expect(people.map((p) => p.id)).toEqual(["lab-1", "lab-2", "lab-3", "lab-4"]);
  expect(peopleFor(people, 2)).toHaveLength(2);
});

test.each(roomNames)("a ready-made evening (%s) is one that may be asked about", (room) => {
  expect(eveningRatesSchema.safeParse(ratesOfRoom(room, 3)).success).toBe(true);
});

test("a long list is thinned evenly", () => {
  expect(thinned([1, 2, 3], 5)).toEqual([1, 2, 3]);
  expect(thinned([0, 1, 2, 3, 4, 5, 6, 7], 4)).toEqual([0, 2, 4, 6]);
});
