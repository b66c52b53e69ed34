import { connect as connectTcp, type Socket } from "node:net";
import { connect as connectTls } from "node:tls";
import { chatReader } from "../../../core/chat/dialect";
import { formatLine, type Line, parseLine } from "../../../core/chat/line";
import type { Chat, ChatEvents, ChatStanding } from "../../ports/chat";
import { mayNotSpeak, troubleInWords } from "./trouble";
import type { ChatSettings } from "./settings";
import { Pace } from "./pace";
import { LineSplitter } from "./splitter";

export type IrcTiming = Readonly<{ connectMs: number; quietMs: number; pongMs: number; firstRetryMs: number; longestRetryMs: number }>;
const usual: IrcTiming = { connectMs: 15_000, quietMs: 60_000, pongMs: 15_000, firstRetryMs: 1_000, longestRetryMs: 60_000 };
const mostQueued = 50;

/**
 * A connection to an IRC server (RFC 2812; IRCv3 capabilities, message tags and SASL PLAIN), kept up:
 * answers PING, asks itself when the server is quiet, and comes back after a growing, jittered wait.
 */
export function ircChat(settings: ChatSettings, password: string, events: ChatEvents, timing: IrcTiming = usual): Chat {
  const read = chatReader(settings.dialect);
  let socket: Socket | null = null;
  let wanted = false;
  let tries = 0;
  let nick = settings.nick;
  let retry: NodeJS.Timeout | null = null;
  let watch: NodeJS.Timeout | null = null;
  let talk: NodeJS.Timeout | null = null;
  let outbox: string[] = [];
  let saidAtMs: number[] = [];
  let now: ChatStanding = { state: "off", sinceMs: Date.now(), lastError: "", lastTrouble: null, retryAtMs: null, dropped: 0 };

  const stand = (next: Partial<ChatStanding>): void => {
    now = { ...now, ...next, sinceMs: next.state !== undefined && next.state !== now.state ? Date.now() : now.sinceMs };
    events.onStanding(now);
  };
  const write = (command: string, ...params: string[]): void => void socket?.write(`${formatLine(command, params)}\r\n`);

  const watchFor = (ms: number, then: () => void): void => {
    if (watch !== null) clearTimeout(watch);
    watch = setTimeout(then, ms);
  };
  const listen = (): void =>
    watchFor(timing.quietMs, () => {
      write("PING", "izzam");
      watchFor(timing.pongMs, () => fail("The chat server stopped answering."));
    });

  const fail = (words: string): void => {
    if (socket === null) return;
    const old = socket;
    socket = null;
    old.removeAllListeners();
    // A late error of a socket nobody listens to any more would end the process.
    old.on("error", () => undefined);
    old.destroy();
    if (watch !== null) clearTimeout(watch);
    if (!wanted) return;
    tries += 1;
    const longest = Math.min(timing.longestRetryMs, timing.firstRetryMs * 2 ** (tries - 1));
    const waitMs = Math.round(longest * (0.5 + Math.random() * 0.5));
    stand({ state: "waiting", lastError: words, lastTrouble: { words, atMs: Date.now() }, retryAtMs: Date.now() + waitMs });
    retry = setTimeout(open, waitMs);
  };

  const register = (): void => {
    write("CAP", "LS", "302");
    if (settings.login === "pass") write("PASS", password);
    write("NICK", nick);
    write("USER", settings.nick, "0", "*", settings.nick);
  };

  const onCap = (line: Line): void => {
    const verb = line.params[1]?.toUpperCase();
    const offered = (line.params[line.params.length - 1] ?? "").split(" ").map((c) => c.split("=")[0] ?? "");
    if (verb === "LS") {
      const ask = ["message-tags", "account-tag", ...(settings.login === "sasl" ? ["sasl"] : [])].filter((c) => offered.includes(c));
      if (settings.login === "sasl" && !ask.includes("sasl"))
        fail("The chat server does not offer SASL sign-in. Choose a password or none.");
      else if (ask.length > 0) write("CAP", "REQ", ask.join(" "));
      else write("CAP", "END");
    } else if (verb === "ACK") {
      if (offered.includes("sasl")) write("AUTHENTICATE", "PLAIN");
      else write("CAP", "END");
    } else if (verb === "NAK") {
      write("CAP", "END");
    }
  };

  const onLine = (text: string): void => {
    const line = parseLine(text);
    if (line === null) {
      now = { ...now, dropped: now.dropped + 1 };
      return;
    }
    const chat = read(line);
    if (chat !== null) {
      if (chat.target.toLowerCase() === settings.channel.toLowerCase() && line.from.toLowerCase() !== nick.toLowerCase())
        events.onLine(chat);
      return;
    }
    switch (line.command) {
      case "PING":
        write("PONG", ...line.params);
        return;
      case "CAP":
        onCap(line);
        return;
      case "AUTHENTICATE":
        if (line.params[0] === "+") write("AUTHENTICATE", Buffer.from(`\0${settings.nick}\0${password}`).toString("base64"));
        return;
      case "903":
        write("CAP", "END");
        return;
      case "001":
        nick = line.params[0] ?? nick;
        write("JOIN", settings.channel);
        return;
      case "366":
        tries = 0;
        listen();
        stand({ state: "connected", lastError: "", retryAtMs: null });
        return;
      case "433":
        nick = `${settings.nick.slice(0, 30)}_${Math.floor(Math.random() * 900 + 100)}`;
        write("NICK", nick);
        return;
      case "NICK":
        if (line.from === nick) nick = line.params[0] ?? nick;
        return;
      case "KICK":
        if (line.params[1] === nick) fail(`Izzam was removed from ${settings.channel}.`);
        return;
      case "MODE":
        // The room's rules, or Izzam's own voice, changed: the next line shows whether it arrives.
        if (line.params[0]?.toLowerCase() === settings.channel.toLowerCase() && now.lastError !== "") stand({ lastError: "" });
        return;
      default: {
        const mute = mayNotSpeak(line, settings);
        if (mute !== null) return stand({ lastError: mute, lastTrouble: { words: mute, atMs: Date.now() } });
        const words = troubleInWords(line, settings);
        if (words !== null) fail(words);
      }
    }
  };

  const open = (): void => {
    if (!wanted) return;
    nick = settings.nick;
    stand({ state: "connecting", retryAtMs: null });
    const at = { host: settings.host, port: settings.port };
    const fresh: Socket = settings.tls
      ? connectTls(
          { ...at, servername: /^[\d.:]+$/.test(settings.host) ? undefined : settings.host, rejectUnauthorized: !settings.tlsUnverified },
          register,
        )
      : connectTcp(at, register);
    socket = fresh;
    fresh.setNoDelay(true);
    const pace = new Pace(
      (line) => socket === fresh && onLine(line),
      { pause: () => void fresh.pause(), resume: () => void fresh.resume() },
      () => events.behind?.() === true,
    );
    const lines = new LineSplitter((line) => pace.push(line));
    watchFor(timing.connectMs, () =>
      fail(
        settings.tls
          ? `${at.host}:${at.port} did not answer to TLS in time. If this is the server’s plain port, turn TLS off, or use its TLS port (mostly 6697).`
          : `${at.host}:${at.port} did not answer in time. If this is the server’s TLS port, turn TLS on, or use its plain port (mostly 6667).`,
      ),
    );
    fresh.on("data", (chunk: Buffer) => {
      const droppedBefore = lines.dropped;
      lines.push(chunk);
      if (lines.dropped > droppedBefore) now = { ...now, dropped: now.dropped + lines.dropped - droppedBefore };
      // Until it has let us in, the server's talking does not put off the time it has for that.
      if (socket === fresh && now.state === "connected") listen();
    });
    fresh.on("error", (error: NodeJS.ErrnoException) => fail(errorInWords(error, settings)));
    fresh.on("close", () => {
      // Its last words say why.
      pace.finish();
      fail("The chat server closed the connection.");
    });
  };

  const speak = (): void => {
    talk = null;
    const atMs = Date.now();
    saidAtMs = saidAtMs.filter((t) => atMs - t < 30_000);
    while (outbox.length > 0 && saidAtMs.length < settings.mostPer30s && now.state === "connected") {
      write("PRIVMSG", settings.channel, outbox.shift() ?? "");
      saidAtMs.push(atMs);
    }
    if (outbox.length > 0) talk = setTimeout(speak, Math.max(250, (saidAtMs[0] ?? atMs) + 30_000 - atMs));
  };

  return {
    start: () => {
      if (wanted) return;
      wanted = true;
      open();
    },
    stop: async () => {
      wanted = false;
      for (const timer of [retry, watch, talk]) if (timer !== null) clearTimeout(timer);
      outbox = [];
      const old = socket;
      socket = null;
      if (old !== null) {
        old.removeAllListeners();
        old.on("error", () => undefined);
        old.end("QUIT :bye\r\n");
        setTimeout(() => old.destroy(), 200).unref();
      }
      stand({ state: "off", retryAtMs: null });
    },
    say: (text) => {
      const line = text.replace(/[\r\n\0]+/g, " ").trim();
      if (line === "" || now.state !== "connected" || outbox.length >= mostQueued) return false;
      outbox.push(fitting(line));
      if (talk === null) talk = setTimeout(speak, 0);
      return true;
    },
    standing: () => now,
  };
}

