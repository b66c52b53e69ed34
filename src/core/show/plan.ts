import { z } from "zod";

/**
 * The rundown: the planned order of a show. An item is meant for a minute of the show and does one thing;
 * it starts by hand, by itself at its minute, or by itself after another one.
 */
const ref = z.string().max(26);
export const planDoesSchema = z.discriminatedUnion("do", [
  /** Something to remember; nothing fires. */
  z.object({ do: z.literal("note") }),
  z.object({ do: z.literal("cue"), cue: ref }),
  z.object({ do: z.literal("start"), game: ref }),
  z.object({ do: z.literal("stop"), game: ref }),
  /** An action of a game, with what it is given: to a scene, a disc spun, a draw opened. */
  z.object({
    do: z.literal("act"),
    game: ref,
    act: z.string().min(1).max(40),
    input: z.record(z.string().max(40), z.unknown()).refine((v) => JSON.stringify(v).length <= 4_000, "What comes with it is too long."),
  }),
]);
export type PlanDoes = z.infer<typeof planDoesSchema>;

export const planItemSchema = z.object({
  id: z.string().min(1).max(26),
  title: z.string().trim().min(1, "Something planned needs a title.").max(60),
  /** Minutes after the show began. */
  atMin: z.int().min(0).max(1_440),
  /** How long it is meant to last; 0 for not said. */
  lengthMin: z.int().min(0).max(1_440),
  note: z.string().max(200),
  does: planDoesSchema,
  starts: z.discriminatedUnion("how", [
    z.object({ how: z.literal("hand") }),
    z.object({ how: z.literal("time") }),
    z.object({ how: z.literal("after"), item: ref, delayMin: z.int().min(0).max(1_440) }),
  ]),
});
export type PlanItem = z.infer<typeof planItemSchema>;

/** In the order of their minutes; of one minute, as they stand in the list. */
export const planSchema = z
  .array(planItemSchema)
  .max(60, "A rundown holds at most 60 things.")
  .superRefine((items, ctx) => {
    if (new Set(items.map((i) => i.id)).size < items.length)
      ctx.addIssue({ code: "custom", message: "Two things in the rundown have the same mark." });
    for (const item of items) {
      if (item.starts.how !== "after") continue;
      const { item: before } = item.starts;
      if (!items.some((i) => i.id === before))
        ctx.addIssue({ code: "custom", message: `“${item.title}” waits for something that is not in the rundown.` });
      else if (waitsInCircle(items, item))
        ctx.addIssue({ code: "custom", message: `“${item.title}” waits for itself, so it would never start.` });
    }
  });
export type Plan = readonly PlanItem[];

function waitsInCircle(items: Plan, first: PlanItem): boolean {
  let at: PlanItem | undefined = first;
  for (let steps = 0; steps <= items.length; steps += 1) {
    const { starts }: PlanItem = at;
    if (starts.how !== "after") return false;
    at = items.find((i) => i.id === starts.item);
    if (at === undefined) return false;
    if (at.id === first.id) return true;
  }
  return true;
}

export const newPlanItem = (id: string, title: string, atMin: number): PlanItem => ({
  id,
  title,
  atMin,
  lengthMin: 0,
  note: "",
  does: { do: "note" },
  starts: { how: "hand" },
});
