import { z } from "zod";
import { ok, refused, type Result } from "../../../../../core/kernel/refusal";
import { saveDraft } from "../../../../../server/web/games";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

const whole = z.object({ revision: z.int().min(0), settings: z.unknown() });
export const PUT = action("game.edit", whole, ({ session, params, body }) =>
  saveDraft(services(), session, params["id"] ?? "", body.revision, body.settings),
);

/** The draft as it stands now, for who is told that somebody else changed it. */
export const POST = action(
  "game.edit",
  z.object({}),
  async ({
    session,
    params,
  }): Promise<Result<{ settings: unknown; revision: number; by: string; version: number; published: unknown }>> => {
    const draft = await services().store.games.draft(session.channelId, params["id"] ?? "");
    return draft === null
      ? refused("game/unknown")
      : ok({ settings: draft.settings, revision: draft.revision, by: draft.by, version: draft.version, published: draft.published });
  },
);
