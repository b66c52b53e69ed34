import { z } from "zod";
import type { Person } from "./viewers";

/** What one can do on the rig's page, and the event that a platform would send for it. */
export const giveKinds = [
  "follow",
  "membership",
  "gift",
  "tip",
  "reaction",
  "raid",
  "host",
  "purchase",
  "forecast",
  "live",
  "ended",
] as const;
export const eventBody = z.object({
  kind: z.enum(giveKinds),
  /** A viewer's nick; anything else is somebody who wants to stay unknown. */
  as: z.string().max(40),
  /** Months, memberships, minor units, sherds or viewers, by kind. */
  amount: z.number().default(1),
  currency: z.string().max(3).default("EUR"),
  text: z.string().max(2_000).default(""),
  reaction: z.string().max(40).default("sherd"),
  id: z.string().max(100).optional(),
});
export type Given = z.infer<typeof eventBody>;
/** The demo platform's paid reactions: what they are called and what one is worth. */
export const reactions: Readonly<Record<string, number>> = { sherd: 1, "glazed sherd": 10, "golden sherd": 100 };

const badgeRoles: Readonly<Record<string, string>> = { streamer: "streamer", moderator: "moderator", guest: "guest", member: "member" };
export const rolesOf = (person: Person): string[] => person.badges.flatMap((b) => badgeRoles[b] ?? []);

type Viewer = Readonly<{ id: string; name: string; roles: readonly string[] }> | null;
export function eventOf({ kind, amount, currency, text, reaction }: Given, viewer: Viewer): readonly [string, unknown] {
  switch (kind) {
    case "follow":
      return ["app.izzam.follow.v1", { viewer }];
    case "membership":
      return ["app.izzam.membership.v1", { viewer, months: amount, text }];
    case "gift":
      return ["app.izzam.gift.v1", { viewer, count: amount, recipients: [] }];
    case "tip":
      return ["app.izzam.tip.v1", { viewer, amountMinor: amount, currency, text }];
    case "reaction":
      return ["app.izzam.reaction.v1", { viewer, reaction, count: amount, valueEach: reactions[reaction] ?? 1, text }];
    case "raid":
      return ["app.izzam.raid.v1", { viewer, viewers: amount }];
    case "host":
      return ["app.izzam.host.v1", { viewer, viewers: amount }];
    case "purchase":
      return ["app.izzam.purchase.v1", { viewer, item: "bell-1", title: "Ring the bell", price: 500, text }];
    case "forecast":
      return ["app.izzam.forecast.v1", forecastAt(amount)];
    case "live":
      return ["app.izzam.live.v1", {}];
    case "ended":
      return ["app.izzam.ended.v1", {}];
  }
}

/** The demo platform's own forecast, step by step: opened, backed, locked, decided, called off. */
function forecastAt(step: number): unknown {
  const at = Math.max(1, Math.min(5, Math.round(step)));
  const backed = at === 1 ? [0, 0] : [640, 410];
  return {
    forecast: "practice-1",
    title: "Which pot comes first?",
    state: (["open", "open", "locked", "done", "cancelled"] as const)[at - 1],
    outcomes: [
      { label: "The tall one", stakes: backed[0], people: at === 1 ? 0 : 12 },
      { label: "The wide one", stakes: backed[1], people: at === 1 ? 0 : 7 },
    ],
    result: at === 4 ? 0 : null,
  };
}
