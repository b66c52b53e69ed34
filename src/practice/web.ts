import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { type CrowdSettings, rooms } from "../core/lab/crowd";
import { avatarOf, jrdOf } from "./avatars";
import { CrowdPlayer } from "./crowd-player";
import type { EventSender, Sent } from "./events";
import { eventBody, eventOf, type Given, reactions, rolesOf } from "./give";
import { faults, type IrcServer } from "./irc-server";
import { type PracticeStudio, studioManners } from "./studio";
import { saidLine } from "./platform";
import { shelfOf } from "./shelf";
import { emoji, lines, people } from "./viewers";

let channel = "#saltmarsh-kiln";
const sayBody = z.object({
  as: z.string().max(40),
  text: z.string().min(1).max(8_000),
  id: z.string().max(80).optional(),
  /** Paid reactions inside the message. */
  paid: z.object({ reaction: z.string().max(40), count: z.int().min(1).max(1_000_000) }).optional(),
});
const crowdBody = z.object({
  seed: z.int().min(0).max(4_294_967_295),
  perSecond: z.number().min(0.05).max(1_000),
  emoteShare: z.number().min(0).max(1),
  copyShare: z.number().min(0).max(1),
  rushesPerMinute: z.number().min(0).max(10),
  givesPerMinute: z.number().min(0).max(600).default(0),
});
const studioBody = z.object({
  show: z.string().max(80).optional(),
  manner: z.enum(studioManners).optional(),
  scenes: z.array(z.string().min(1).max(80)).max(200).optional(),
});
const policy =
  "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self'; font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

type Said = { n: number; name: string; badges: readonly string[]; text: string };

