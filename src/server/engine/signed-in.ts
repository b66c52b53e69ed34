import type { IncomingMessage } from "node:http";
import type { rememberedSessions } from "./sessions";

type Session = NonNullable<Awaited<ReturnType<ReturnType<typeof rememberedSessions>["of"]>>>;
/** Who is signed in, with the hash of their token; null for nobody. */
export type SignedIn = (req: IncomingMessage) => Promise<(Session & Readonly<{ hash: string }>) | null>;
/** A phone that was paired carries a cookie of its own. */
export const sessionCookies = [/(?:^|;\s*)izzam_session=([A-Za-z0-9_-]{20,64})/, /(?:^|;\s*)izzam_remote=([A-Za-z0-9_-]{20,64})/];
