import { z } from "zod";
import type { CommandUnion } from "../module/union";
import { planSchema } from "./plan";

const item = z.string().max(26);
/** What the show can be told to do. */
export const showCommands = {
  show: z.object({ what: z.enum(["on-air", "rehearse", "end"]) }),
  /** The whole rundown, as changed from `revision`. */
  plan: z.object({ revision: z.int().min(0), items: planSchema }),
  /** `times`: how often it was started before, as the sender sees it; so two at once start it once. */
  "plan-fire": z.object({ item, times: z.int().min(0) }),
  /** One thing to another minute; the rest as it is, whoever changed it meanwhile. */
  "plan-move": z.object({ item, atMin: z.int().min(0).max(1_440) }),
  "plan-skip": z.object({ item }),
  "plan-back": z.object({ item }),
  template: z.object({ what: z.enum(["save", "use", "remove"]), id: z.string().max(26), name: z.string().max(60) }),
  mute: z.object({ id: z.string().min(1).max(64), name: z.string().max(80), on: z.boolean() }),
  /** An operator shows somebody's picture, or no more. */
  face: z.object({ id: z.string().min(1).max(64), name: z.string().max(80), on: z.boolean() }),
  /** The same by whose it is: no more, or again. Which, is said: a page that is behind must not show what was just hidden. */
  "my-face": z.object({ be: z.enum(["shown", "hidden"]) }),
  decide: z.object({ ask: z.string().max(60), yes: z.boolean() }),
};
export type ShowCommand = CommandUnion<typeof showCommands>;
