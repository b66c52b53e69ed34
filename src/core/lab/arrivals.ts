import { chanceFrom, pick } from "../kernel/chance";
import type { Signal } from "../signals/signal";
import type { Viewer } from "../signals/names";
import { type EveningRates, type SentKind, sentKinds } from "./rates";

/** Whom and what an evening is made of. Rewards that are not sold any more are bought by nobody. */
export type EveningParts = Readonly<{
  people: readonly Viewer[];
  emotes: readonly string[];
  lines: readonly string[];
  rewards: readonly string[];
  homeCurrency: string;
}>;
/**
 * `signal` is whole but for its place: number, time and id are 0, 0 and empty, to be written in by who plays it. It is made
 * anew each time, and whole at once, since adding to it would cost ten times what making it does.
 */
export type Arrival = Readonly<{ afterMs: number; signal: Signal & Placed }>;
export type Placed = { seq: number; atMs: number; id: string };

const usualLines = ["that rim is so even", "how long was the last firing", "lovely", "is it dry yet", "hello from the harbour", "again!"];
const kindsAndBuys = [...sentKinds, "buy"] as const;

/**
 * All that the crowd of one evening sends, in order, from its first moment to its last: each kind by itself, as often as its
 * rate says and as it falls (Poisson). The same seed sends the same.
 */
export function* arrivals(seed: number, rates: EveningRates, parts: EveningParts): Generator<Arrival, void> {
  const chance = chanceFrom(seed);
  const { people, emotes, rewards } = parts;
  const lines = parts.lines.length === 0 ? usualLines : parts.lines;
  const bought = rates.bought.filter((id) => rewards.includes(id));
  const sold = bought.length > 0 ? bought : rewards;
  const weights = kindsAndBuys.map((kind) => (kind === "buy" ? (sold.length === 0 ? 0 : rates.buys) : rates.perHour[kind]));
  const total = weights.reduce((sum, w) => sum + w, 0);
  if (!(total > 0) || people.length === 0) return;
  const untilMs = rates.hours * 3_600_000;
  const meanMs = 3_600_000 / total;
  for (let afterMs = -Math.log(1 - chance()) * meanMs; afterMs < untilMs; afterMs -= Math.log(1 - chance()) * meanMs) {
    let r = chance() * total;
    let i = 0;
    while (i < weights.length - 1 && r >= (weights[i] ?? 0)) {
      r -= weights[i] ?? 0;
      i += 1;
    }
    // Some talk much, most a little: with u², a tenth of them say a third of it.
    const u = chance();
    const viewer = people[Math.min(people.length - 1, Math.floor(u * u * people.length))] as Viewer;
    const kind = kindsAndBuys[i] ?? "message";
    if (kind === "message") {
      const line = lines[pick(chance, lines.length)] ?? "";
      const text = emotes.length > 0 && chance() < rates.emotes ? `${line} ${emotes[pick(chance, emotes.length)] ?? ""}` : line;
      yield { afterMs, signal: { kind, viewer, text, marks: [], seq: 0, atMs: 0, id: "" } };
    } else if (kind === "buy")
      yield {
        afterMs,
        // As if the page had shown the price of now: how it is meant, the rules of rewards say.
        signal: {
          kind: "purchase-request",
          viewer,
          rewardId: sold[pick(chance, sold.length)] ?? "",
          text: "for the shelf",
          shownPrice: Infinity,
          seq: 0,
          atMs: 0,
          id: "",
        },
      };
    else yield { afterMs, signal: given(kind, viewer, sizeOf(rates, kind, chance), parts.homeCurrency) };
  }
}

function sizeOf(rates: EveningRates, kind: SentKind, chance: () => number): number {
  const sizes = rates.sizes[kind] ?? [];
  return sizes.length === 0 ? 1 : Math.max(1, Math.round(sizes[pick(chance, sizes.length)] ?? 1));
}

function given(kind: Exclude<SentKind, "message">, viewer: Viewer, size: number, currency: string): Signal & Placed {
  switch (kind) {
    case "follow":
      return { kind, viewer, seq: 0, atMs: 0, id: "" };
    case "membership":
      return { kind, viewer, months: size, text: "", fromGift: "", seq: 0, atMs: 0, id: "" };
    case "gift":
      return { kind, viewer, count: size, recipients: [], seq: 0, atMs: 0, id: "" };
    case "tip":
      return { kind, viewer, amountMinor: size, currency, homeMinor: size, text: "", seq: 0, atMs: 0, id: "" };
    case "reaction":
      return { kind, viewer, reaction: "cheer", count: size, value: size, text: "", seq: 0, atMs: 0, id: "" };
    case "raid":
    case "host":
      return { kind, viewer, viewers: size, seq: 0, atMs: 0, id: "" };
  }
}

/** People for an evening: those whom the channel knows, and strangers up to as many as wrote. */
export function peopleFor(known: readonly Viewer[], chatters: number): readonly Viewer[] {
  if (known.length >= chatters) return known.slice(0, chatters);
  const taken = new Set(known.map((v) => v.id));
  const more: Viewer[] = [];
  for (let i = 1; more.length < chatters - known.length; i += 1)
    if (!taken.has(`lab-${i}`)) more.push({ id: `lab-${i}`, name: `passer-by ${i}`, roles: ["viewer"] });
  return [...known, ...more];
}
