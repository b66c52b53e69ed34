import { z } from "zod";
import { dialectSchema } from "../../../core/chat/dialect";

const oneWord = (what: string) => z.string().trim().min(1, `${what} is missing.`).max(80).regex(/^\S+$/, `${what} may not contain spaces.`);

/** How to reach a chat server. The password is kept apart, encrypted. */
export const chatSettingsSchema = z.object({
  host: z
    .string()
    .trim()
    .min(1, "The server’s address is missing.")
    .max(200)
    .regex(/^[A-Za-z0-9.:_-]+$/, "An address has letters, digits, dots and dashes only, without a scheme."),
  port: z.int().min(1).max(65_535),
  tls: z.boolean(),
  /** Accept a certificate that no known authority signed: only for one's own server. */
  tlsUnverified: z.boolean().default(false),
  nick: oneWord("The name to chat as").max(40),
  login: z.enum(["none", "pass", "sasl"]),
  channel: oneWord("The chat channel")
    .max(80)
    .refine((name) => !name.includes(","), "One chat channel at a time: a comma would make it two."),
  /** Where the platform keeps its own emotes' pictures, `{id}` in it; empty when it has none. */
  emotePictures: z
    .string()
    .trim()
    .max(250)
    .refine((u) => u === "" || (/^https?:\/\//.test(u) && u.includes("{id}")), "Starts with http:// or https:// and contains {id}."),
  /** The platform's host, where WebFinger tells of people; empty where it tells nothing. */
  profiles: z
    .string()
    .trim()
    .max(200)
    .regex(/^([A-Za-z0-9.-]+(:\d{1,5})?)?$/, "A host has letters, digits, dots and dashes only, without a scheme.")
    .default(""),
  /** Most lines said within 30 s: servers throw out who floods. */
  mostPer30s: z.int().min(1).max(100).default(20),
  dialect: dialectSchema,
  /** Points at the practice rig, whose ports may differ from start to start: then Izzam keeps them fresh. */
  practice: z.boolean().default(false),
});
export type ChatSettings = z.infer<typeof chatSettingsSchema>;
