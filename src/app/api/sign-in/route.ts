import { z } from "zod";
import { signIn } from "../../../server/web/accounts";
import { entrance } from "../../../server/web/open-door";

const body = z.object({
  login: z.string().min(1, "Your name is missing.").max(80),
  password: z.string().min(1, "The password is missing.").max(400),
});
export const POST = entrance(body, (web, { login, password }, address, local, where) =>
  signIn(web, login, password, address, local, where),
);
