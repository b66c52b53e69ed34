import { z } from "zod";
import { type Room, rooms } from "./crowd";

/** What the crowd of an evening sends by itself; each has a rate and, but for a follow, a size. */
export const sentKinds = ["message", "follow", "membership", "gift", "tip", "reaction", "raid", "host"] as const;
export type SentKind = (typeof sentKinds)[number];
const mostSizes = 400;
const perHour = z.record(z.enum(sentKinds), z.number().min(0).max(1_000_000));

/** How an evening went, as far as a crowd like it can be made again: from a past show, or typed in. */
export const eveningRatesSchema = z.object({
  hours: z.number().min(0.05).max(24),
  /** How many different people wrote. */
  chatters: z.int().min(1).max(100_000),
  perHour,
  /** Share of messages that carry an emote of the channel, 0–1. */
  emotes: z.number().min(0).max(1),
  /** What was given each time, as it came: months, memberships, minor units of the home currency, value, viewers. */
  sizes: z.partialRecord(z.enum(sentKinds), z.array(z.number().min(0)).max(mostSizes)),
  /** Sales an hour, and which rewards were bought, one entry for each sale of those looked at. */
  buys: z.number().min(0).max(100_000),
  bought: z.array(z.string().max(26)).max(mostSizes),
});
export type EveningRates = z.infer<typeof eveningRatesSchema>;

/** Evenly spaced entries of a long list, so that early and late are both among them. */
export const thinned = <T>(list: readonly T[], most = mostSizes): T[] =>
  list.length <= most ? [...list] : Array.from({ length: most }, (_, i) => list[Math.floor((i * list.length) / most)] as T);

/** How gifts are spread where nobody knows better: as the practice crowd spreads them. */
const shares: Readonly<Record<Exclude<SentKind, "message" | "host">, number>> = {
  follow: 0.4,
  reaction: 0.18,
  tip: 0.2,
  membership: 0.14,
  gift: 0.06,
  raid: 0.02,
};
const usualSizes: EveningRates["sizes"] = {
  membership: [1, 1, 2, 3, 5, 8, 13, 24],
  gift: [1, 1, 1, 2, 5, 10],
  tip: [100, 200, 200, 300, 500, 500, 1_000, 1_500],
  reaction: [1, 5, 10, 25, 50, 100, 200],
  raid: [5, 12, 20, 40, 85],
  host: [3, 8],
};

/** An evening of one of the ready-made rooms, typed in by its length. */
export function ratesOfRoom(room: Room, hours: number): EveningRates {
  const { perSecond, emoteShare, givesPerMinute, rushesPerMinute } = rooms[room];
  const gives = givesPerMinute * 60;
  // A rush is six seconds of five times as much.
  const rushes = 1 + rushesPerMinute * 0.4;
  return {
    hours,
    chatters: Math.min(50_000, Math.max(8, Math.round(perSecond * 60))),
    perHour: {
      message: perSecond * rushes * 3_600,
      follow: gives * shares.follow,
      membership: gives * shares.membership,
      gift: gives * shares.gift,
      tip: gives * shares.tip,
      reaction: gives * shares.reaction,
      raid: gives * shares.raid,
      host: 0,
    },
    emotes: emoteShare,
    sizes: usualSizes,
    buys: perSecond * 60,
    bought: [],
  };
}
