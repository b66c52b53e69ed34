import { z } from "zod";
import { v } from "./messages";

const tagSchema = z.object({
  id: z.string(),
  name: z.string(),
  about: z.string(),
  category: z.string(),
  icon: z.object({ url: z.string(), columns: z.number(), rows: z.number() }).nullable(),
  words: z.array(z.string()).readonly(),
  price: z.number(),
  moving: z.boolean(),
  approval: z.boolean(),
  text: z.object({ how: z.enum(["none", "may", "must"]), asks: z.string() }),
  detail: z.string(),
  left: z.number().nullable(),
  why: z.string(),
  code: z.string(),
  kept: z.boolean(),
  freeAtMs: z.number(),
});

export const shopHeadSchema = z.object({
  channel: z.string(),
  points: z.string(),
  onAir: z.boolean(),
  sinceMs: z.number().nullable(),
  hushed: z.boolean(),
  /** Ids of the tags, in their order. */
  order: z.array(z.string()),
  games: z.array(
    z.object({
      id: z.string(),
      kind: z.string(),
      name: z.string(),
      on: z.boolean(),
      stands: z.string(),
      fair: z
        .object({
          commitment: z.string(),
          round: z.string(),
          past: z.array(z.object({ round: z.string(), words: z.string(), atMs: z.number() })).readonly(),
          chain: z.string().optional(),
          list: z.string().optional(),
        })
        .nullable()
        .default(null),
      /** Of games in which viewers do something here. */
      view: z.record(z.string(), z.unknown()).nullable().default(null),
    }),
  ),
  top: z.array(z.object({ name: z.string(), balance: z.number() })),
});

const ownInGameSchema = z.object({ id: z.string(), mine: z.record(z.string(), z.unknown()) });
export type OwnInGame = z.infer<typeof ownInGameSchema>;
export type ShopHead = z.infer<typeof shopHeadSchema>;

export const toViewerSchema = z.discriminatedUnion("type", [
  z.object({ v, type: z.literal("beat") }),
  /** The tags that changed, or all of them at first; the head whole. */
  z.object({ v, type: z.literal("shop"), nowMs: z.number(), head: shopHeadSchema.nullable(), tags: z.array(tagSchema) }),
  /** What is this viewer's own in games. */
  z.object({ v, type: z.literal("games"), games: z.array(ownInGameSchema) }),
  z.object({
    v,
    type: z.literal("mine"),
    name: z.string(),
    balance: z.number(),
    /** Where their own picture is; empty where nobody finds any. */
    face: z.string().default(""),
    /** What stands in this viewer's own way; `tag` for what only this viewer sees. */
    own: z.array(z.object({ id: z.string(), why: z.string(), code: z.string(), freeAtMs: z.number(), tag: tagSchema.nullable() })),
  }),
]);

export type ToViewer = z.infer<typeof toViewerSchema>;
