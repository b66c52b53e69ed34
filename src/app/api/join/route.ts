import { z } from "zod";
import { join, loginSchema, passwordSchema } from "../../../server/web/accounts";
import { entrance } from "../../../server/web/open-door";

export const POST = entrance(
  z.object({ token: z.string().min(20).max(64), login: loginSchema, password: passwordSchema }),
  (web, given, address, _local, where) => join(web, given, address, where),
);
