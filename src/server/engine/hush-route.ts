import type { IncomingMessage, ServerResponse } from "node:http";
import { z } from "zod";
import { jsonOrNull } from "../../core/kernel/text";
import type { EngineStore } from "../ports/engine-store";
import { readBody } from "./body";
import type { Engine } from "./engine";
import { plain } from "./lasting-files";
import type { SignedIn } from "./signed-in";

/** `rehearsal`: it is hushed, and the channel is not. */
const hushSchema = z.object({ on: z.boolean(), rehearsal: z.string().max(26).default("") });
type Parts = Readonly<{ engine: Engine; store: EngineStore; ours: (req: IncomingMessage) => boolean; signedIn: SignedIn }>;

/**
 * Hush is the engine's own: neither web nor the database is asked, whatever became of them. Everyone who
 * works on the channel may; a paired phone too.
 */
export const hushRoute =
  ({ engine, store, ours, signedIn }: Parts) =>
  async (req: IncomingMessage, res: ServerResponse): Promise<void> => {
    const answer = (status: number, body: unknown): void => {
      res.writeHead(status, { "content-type": "application/json", "cache-control": "no-store" }).end(JSON.stringify(body));
    };
    const no = (status: number, code: string, words: string): void => answer(status, { ok: false, refusal: { code, facts: {} }, words });
    if (req.method !== "POST") return plain(res, 405, "hush comes by POST");
    if (!ours(req)) return no(403, "access/foreign", "This request did not come from an Izzam page, so nothing was done.");
    const body = hushSchema.safeParse(jsonOrNull(((await readBody(req, 1_000)) ?? "").toString()));
    if (!body.success) return no(422, "input/invalid", "It is not said whether to hush or to release. Nothing was changed.");
    const session = await signedIn(req).catch(() => undefined);
    if (session === undefined)
      return no(503, "store/away", "The database does not answer, and it is not known who you are. Nothing was changed.");
    if (session === null) return no(401, "access/signed-out", "You are signed out. Sign in again.");
    const { on, rehearsal } = body.data;
    if (rehearsal !== "") {
      const found = engine.rehearsals.of(session.channelId, rehearsal);
      if (found === null) return no(404, "rehearsal/unknown", "This rehearsal is not there any more.");
      void found.runner.hush(on);
      return answer(200, { ok: true, value: null });
    }
    const runner = engine.runners.get(session.channelId);
    if (runner === undefined) {
      const away = engine.absent(session.channelId);
      if (!away.ok && away.refusal.code === "channel/unknown") return no(404, "channel/unknown", "There is no such channel.");
      res.setHeader("retry-after", "2");
      return no(503, "engine/starting", "Izzam is starting. Try again in a moment.");
    }
    void runner.hush(on);
    // The list of who did what may wait for the database; hush must not.
    void store.audit(session.channelId, session.operatorId, "hush", { on }, engine.nowMs()).catch(() => undefined);
    answer(200, { ok: true, value: null });
  };
