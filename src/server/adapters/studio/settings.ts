import { z } from "zod";

/** Where a studio is found. */
export const studioConnectionSchema = z.object({
  address: z
    .string()
    .trim()
    .max(300)
    .refine((text) => {
      try {
        const { protocol, username, password } = new URL(text);
        return (protocol === "ws:" || protocol === "wss:") && username === "" && password === "";
      } catch {
        return false;
      }
    }, "A studio's address begins with ws:// or wss://, such as ws://127.0.0.1:4600/."),
  /** The practice rig's: its address is kept fresh. */
  practice: z.boolean(),
});
export type StudioConnection = z.infer<typeof studioConnectionSchema>;
/** Where the practice rig's studio is, by the rig's own address. */
export const studioOfRig = (practiceUrl: string): string => `${practiceUrl.replace(/^http/, "ws")}/studio/rpc`;
