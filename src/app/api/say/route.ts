import { z } from "zod";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

/** An operator speaks in chat, as the channel's own voice. One line, as long as chat lets it be. */
const body = z.object({
  text: z
    .string()
    .trim()
    .min(1, "There is nothing to say yet.")
    .max(400, "A chat line holds at most 400 characters.")
    .regex(/^[^\p{Cc}]*$/u, "A chat line is one line."),
});
export const POST = action("chat.say", body, async ({ session, stage, body: { text }, audit }) => {
  const done = await services().engine.say(stage, text, session.login);
  if (done.ok) await audit({ characters: text.length });
  return done;
});
