import { z } from "zod";
import { createGame } from "../../../server/web/games";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

const body = z.object({ kind: z.string().max(40), name: z.string().trim().min(1, "The game’s name is missing.").max(80) });
export const POST = action("game.create", body, async ({ session, body: { kind, name }, audit }) => {
  const made = await createGame(services(), session, kind, name);
  if (made.ok) await audit({ game: made.value.id, name });
  return made;
});
