import { z } from "zod";
import { cut, viewerId } from "../kernel/text";
import type { PlatformSignal } from "./signal";
import { roles } from "./names";

/**
 * What a platform sends, as the data of a CloudEvent (docs/protocols.md). One schema holds what is taken,
 * its JSON Schema is published under /schemas, and both are made from here.
 */
const whole = (most = Number.MAX_SAFE_INTEGER) => z.int().min(1).max(most);
const name = z.string().trim().min(1).max(60);
export const eventViewerSchema = z.object({
  /** Stays the same for one viewer, whatever they are called. */
  id: z
    .string()
    .trim()
    .min(1)
    .max(64)
    // What was no character became this sign: two such ids can't be told apart any more.
    .refine((id) => !id.includes("\uFFFD"), "holds something that is no character")
    .overwrite(viewerId)
    .min(1),
  name,
  roles: z.array(z.enum(roles)).max(roles.length).default([]),
});
/** Left out or null where the giver wants to stay unknown. */
const giver = eventViewerSchema.nullish();
const text = z.string().max(2_000).default("");

export const eventDataSchemas = {
  "app.izzam.follow.v1": z.object({ viewer: eventViewerSchema }),
  "app.izzam.membership.v1": z.object({
    viewer: eventViewerSchema,
    months: whole(2_400),
    text,
    /** Id of the gift event it came from; then it is not counted again where the gift was. */
    fromGift: z.string().max(100).default(""),
  }),
  "app.izzam.gift.v1": z.object({ viewer: giver, count: whole(1_000_000), recipients: z.array(name).max(1_000).default([]) }),
  "app.izzam.tip.v1": z.object({
    viewer: giver,
    /** Minor units, with the digits that ISO 4217 gives the currency: 500 and EUR are five euros. */
    amountMinor: whole(),
    currency: z.string().regex(/^[A-Z]{3}$/),
    text,
  }),
  "app.izzam.reaction.v1": z.object({
    viewer: giver,
    /** Which kind, as the platform calls it. */
    reaction: name,
    count: whole(1_000_000_000),
    /** What one of them is worth, in the platform's own unit. */
    valueEach: whole(1_000_000_000).default(1),
    text,
  }),
  "app.izzam.raid.v1": z.object({ viewer: eventViewerSchema, viewers: z.int().min(0).max(1_000_000_000) }),
  "app.izzam.host.v1": z.object({ viewer: eventViewerSchema, viewers: z.int().min(0).max(1_000_000_000) }),
  /** Something was bought on the platform with the platform's own points. */
  "app.izzam.purchase.v1": z.object({
    viewer: eventViewerSchema,
    /** Stays the same for one thing, whatever it is called. */
    item: z.string().trim().min(1).max(100),
    title: name,
    price: z.int().min(0).max(1_000_000_000).default(0),
    text,
  }),
  /** A forecast that viewers back on the platform itself, whenever it changes: opened, staked on, locked, decided, cancelled. */
  "app.izzam.forecast.v1": z.object({
    /** Stays the same for one forecast. */
    forecast: z.string().trim().min(1).max(100),
    title: z.string().trim().min(1).max(80),
    state: z.enum(["open", "locked", "done", "cancelled"]),
    outcomes: z
      .array(
        z.object({
          label: z.string().trim().min(1).max(40),
          stakes: z.int().min(0).max(Number.MAX_SAFE_INTEGER).default(0),
          people: z.int().min(0).max(1_000_000_000).default(0),
        }),
      )
      .min(2)
      .max(12),
    /** Which outcome came, counted from 0; left out or null while none did. */
    result: z.int().min(0).max(11).nullish(),
    /** When it locks; left out where nobody says. */
    locksAt: z.iso.datetime({ offset: true }).nullish(),
  }),
  "app.izzam.live.v1": z.object({}),
  "app.izzam.ended.v1": z.object({}),
} as const;
export type EventType = keyof typeof eventDataSchemas;
export const eventTypes = Object.keys(eventDataSchemas) as EventType[];
export const isEventType = (type: string): type is EventType => Object.hasOwn(eventDataSchemas, type);

