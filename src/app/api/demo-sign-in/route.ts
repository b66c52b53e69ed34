import { z } from "zod";
import { demoSignIn } from "../../../server/web/accounts";
import { entrance } from "../../../server/web/open-door";

export const POST = entrance(z.object({ role: z.enum(["owner", "moderator"]) }), (web, { role }, _address, local, where) =>
  demoSignIn(web, role, local, where),
);