/** A line is at most 512 bytes with command and line end; what is over is cut between characters. */
function fitting(text: string): string {
  let bytes = 0;
  let out = "";
  for (const char of text) {
    bytes += Buffer.byteLength(char);
    if (bytes > 400) return `${out}…`;
    out += char;
  }
  return out;
}

function errorInWords(error: NodeJS.ErrnoException, { host, port, tls }: ChatSettings): string {
  const at = `${host}:${port}`;
  switch (error.code) {
    case "ECONNREFUSED":
      return `Nothing answers at ${at}. Check address and port, and that the server runs.`;
    case "ENOTFOUND":
    case "EAI_AGAIN":
      return `The address ${host} is not known. Check its spelling and this computer’s network.`;
    case "ETIMEDOUT":
    case "EHOSTUNREACH":
    case "ENETUNREACH":
      return `${at} can’t be reached from this computer.`;
    case "ECONNRESET":
    case "EPIPE":
      return "The connection to the chat server broke off.";
    default:
      if (/CERT|SELF_SIGNED|ALTNAME/.test(error.code ?? "")) return `The certificate of ${host} can’t be trusted (${error.code}).`;
      if (tls && /SSL|TLS|EPROTO/.test(error.code ?? "")) return `${at} does not speak TLS. Turn TLS off, or use the server’s TLS port.`;
      return `The connection failed (${error.code ?? "unknown"}).`;
  }
}
