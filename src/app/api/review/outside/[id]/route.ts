import { z } from "zod";
import { action } from "../../../../../server/web/http";
import { actOnOutsideShow } from "../../../../../server/web/outside-shows";
import { services } from "../../../../../server/web/services";

const act = z.discriminatedUnion("do", [
  z.object({ do: z.enum(["remove", "restore"]) }),
  z.object({ do: z.literal("rename"), name: z.string().trim().min(1, "A show needs a name.").max(120) }),
]);
export const POST = action("review.edit", act, ({ session, params, body }) =>
  actOnOutsideShow(services(), session.channelId, params["id"] ?? "", body),
);