/** The envelope: CloudEvents 1.0 attributes that Izzam reads. Others are allowed and passed over. */
export const cloudEventSchema = z.looseObject({
  specversion: z.literal("1.0"),
  id: z.string().min(1).max(100),
  source: z.string().min(1).max(200),
  type: z.string().min(1).max(100),
  time: z.iso.datetime({ offset: true }).optional(),
  datacontenttype: z.string().max(100).optional(),
  data: z.unknown().optional(),
});
export type CloudEvent = z.infer<typeof cloudEventSchema>;

type Untimed<T> = T extends unknown ? Omit<T, "seq" | "atMs" | "id"> : never;
/** A signal as it will be but for its place in the order; a tip's worth at home is found by the channel's rates. */
export type FromEvent = Untimed<PlatformSignal>;
export type EventProblem = Readonly<{ code: "event/unknown-type" | "event/bad-data"; why: string }>;

export function signalFrom(event: CloudEvent): Readonly<{ signal: FromEvent }> | Readonly<{ problem: EventProblem }> {
  const { type } = event;
  if (!isEventType(type)) return { problem: { code: "event/unknown-type", why: `“${cut(type, 60)}” is no type Izzam knows` } };
  const parsed = eventDataSchemas[type].safeParse(event.data ?? {});
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return { problem: { code: "event/bad-data", why: `data.${issue?.path.join(".") ?? ""}: ${issue?.message ?? "not as described"}` } };
  }
  return { signal: made(type, parsed.data) };
}

type DataOf<T extends EventType> = z.infer<(typeof eventDataSchemas)[T]>;
function made(type: EventType, given: unknown): FromEvent {
  // The schema of this very type has just accepted the data.
  const as = <T extends EventType>(_: T): DataOf<T> => given as DataOf<T>;
  switch (type) {
    case "app.izzam.follow.v1":
      return { kind: "follow", viewer: as(type).viewer };
    case "app.izzam.membership.v1":
      return { kind: "membership", ...as(type) };
    case "app.izzam.gift.v1": {
      const { viewer, count, recipients } = as(type);
      return { kind: "gift", viewer: viewer ?? null, count, recipients };
    }
    case "app.izzam.tip.v1": {
      const { viewer, amountMinor, currency, text: said } = as(type);
      return { kind: "tip", viewer: viewer ?? null, amountMinor, currency, homeMinor: null, text: said };
    }
    case "app.izzam.reaction.v1": {
      const { viewer, reaction, count, valueEach, text: said } = as(type);
      return {
        kind: "reaction",
        viewer: viewer ?? null,
        reaction,
        count,
        value: Math.min(Number.MAX_SAFE_INTEGER, count * valueEach),
        text: said,
      };
    }
    case "app.izzam.raid.v1":
      return { kind: "raid", ...as(type) };
    case "app.izzam.host.v1":
      return { kind: "host", ...as(type) };
    case "app.izzam.purchase.v1":
      return { kind: "purchase", ...as(type) };
    case "app.izzam.forecast.v1": {
      const { forecast, title, state, outcomes, result, locksAt } = as(type);
      const locksMs = locksAt === null || locksAt === undefined ? 0 : Date.parse(locksAt);
      const known = result !== null && result !== undefined && result < outcomes.length ? result : null;
      return { kind: "forecast", viewer: null, forecast, title, state, outcomes, result: known, locksMs };
    }
    case "app.izzam.live.v1":
      return { kind: "live", viewer: null };
    case "app.izzam.ended.v1":
      return { kind: "ended", viewer: null };
  }
}

/** The JSON Schema (2020-12) of one event type's envelope, as published under /schemas. */
export function jsonSchemaOf(type: EventType): Record<string, unknown> {
  const data = z.toJSONSchema(eventDataSchemas[type], { io: "input" });
  delete data["$schema"];
  return {
    $schema: "https://json-schema.org/draft/2020-12/schema",
    $id: `/schemas/${type}.json`,
    title: type,
    type: "object",
    required: ["specversion", "id", "source", "type", "data"],
    properties: {
      specversion: { const: "1.0" },
      id: { type: "string", minLength: 1, maxLength: 100 },
      source: { type: "string", minLength: 1, maxLength: 200 },
      type: { const: type },
      time: { type: "string", format: "date-time" },
      datacontenttype: { const: "application/json" },
      data,
    },
  };
}
