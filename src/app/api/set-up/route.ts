import { z } from "zod";
import { setUp } from "../../../server/web/accounts";
import { entrance } from "../../../server/web/open-door";

const body = z.object({
  code: z.string().min(1, "The set-up code is missing.").max(20),
  login: z
    .string()
    .trim()
    .min(2, "Your name has at least 2 characters.")
    .max(40, "Your name has at most 40 characters.")
    .regex(/^[\p{L}\p{N} ._-]+$/u, "Your name has letters, digits, spaces and . _ - only."),
  password: z.string().min(10, "The password has at least 10 characters.").max(400),
  channel: z.string().trim().min(1, "The channel’s name is missing.").max(80, "The channel’s name has at most 80 characters."),
});
export const POST = entrance(body, setUp);
