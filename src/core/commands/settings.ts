import { z } from "zod";
import { fold } from "../kernel/fold";
import { roleSchema } from "../signals/signal";
import { roles } from "../signals/names";
import { checkTemplate } from "../words/template";

/** A channel's own chat commands: words that answer, with variables, counters and lists to choose from. */
const word = z.string().trim().min(1, "A command needs a word.").max(30).regex(/^\S+$/u, "A chat word has no spaces.");
export const commandVariables = ["viewer", "target", "text", "count", "balance", "points", "channel"] as const;
export const ways = ["first", "random", "in-turn"] as const;

export const ownCommandSchema = z
  .object({
    id: z.string().min(1).max(26),
    on: z.boolean(),
    /** The first is the one it is listed by; the others do the same. */
    words: z.array(word).min(1, "A command needs a word.").max(6),
    /** What viewers read about it in the list; empty for not listed. */
    about: z.string().max(120),
    roles: z.array(roleSchema).min(1).max(roles.length),
    cooldownMs: z.int().min(0).max(86_400_000),
    ownCooldownMs: z.int().min(0).max(86_400_000),
    answers: z.array(z.string().max(300)).min(1, "A command needs an answer.").max(100),
    how: z.enum(ways),
    /** Counts how often it was answered; {count} tells. */
    counts: z.boolean(),
  })
  .superRefine((command, ctx) => {
    const name = command.words[0] ?? "";
    if (command.answers.every((a) => a.trim() === "")) ctx.addIssue({ code: "custom", message: `${name} has no answer yet.` });
    for (const text of command.answers) {
      const checked = checkTemplate(text, commandVariables);
      if (checked.ok) continue;
      ctx.addIssue({
        code: "custom",
        message:
          checked.refusal.code === "text/unknown-variable"
            ? `${name}: “${String(checked.refusal.facts["name"])}” is no variable here. There are: ${String(checked.refusal.facts["known"])}.`
            : `${name}: the answer “${text}” has a brace too many or too few.`,
      });
    }
  });
export type OwnCommand = z.infer<typeof ownCommandSchema>;

export const commandBookSchema = z
  .object({
    schema: z.literal(1),
    commands: z.array(ownCommandSchema).max(300, "There are at most 300 commands."),
    /** Other programs that speak in chat: nothing answers them. */
    bots: z.array(z.string().trim().min(1).max(60)).max(30),
  })
  .superRefine((book, ctx) => {
    const seen = new Set<string>();
    for (const { words } of book.commands)
      for (const text of words) {
        if (seen.has(fold(text))) ctx.addIssue({ code: "custom", message: `The word “${text}” stands twice.` });
        seen.add(fold(text));
      }
  });
export type CommandBook = z.infer<typeof commandBookSchema>;
export const commandBookDefaults: CommandBook = { schema: 1, commands: [], bots: [] };

export const newCommand = (id: string, text: string, answer = ""): OwnCommand => ({
  id,
  on: true,
  words: [text],
  about: "",
  roles: ["viewer"],
  cooldownMs: 5_000,
  ownCooldownMs: 0,
  answers: [answer],
  how: "first",
  counts: false,
});

export const commandDurableSchema = z.object({ counts: z.record(z.string(), z.int()), at: z.record(z.string(), z.int()) });
export type CommandDurable = z.infer<typeof commandDurableSchema>;
