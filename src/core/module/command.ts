import { z } from "zod";
import { ok, refused, type Result } from "../kernel/refusal";
import type { Command } from "../signals/signal";
import { inputSchema } from "./fields";
import type { GameAction } from "./game";
import type { AnyModule } from "./module";

const switchSchema = z.object({ on: z.boolean() });
const schemas = new WeakMap<AnyModule, ReadonlyMap<string, z.ZodType>>();

/** What a module can be told to do: a game's actions, switching it on and off, and the commands of its own. */
export function commandsOf(module: AnyModule): ReadonlyMap<string, z.ZodType> {
  let known = schemas.get(module);
  if (known === undefined) {
    const made = new Map<string, z.ZodType>(Object.entries(module.commands ?? {}));
    for (const [name, action] of Object.entries(actionsIn(module))) made.set(name, inputSchema(action.input));
    if (isGameModule(module)) made.set("switch", switchSchema);
    known = made;
    schemas.set(module, known);
  }
  return known;
}

/** Only games have a name for people, and actions. */
const isGameModule = (module: AnyModule): module is AnyModule & Readonly<{ actions?: Readonly<Record<string, GameAction>> }> =>
  "offer" in module;
export const actionsIn = (module: AnyModule): Readonly<Record<string, GameAction>> => (isGameModule(module) ? (module.actions ?? {}) : {});

/** A command as the module's step may trust it; what is not described is not in it. */
export function readCommand(module: AnyModule, given: Command): Result<Command> {
  const schema = commandsOf(module).get(given.do);
  if (schema === undefined) return refused("game/cannot");
  const read = schema.safeParse(given);
  if (read.success) return ok({ ...(read.data as object), do: given.do });
  const issue = read.error.issues[0];
  return refused("command/input", { why: issue?.message ?? "", where: issue?.path.join(".") ?? "" });
}
