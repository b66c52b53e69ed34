import { unitAt } from "../../kernel/chance";
import { type Arc, type Segment, turn, type WheelDurable, type WheelSettings } from "./settings";

/** Thinner than this no part of the rim is, so that the rarest can be seen: millionths of a turn. */
const thinnest = 800;

/** How often each was drawn since the wheel was reset. */
export const timesDrawn = (durable: WheelDurable): ReadonlyMap<string, number> => new Map(durable.drawn);

/** Segments that are on the wheel: neither drawn for good nor out of stock. Places in the settings' list. */
export function inPlay(settings: WheelSettings, durable: WheelDurable): readonly number[] {
  const drawn = timesDrawn(durable);
  return settings.segments.flatMap(({ id, stock }, i) => {
    const times = drawn.get(id) ?? 0;
    return (settings.leaves && times > 0) || (stock > 0 && times >= stock) ? [] : [i];
  });
}

/** Of those, which may come next: not the one that came last where it may not come twice running and another is left. */
export function mayCome(settings: WheelSettings, durable: WheelDurable): readonly Segment[] {
  const here = inPlay(settings, durable).flatMap((i) => settings.segments[i] ?? []);
  return settings.again || here.length < 2 ? here : here.filter((s) => s.id !== durable.last);
}

/**
 * The rim, clockwise from the wheel's own top, in millionths of a turn without a gap. A segment that stands there
 * several times has its angle shared among its places, which are spread around.
 */
export function arcsOf(settings: WheelSettings, durable: WheelDurable): readonly Arc[] {
  const slots = inPlay(settings, durable)
    .flatMap((segment) => {
      const { times, weight } = settings.segments[segment] ?? { times: 1, weight: 1 };
      const share = settings.angles === "weight" ? weight / times : 1;
      return Array.from({ length: times }, (_, k) => ({ segment, at: (k + 0.5) / times, share }));
    })
    .sort((a, b) => a.at - b.at || a.segment - b.segment);
  const all = slots.reduce((sum, s) => sum + s.share, 0);
  const least = Math.min(thinnest, turn / (2 * Math.max(1, slots.length)));
  const room = turn - least * slots.length;
  let sum = 0;
  let from = 0;
  return slots.map(({ segment, share }, i) => {
    sum += share;
    const to = i === slots.length - 1 ? turn : Math.round(least * (i + 1) + (room * sum) / all);
    const arc = { segment, from, to };
    from = to;
    return arc;
  });
}

/**
 * How far the wheel is turned when it rests with the pointer in one of the segment's places: within 8 and 92 % of it,
 * and often just past the peg it came over, or just short of the next.
 */
export function restAt(arcs: readonly Arc[], segment: number, pointerAt: number, seed: number): number {
  const places = arcs.filter((a) => a.segment === segment);
  const arc = places[Math.floor(unitAt(seed, 1) * places.length)];
  if (arc === undefined) return 0;
  const mood = unitAt(seed, 2);
  const u = unitAt(seed, 3);
  const within = mood < 0.4 ? 0.84 + 0.08 * u : mood < 0.6 ? 0.08 + 0.08 * u : 0.08 + 0.84 * u;
  const point = arc.from + (arc.to - arc.from) * within;
  const turned = (pointerAt / 360) * turn - point;
  return Math.floor(((turned % turn) + turn) % turn);
}

/** Which part of the rim the pointer touches when the wheel is turned so far. */
export function arcAt(arcs: readonly Arc[], turned: number, pointerAt: number): Arc | undefined {
  const point = ((((pointerAt / 360) * turn - turned) % turn) + turn) % turn;
  return arcs.find((a) => point >= a.from && point < a.to);
}
