import { z } from "zod";
import { loginSchema, passwordSchema, setUp } from "../../../server/web/accounts";
import { entrance } from "../../../server/web/open-door";

const body = z.object({
  code: z.string().min(1, "The set-up code is missing.").max(20),
  login: loginSchema,
  password: passwordSchema,
  channel: z.string().trim().min(1, "The channel’s name is missing.").max(80, "The channel’s name has at most 80 characters."),
});
export const POST = entrance(body, (web, given, address, _local, where) => setUp(web, given, address, where));
