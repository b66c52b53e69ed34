import type { IncomingMessage } from "node:http";
import type { WebSocket } from "ws";
import { channelId } from "../../core/kernel/ids";
import { jsonOrNull } from "../../core/kernel/text";
import { fromPageSchema, type ToOperator, wireVersion } from "../../core/wire/messages";
import { hashToken } from "../secrets";
import type { Engine } from "./engine";
import type { SignedIn } from "./signed-in";

/** With the time, for operators; overlays pass over what they don't know. */
const beatText = (nowMs: number): string => JSON.stringify({ v: wireVersion, type: "beat", nowMs, pace: 1 } satisfies ToOperator);
const viewerCookie = /(?:^|;\s*)izzam_viewer=([A-Za-z0-9_-]{20,64})/;

type Parts = Readonly<{ engine: Engine; ours: (req: IncomingMessage) => boolean; signedIn: SignedIn }>;
/** Takes a new socket in: it says what it is within ten seconds, and joins that hub if it may. */
export function greeter({ engine, ours, signedIn }: Parts) {
  return (ws: WebSocket, req: IncomingMessage): void => {
    let known: "nobody" | "overlay" | "operator" | "viewer" = "nobody";
    const tooLate = setTimeout(() => known === "nobody" && ws.close(4000, "no hello"), 10_000);
    let alive = true;
    const beat = setInterval(() => {
      if (!alive) ws.terminate();
      alive = false;
      ws.ping();
      if (known !== "nobody" && ws.bufferedAmount === 0) ws.send(beatText(engine.nowMs()));
    }, 15_000);
    ws.on("pong", () => (alive = true));
    ws.on("error", () => undefined);
    ws.on("close", () => {
      clearTimeout(tooLate);
      clearInterval(beat);
      engine.overlays.leave(ws);
      engine.operators.leave(ws);
      engine.viewers.leave(ws);
    });
    ws.on("message", (data, binary) => {
      const message = binary ? null : fromPageSchema.safeParse(jsonOrNull(String(data)));
      if (message?.success !== true) return ws.close(4002, "this message is not understood");
      const body = message.data;
      if (body.type === "report") return engine.overlays.report(ws, body);
      if (body.type === "voice") return engine.overlays.voice(ws);
      if (body.type === "shown") return engine.overlays.shown(ws, body.sales, body.part);
      if (body.type === "tone") return engine.overlays.toned(ws, body.id, body.came);
      if (known !== "nobody") return ws.close(4002, "greeted twice");
      if (body.type === "hello") {
        known = "overlay";
        engine.overlays.join(ws, body);
        return;
      }
      if (body.type === "shop") {
        known = "viewer";
        const token = viewerCookie.exec(req.headers.cookie ?? "")?.[1];
        if (!ours(req)) return ws.close(4003, "not from here");
        const channel = channelId(body.channel);
        if (!engine.runners.has(channel)) return ws.close(4004, "no such channel");
        const hash = token === undefined ? "" : hashToken(token);
        engine.viewerDoor.of(channel, hash).then(
          (viewer) => ws.readyState === ws.OPEN && engine.viewers.join(ws, channel, hash, viewer),
          () => ws.close(4004, "the database does not answer"),
        );
        return;
      }
      known = "operator";
      if (!ours(req)) return ws.close(4003, "signed out");
      signedIn(req).then(
        (session) => {
          if (session === null) return ws.close(4003, "signed out");
          // A rehearsal is looked at by who works on its channel, and by nobody else.
          const rehearsal = body.rehearsal === "" ? null : engine.rehearsals.of(session.channelId, body.rehearsal);
          if (body.rehearsal !== "" && rehearsal === null) return ws.close(4006, "there is no such rehearsal");
          const shown = rehearsal?.of.id ?? session.channelId;
          if (body.type === "peek") return engine.overlays.peek(ws, shown, body.overlay, body.resume, session.hash);
          engine.operators.join(ws, shown, session.hash);
          ws.send(beatText(engine.nowMs()));
        },
        () => ws.close(4004, "the database does not answer"),
      );
    });
  };
}
