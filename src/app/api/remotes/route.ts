import { z } from "zod";
import { ok, refused } from "../../../core/kernel/refusal";
import { action, answer, currentSession, guarded } from "../../../server/web/http";
import { offerPairing } from "../../../server/web/remotes";
import { services } from "../../../server/web/services";

/** The phones that are paired. */
export const GET = (): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const { store, clock } = services();
    return answer(ok({ remotes: await store.accounts.remotes(session.channelId, clock.now()) }));
  });

/** A new one-time code with which a phone may be paired. */
export const POST = action("remote.pair", z.object({}), async ({ session, audit }) => {
  await audit({});
  return offerPairing(services(), session);
});
