import { type FromPage, type ToOverlay, toOverlaySchema, wireVersion } from "../core/wire/messages";

export type LinkEvents = Readonly<{ onMessage: (message: ToOverlay) => void; size: () => { width: number; height: number } }>;
/** A page of an overlay, by its secret link; or an operator who looks at one, by the session. */
export type LinkAs = Readonly<{ token: string }> | Readonly<{ peek: string; rehearsal: string }>;
const firstWaitMs = 400;
const longestWaitMs = 8_000;
const quietMs = 40_000;

/**
 * The overlay's one WebSocket. Comes back by itself, says what it has seen and gets what it missed; what
 * is on the picture meanwhile stays. After a revoked link it never asks again.
 */
export function openLink(as: LinkAs, { onMessage, size }: LinkEvents): Readonly<{ send: (message: FromPage) => void }> {
  let socket: WebSocket | null = null;
  let resume: { epoch: string; seq: number } | null = null;
  let tries = 0;
  let ended = false;
  let watch = 0;

  const send = (message: FromPage): void => {
    if (socket?.readyState === WebSocket.OPEN) socket.send(JSON.stringify(message));
  };
  const again = (): void => {
    if (ended) return;
    tries += 1;
    const waitMs = Math.min(longestWaitMs, firstWaitMs * 1.7 ** (tries - 1)) * (0.6 + Math.random() * 0.4);
    setTimeout(open, waitMs);
  };
  const take = (text: string): void => {
    let parsed: unknown = null;
    try {
      parsed = JSON.parse(text);
    } catch {
      return;
    }
    const message = toOverlaySchema.safeParse(parsed);
    // A message of a newer server is passed over: this page is reloaded by its source sooner or later.
    if (!message.success) return;
    const body = message.data;
    if (body.type === "beat") return onMessage(body);
    if (body.type === "gone") ended = true;
    else if (body.type === "voice" || body.type === "tone") return onMessage(body);
    else if (body.type === "snapshot") resume = { epoch: body.epoch, seq: body.seq };
    else if (resume !== null) resume = { ...resume, seq: body.seq };
    onMessage(body);
  };
  const open = (): void => {
    const mine = new WebSocket(`${location.protocol === "https:" ? "wss" : "ws"}://${location.host}/ws`);
    socket = mine;
    // The server beats every 15 s; a silence this long is a connection that died without a word.
    const alive = (): void => {
      clearTimeout(watch);
      watch = window.setTimeout(() => mine.close(), quietMs);
    };
    mine.onopen = () => {
      tries = 0;
      if ("peek" in as) send({ v: wireVersion, type: "peek", overlay: as.peek, rehearsal: as.rehearsal, resume });
      else send({ v: wireVersion, type: "hello", as: "overlay", token: as.token, ...size(), resume });
      alive();
    };
    mine.onmessage = (event) => {
      alive();
      if (typeof event.data === "string") take(event.data);
    };
    mine.onclose = () => {
      clearTimeout(watch);
      if (socket === mine) again();
    };
    alive();
  };
  open();
  return { send };
}