/** The rig's page and the little interface behind it. Loopback only. */
export type PadButton = { name: string; url: string };
export function practiceWeb({
  irc,
  demo,
  page,
  events,
  studio,
  pad = [],
}: Readonly<{
  irc: IrcServer;
  demo: string;
  page: string;
  events: EventSender;
  studio: PracticeStudio;
  pad?: readonly PadButton[];
}>) {
  const buttons: PadButton[] = [...pad, ...Array.from({ length: Math.max(0, 6 - pad.length) }, () => ({ name: "", url: "" }))];
  const own = readdirSync(join(demo, "emotes"))
    .map((name) => name.replace(/\.svg$/, ""))
    .sort((a, b) => (a < b ? -1 : 1));
  const platform = readdirSync(join(demo, "platform"))
    .map((name) => name.replace(/\.svg$/, ""))
    .sort((a, b) => (a < b ? -1 : 1));
  const shelf = shelfOf(join(demo, "films"));
  const log: Said[] = [];
  let n = 0;
  const note = (name: string, badges: readonly string[], text: string): void => {
    n += 1;
    log.push({ n, name, badges, text: text.slice(0, 300) });
    if (log.length > 120) log.splice(0, 40);
  };
  const say = (as: string, text: string, id?: string, paid?: { reaction: string; count: number }): boolean => {
    const person = people.find((p) => p.nick === as);
    if (person === undefined) return false;
    const inside = paid === undefined ? "" : `${paid.reaction}:${paid.count}:${reactions[paid.reaction] ?? 1}`;
    irc.say(channel, saidLine(person, channel, text, platform, id, inside));
    note(person.name, person.badges, text);
    return true;
  };
  /** One event, as any of the people or as nobody known. */
  const give = async (given: Given): Promise<Sent> => {
    const person = people.find((p) => p.nick === given.as);
    const viewer = person === undefined ? null : { id: person.nick, name: person.name, roles: rolesOf(person) };
    const [type, data] = eventOf(given, viewer);
    const sent = await events.send(type, data, given.id);
    note(
      person?.name ?? "someone unknown",
      ["event"],
      `${given.kind}${given.amount > 0 && given.kind !== "follow" ? ` ${given.amount}` : ""} → ${sent.said}`,
    );
    return sent;
  };
  const crowdPeople = people.filter((p) => !p.badges.includes("streamer")).map((p) => p.nick);
  const player = new CrowdPlayer({ viewers: crowdPeople, emotes: [...own, ...platform, ...emoji], lines }, (line) => {
    if (line.gives === null) say(line.viewer, line.text);
    else void give({ kind: line.gives.kind, as: line.viewer, amount: line.gives.amount, currency: "EUR", text: "", reaction: "sherd" });
  });

  const send = (res: ServerResponse, status: number, type: string, body: string | Buffer): void =>
    void res
      .writeHead(status, {
        "content-type": type,
        "content-security-policy": policy,
        "x-content-type-options": "nosniff",
        "cache-control": "no-store",
      })
      .end(body);
  const json = (res: ServerResponse, value: unknown, status = 200): void => send(res, status, "application/json", JSON.stringify(value));
  const svg = (res: ServerResponse, path: string): void => send(res, 200, "image/svg+xml", readFileSync(path));

  const state = (after: number) => ({
    connected: irc.connected,
    crowd: player.settings,
    said: player.said,
    pad: buttons.map(({ name, url }) => ({ name, set: url !== "" })),
    studio: { ...studio.told(), manner: studio.manner, connected: studio.connected, asked: studio.asked },
    log: log.filter((s) => s.n > after).slice(-60),
  });

  const act = async (req: IncomingMessage, res: ServerResponse, path: string): Promise<void> => {
    const parts: Buffer[] = [];
    for await (const part of req) parts.push(part as Buffer);
    const body: unknown = JSON.parse(Buffer.concat(parts).toString("utf8") || "{}");
    switch (path) {
      case "/say": {
        const { as, text, id, paid } = sayBody.parse(body);
        return json(res, { ok: say(as, text, id, paid) });
      }
      case "/crowd": {
        const settings: CrowdSettings = crowdBody.parse(body);
        player.start(settings);
        return json(res, { ok: true });
      }
      case "/crowd/stop":
        player.stop();
        return json(res, { ok: true });
      case "/event": {
        const sent = await give(eventBody.parse(body));
        return json(res, { ok: sent.status === 200, ...sent, words: sent.said });
      }
      case "/event/raw": {
        const { text, type } = z.object({ text: z.string().max(4_000_000), type: z.string().max(100) }).parse(body);
        const sent = await events.deliver(text, type);
        return json(res, { ok: true, ...sent });
      }
      case "/channel": {
        const asked = z.object({ channel: z.string().regex(/^[\w-]{1,40}$/), room: z.string().regex(/^#[\w-]{1,40}$/) }).parse(body);
        events.pointAt(asked.channel);
        channel = asked.room;
        return json(res, { ok: true });
      }
      case "/secret":
        events.secret = z.object({ secret: z.string().max(200) }).parse(body).secret;
        return json(res, { ok: true });
      case "/pad": {
        const {
          n,
          name,
          url: address,
        } = z.object({ n: z.int().min(0).max(5), name: z.string().max(30), url: z.union([z.literal(""), z.url()]) }).parse(body);
        buttons[n] = { name, url: address };
        return json(res, { ok: true });
      }
      case "/pad/press": {
        const button = buttons[z.object({ n: z.int().min(0).max(5) }).parse(body).n];
        if (button === undefined || button.url === "") return json(res, { ok: false, words: "this button calls nothing yet" });
        const answer = await fetch(button.url, { signal: AbortSignal.timeout(5_000) }).catch(() => null);
        const said = answer === null ? "Izzam does not answer" : await answer.text();
        note(button.name, ["button"], said);
        return json(res, { ok: answer?.status === 200, words: said });
      }
      case "/studio": {
        const { show, manner, scenes } = studioBody.parse(body);
        if (scenes !== undefined) studio.have(scenes);
        if (manner !== undefined) studio.behave(manner);
        if (show !== undefined) studio.show(show);
        return json(res, { ok: true });
      }
      case "/fault":
        irc.setFault(z.object({ fault: z.enum(faults) }).parse(body).fault);
        return json(res, { ok: true });
      case "/raw":
        irc.raw(Buffer.from(z.object({ base64: z.string().max(200_000) }).parse(body).base64, "base64"));
        return json(res, { ok: true });
      default:
        return json(res, { ok: false }, 404);
    }
  };

  const server = createServer((req, res) => {
    // Only pages of this rig, and programs, may act: no other site's page by way of the browser.
    if (!/^(localhost|127\.0\.0\.1)(:\d+)?$/.test(req.headers.host ?? "")) return send(res, 421, "text/plain", "loopback only");
    const url = new URL(req.url ?? "/", "http://localhost");
    const path = url.pathname;
    const emote = /^\/(emotes|own)\/([A-Za-z0-9_-]{1,64})$/.exec(path);
    const film = /^\/shelf\/([\w.-]{1,40})$/.exec(path)?.[1];
    const avatar = /^\/avatars\/([\w-]{1,40})$/.exec(path)?.[1] ?? null;
    if (req.method === "POST") {
      const origin = req.headers.origin;
      if (origin !== undefined && hostOf(origin) !== req.headers.host) return json(res, { ok: false }, 403);
      act(req, res, path).catch((error: unknown) =>
        json(res, { ok: false, words: error instanceof z.ZodError ? z.prettifyError(error) : String(error) }, 400),
      );
    } else if (path === "/.well-known/webfinger") {
      const found = jrdOf(url.searchParams.get("resource") ?? "", `http://${req.headers.host ?? ""}`);
      if (found === null) send(res, 404, "text/plain", "nobody of that name");
      else send(res, 200, "application/jrd+json", JSON.stringify(found));
    } else if (film !== undefined) shelf.serve(req, res, film);
    else if (avatar !== null) {
      const drawn = avatarOf(avatar);
      if (drawn === null) send(res, 404, "text/plain", "no picture");
      else send(res, 200, "image/svg+xml", drawn);
    } else if (path === "/") send(res, 200, "text/html; charset=utf-8", readFileSync(join(page, "index.html")));
    else if (/^\/[\w.-]+\.(js|css|woff2?|woff)$/.test(path)) {
      try {
        send(
          res,
          200,
          path.endsWith(".js") ? "text/javascript" : path.endsWith(".css") ? "text/css" : "font/woff2",
          readFileSync(join(page, path)),
        );
      } catch {
        send(res, 404, "text/plain", "not found");
      }
    } else if (path === "/state") json(res, state(Number(url.searchParams.get("after") ?? 0) || 0));
    else if (path === "/set-up")
      json(res, { people, own, platform, emoji, rooms, channel, reactions: Object.keys(reactions), films: shelf.list });
    else if (emote?.[1] === "emotes" && platform.includes(emote[2] ?? "")) svg(res, join(demo, "platform", `${emote[2]}.svg`));
    else if (emote?.[1] === "own" && own.includes(emote[2] ?? "")) {
      try {
        svg(res, join(demo, "emotes", `${emote[2]}.svg`));
      } catch {
        svg(res, join(demo, "emotes", String(emote[2]), "03.svg"));
      }
    } else send(res, 404, "text/plain", "not found");
  });
  server.on("upgrade", (req, socket, head) => {
    // A studio is for programs: no page of a browser may reach it.
    const ours = /^(localhost|127\.0\.0\.1)(:\d+)?$/.test(req.headers.host ?? "") && req.headers.origin === undefined;
    if (ours && (req.url ?? "").split("?")[0] === "/studio/rpc") studio.upgrade(req, socket, head);
    else socket.destroy();
  });
  return {
    heard: (name: string, text: string) => note(name, ["program"], text),
    listen: (port: number) => new Promise<void>((resolve, reject) => server.once("error", reject).listen(port, "127.0.0.1", resolve)),
    close: async () => {
      player.stop();
      studio.close();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

/** A sandboxed page says `null`, and anybody may say anything: neither is a host. */
function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
