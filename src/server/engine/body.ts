import type { IncomingMessage } from "node:http";

/** The body of a request, read to its end so that the sender hears the answer; null when it is longer than `most` bytes. */
export async function readBody(req: IncomingMessage, most = Infinity): Promise<Buffer | null> {
  if (Number(req.headers["content-length"] ?? 0) > most) {
    req.resume();
    return null;
  }
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of req) {
    size += (part as Buffer).length;
    if (size <= most) parts.push(part as Buffer);
    // Nothing more is kept, and whoever goes on and on is not heard out.
    else if (size > most * 4) return null;
  }
  return size > most ? null : Buffer.concat(parts);
}
