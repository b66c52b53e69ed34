import { z } from "zod";
import { refused } from "../../../../../core/kernel/refusal";
import { commandSchema } from "../../../../../core/signals/signal";
import { action } from "../../../../../server/web/http";
import { mayRemoteCommand } from "../../../../../server/web/rights";
import { services } from "../../../../../server/web/services";

export const POST = action(
  "command",
  z.object({ command: commandSchema, id: z.string().min(8).max(80) }),
  async ({ session, stage, params, body: { command, id }, audit }) => {
    if (session.remote && !mayRemoteCommand(command.do)) return refused("access/desk");
    const done = await services().engine.command(stage, params["id"] ?? "", session.login, id, command);
    if (!done.ok && done.refusal.code === "game/unknown") return refused("game/not-running");
    if (done.ok) await audit({ game: params["id"], command: command.do });
    return done;
  },
);
