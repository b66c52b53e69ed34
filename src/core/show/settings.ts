import type { Map as Entries } from "immutable";
import { z } from "zod";
import { fold } from "../kernel/fold";
import { roleSchema } from "../signals/signal";
import { roles } from "../signals/names";
import { planSchema, planItemSchema } from "./plan";

/** What a moderator may do by chat word. Those of a game name it. */
export const commandEffects = [
  "start",
  "stop",
  /** An action of a game, by its name. */
  "act",
  "hush",
  "release",
  "on-air",
  "rehearse",
  "end",
  "next",
] as const;
export type CommandEffect = (typeof commandEffects)[number];
export const gameEffects: readonly CommandEffect[] = ["start", "stop", "act"];

export const moderatorWordSchema = z.object({
  id: z.string().min(1).max(26),
  word: z.string().trim().min(1, "A command needs its word.").max(30).regex(/^\S+$/u, "A chat word has no spaces."),
  does: z.enum(commandEffects),
  game: z.string().max(26),
  act: z.string().max(40).default(""),
  roles: z.array(roleSchema).min(1).max(roles.length),
});
export type ModeratorWord = z.infer<typeof moderatorWordSchema>;

export const showSettingsSchema = z
  .object({
    schema: z.literal(2),
    /** Whether the platform's word that it went live, or ended, begins and ends a show. */
    begins: z.enum(["hand", "platform"]),
    /** A show that nobody ended ends itself after so many minutes without a word or a signal; 0 for never. */
    silenceMin: z.int().min(0).max(720),
    commands: z.array(moderatorWordSchema).max(60, "There are at most 60 chat commands."),
  })
  .superRefine((s, ctx) => {
    const seen = new Set<string>();
    for (const { word } of s.commands) {
      if (seen.has(fold(word))) ctx.addIssue({ code: "custom", message: `Two commands have the same word, “${word}”.` });
      seen.add(fold(word));
    }
  });
export type ShowSettings = z.infer<typeof showSettingsSchema>;
export const showDefaults: ShowSettings = { schema: 2, begins: "platform", silenceMin: 60, commands: [] };

export const mostMuted = 500;
export const mostWithoutFace = 2_000;
export const mostTemplates = 20;
/** What only a person can decide. `due`: something planned is due; the others are the platform's word. */
export const askSchema = z.object({
  id: z.string(),
  kind: z.enum(["due", "missed", "live", "ended"]),
  sinceMs: z.number(),
  item: z.string(),
});
export type Ask = z.infer<typeof askSchema>;

export const showDurableSchema = z.object({
  state: z.enum(["off", "rehearsing", "on"]),
  show: z.object({ id: z.string(), sinceMs: z.number(), by: z.string(), how: z.enum(["hand", "platform"]) }).nullable(),
  /** When silence is looked for next. */
  checkMs: z.number().nullable(),
  plan: z.object({ revision: z.number(), by: z.string(), items: z.array(planItemSchema) }),
  /** What of the plan was started in this show, how often and when last; and what was skipped. */
  done: z.array(z.object({ item: z.string(), atMs: z.number(), times: z.number() })),
  skipped: z.array(z.string()),
  templates: z.array(z.object({ id: z.string(), name: z.string(), items: planSchema })),
  /** How games stood before the rehearsal. */
  snapshot: z.record(z.string(), z.unknown()).nullable(),
  muted: z.array(z.object({ id: z.string(), name: z.string(), by: z.string(), atMs: z.number() })),
  asks: z.array(askSchema),
  /** Whose picture is not shown: by their own word, or an operator's. `mark` grows with every change. */
  noFaces: z
    .object({
      mark: z.number(),
      list: z.array(z.object({ id: z.string(), name: z.string(), own: z.boolean(), by: z.string(), atMs: z.number() })),
    })
    .default({ mark: 0, list: [] }),
});
export type ShowDurable = z.infer<typeof showDurableSchema>;
/** When a word or a signal was heard last; null after a restart. */
export type ShowTransient = Readonly<{
  heardMs: number | null;
  /** Who was asked after in the show that runs, and when: one who was not met after all is asked after again. */
  asked: Entries<string, number>;
}>;

export const freshShow = (): ShowDurable => ({
  state: "off",
  show: null,
  checkMs: null,
  plan: { revision: 1, by: "", items: [] },
  done: [],
  skipped: [],
  templates: [],
  snapshot: null,
  muted: [],
  asks: [],
  noFaces: { mark: 0, list: [] },
});
