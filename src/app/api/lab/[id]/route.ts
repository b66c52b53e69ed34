import { z } from "zod";
import { labAskSchema } from "../../../../core/lab/ask";
import { action } from "../../../../server/web/http";
import { actOnQuestion, askLab } from "../../../../server/web/lab";
import { services } from "../../../../server/web/services";

const act = z.discriminatedUnion("do", [
  z.object({ do: z.enum(["again", "stop", "remove", "restore"]) }),
  z.object({ do: z.literal("rename"), name: z.string().trim().max(120) }),
]);
/** What is done with a question that was asked. */
export const POST = action("lab.ask", act, ({ session, params, body }) => actOnQuestion(services(), session, params["id"] ?? "", body));

/** Asks it otherwise. */
export const PUT = action("lab.ask", z.object({ ask: labAskSchema }), ({ session, params, body }) =>
  askLab(services(), session, body.ask, params["id"] ?? ""),
);
