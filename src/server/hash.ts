import { createHash } from "node:crypto";

/** SHA-256 as 64 hex digits: the name of whatever is kept by its content. */
export const sha256 = (bytes: Buffer | string): string => createHash("sha256").update(bytes).digest("hex");
