import type { Order } from "../../module/order";
import { alertLookDefaults } from "../../alerts/alert";
import type { Card, GreetingDurable, GreetingSettings } from "./settings";

/** So many names stand on a card that several share. */
export const namesShown = 4;

export type Laned = Readonly<{ durable: GreetingDurable; orders: readonly Order[] }>;
type New = Omit<Card, "n">;
const shared = (kind: "together" | "more", name: string, names: readonly string[], count: number): New => ({
  kind,
  name,
  names: names.slice(0, namesShown),
  count,
  line: "",
  picture: "",
  sound: "",
  shows: 0,
});

/** A card to the end of the lane; beyond what may wait, the rest share one. */
export function enqueue(settings: GreetingSettings, durable: GreetingDurable, card: New, atMs: number): Laned {
  const waits = durable.now !== null || durable.waiting.length > 0 || durable.freeMs > atMs;
  if (waits && (durable.waiting.length >= settings.mostWaiting || durable.more !== null)) {
    const { names, count } = durable.more ?? { names: [], count: 0 };
    const more = { names: names.length < namesShown ? [...names, card.name] : names, count: count + Math.max(1, card.count) };
    return { durable: { ...durable, more }, orders: [] };
  }
  const made = durable.made + 1;
  return pass(settings, { ...durable, made, waiting: [...durable.waiting, { ...card, n: made }] }, atMs);
}

/** Ends what is over, and begins what may begin by now. */
export function pass(settings: GreetingSettings, given: GreetingDurable, atMs: number): Laned {
  let durable = given;
  if (durable.raid !== null && durable.raid.untilMs <= atMs) {
    const { raid } = durable;
    durable = { ...durable, raid: null };
    if (raid.count > 0) return enqueue(settings, durable, shared("together", raid.name, raid.names, raid.count), atMs);
  }
  if (durable.now !== null && durable.now.untilMs <= atMs) durable = { ...durable, now: null };
  if (durable.now !== null || durable.freeMs > atMs) return { durable, orders: [] };
  const [next, ...waiting] = durable.waiting;
  if (next !== undefined) return show(settings, { ...durable, waiting }, next, atMs);
  if (durable.more === null) return { durable, orders: [] };
  const { names, count } = durable.more;
  const made = durable.made + 1;
  return show(settings, { ...durable, made, more: null }, { ...shared("more", names[0] ?? "", names, count), n: made }, atMs);
}

function show(settings: GreetingSettings, durable: GreetingDurable, card: Card, atMs: number): Laned {
  const untilMs = atMs + settings.showMs;
  const sound = card.sound === "" ? settings.sound : card.sound;
  const id = `greeting.${card.n}.${atMs}`;
  return {
    durable: { ...durable, now: { card, untilMs }, freeMs: untilMs + settings.gapMs },
    orders:
      sound === ""
        ? []
        : [
            {
              do: "show",
              queue: "",
              alert: { id, picture: "", sound, volume: settings.volume / 100, text: "", ms: settings.showMs, look: alertLookDefaults },
            },
          ],
  };
}

/** When something ends or may begin next; null when nothing is due. */
export function laneDue({ now, freeMs, waiting, more, raid }: GreetingDurable): number | null {
  const dues = [now?.untilMs, waiting.length > 0 || more !== null ? Math.max(freeMs, now?.untilMs ?? 0) : undefined, raid?.untilMs];
  return dues.reduce<number | null>((first, due) => (due !== undefined && (first === null || due < first) ? due : first), null);
}
