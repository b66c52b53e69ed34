import { z } from "zod";
import { refused } from "../../../../../core/kernel/refusal";
import { commandSchema } from "../../../../../core/signals/signal";
import { action } from "../../../../../server/web/http";
import { mayRemoteHand } from "../../../../../server/web/rights";
import { services } from "../../../../../server/web/services";

export const POST = action(
  "hand",
  z.object({ hand: commandSchema, id: z.string().min(8).max(80) }),
  async ({ session, params, body: { hand, id }, audit }) => {
    if (session.remote && !mayRemoteHand(hand.do)) return refused("access/desk");
    const done = await services().engine.hand(session.channelId, params["id"] ?? "", session.login, id, hand);
    if (!done.ok && done.refusal.code === "game/unknown") return refused("game/not-running");
    if (done.ok) await audit({ game: params["id"], hand: hand.do });
    return done;
  },
);
