import { z } from "zod";
import { ok } from "../../../core/kernel/refusal";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

export const PATCH = action(
  "channel.rename",
  z.object({ name: z.string().trim().min(1, "The channel’s name is missing.").max(80, "The channel’s name has at most 80 characters.") }),
  async ({ session, body, audit }) => {
    const { store, engine } = services();
    await store.accounts.renameChannel(session.channelId, body.name);
    await engine.reload(session.channelId);
    await audit({ name: body.name, before: session.channelName });
    return ok(null);
  },
);
