import { z } from "zod";
import { voiceSchema } from "../../../core/speech/voice";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

/** A voice to hear before one keeps it: where its few words are to be had. Nothing of it goes on air. */
export const POST = action("game.edit", z.object({ voice: voiceSchema }), async ({ session, body }) =>
  services().engine.hear(session.channelId, body.voice),
);
