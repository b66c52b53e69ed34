import { ok, refused } from "../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../server/web/http";
import { checksView } from "../../../server/web/rehearsal";
import { services } from "../../../server/web/services";
import { keyUse } from "../../_frame/key-owners";

/** What of the settings is worth a look before a show. */
export const GET = (): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(ok(await checksView(services(), session.channelId, (key, games) => keyUse(key, { chosen: {}, games }))));
  });
