import { createServer, type Server, type Socket } from "node:net";
import { escapeTag, formatLine, parseLine } from "../core/chat/line";

/** What the rig can make go wrong, to see how Izzam takes it. */
export const faults = ["none", "hang", "refuse", "drop"] as const;
export type Fault = (typeof faults)[number];

type Client = {
  socket: Socket;
  nick: string;
  user: boolean;
  caps: Set<string>;
  negotiating: boolean;
  welcomed: boolean;
  channels: Set<string>;
  rest: string;
  saidAt: number[];
  password: string;
  sasl: boolean;
};
export type Heard = Readonly<{ nick: string; channel: string; text: string }>;
type Options = Readonly<{ password?: string; onHeard?: (heard: Heard) => void; floodLines?: number }>;

const host = "practice.invalid";
const offered = ["message-tags", "account-tag", "sasl"];

/** A small, real IRC server: RFC 2812's core, IRCv3 capabilities, message tags and SASL PLAIN, on loopback. */
export class IrcServer {
  private readonly server: Server;
  private readonly clients = new Set<Client>();
  private fault: Fault = "none";

  constructor(private readonly options: Options = {}) {
    this.server = createServer((socket) => this.welcomeSocket(socket));
  }

  listen(port: number): Promise<number> {
    return new Promise((resolve, reject) => {
      this.server.once("error", reject);
      this.server.listen(port, "127.0.0.1", () => {
        const address = this.server.address();
        resolve(typeof address === "object" && address !== null ? address.port : port);
      });
    });
  }

  async close(): Promise<void> {
    for (const client of this.clients) client.socket.destroy();
    await new Promise((resolve) => this.server.close(resolve));
  }

  get connected(): number {
    return [...this.clients].filter((c) => c.welcomed).length;
  }

  setFault(fault: Fault): void {
    this.fault = fault;
    if (fault === "drop" || fault === "refuse") for (const client of [...this.clients]) client.socket.destroy();
    if (fault === "drop") this.fault = "none";
  }

  /** Sends one finished line to everybody in a channel; tags only to those who asked for them. */
  say(channel: string, line: string): void {
    if (this.fault === "hang") return;
    const bare = line.startsWith("@") ? line.slice(line.indexOf(" ") + 1) : line;
    for (const client of this.clients) {
      if (!client.channels.has(channel.toLowerCase()) || client.socket.destroyed) continue;
      client.socket.write(`${client.caps.has("message-tags") ? line : bare}\r\n`);
    }
  }

  /** Bytes as they are, for malformed input. */
  raw(bytes: Buffer): void {
    for (const client of this.clients) client.socket.write(bytes);
  }

  private welcomeSocket(socket: Socket): void {
    if (this.fault === "refuse") return void socket.destroy();
    const client: Client = {
      socket,
      nick: "",
      user: false,
      caps: new Set(),
      negotiating: false,
      welcomed: false,
      channels: new Set(),
      rest: "",
      saidAt: [],
      password: "",
      sasl: false,
    };
    this.clients.add(client);
    socket.setEncoding("utf8");
    socket.setNoDelay(true);
    socket.on("error", () => undefined);
    socket.on("close", () => this.clients.delete(client));
    socket.on("data", (chunk: string) => {
      if (this.fault === "hang") return;
      const parts = (client.rest + chunk).split("\n");
      client.rest = (parts.pop() ?? "").slice(-16_384);
      for (const part of parts) this.take(client, part.replace(/\r$/, ""));
    });
  }

  private reply(client: Client, code: string, ...params: string[]): void {
    client.socket.write(`${formatLine(code, [client.nick || "*", ...params], { from: host })}\r\n`);
  }

  private end(client: Client, why: string): void {
    client.socket.end(`${formatLine("ERROR", [why])}\r\n`);
  }

  private take(client: Client, text: string): void {
    const line = parseLine(text);
    if (line === null) return;
    const [first = "", second = ""] = line.params;
    switch (line.command.toUpperCase()) {
      case "CAP":
        return this.onCap(client, first.toUpperCase(), line.params[line.params.length - 1] ?? "");
      case "AUTHENTICATE":
        return this.onSasl(client, first);
      case "PASS":
        client.password = first;
        return;
      case "NICK":
        return this.onNick(client, first);
      case "USER":
        client.user = true;
        return this.tryWelcome(client);
      case "PING":
        client.socket.write(`${formatLine("PONG", [host, first], { from: host })}\r\n`);
        return;
      case "JOIN":
        return this.onJoin(client, first);
      case "PART":
        client.channels.delete(first.toLowerCase());
        return;
      case "PRIVMSG":
        return this.onMessage(client, first, second);
      case "QUIT":
        return this.end(client, "bye");
      case "PONG":
      case "MODE":
      case "WHO":
      case "TAGMSG":
        return;
      default:
        this.reply(client, "421", line.command, "Unknown command");
    }
  }

  private onCap(client: Client, verb: string, list: string): void {
    if (verb === "LS") {
      client.negotiating = !client.welcomed;
      this.reply(client, "CAP", "LS", offered.join(" "));
    } else if (verb === "REQ") {
      const wanted = list.split(" ").filter((c) => c !== "");
      const good = wanted.every((c) => offered.includes(c));
      if (good) for (const cap of wanted) client.caps.add(cap);
      this.reply(client, "CAP", good ? "ACK" : "NAK", list);
    } else if (verb === "END") {
      client.negotiating = false;
      this.tryWelcome(client);
    }
  }

  private onSasl(client: Client, text: string): void {
    if (text === "PLAIN") return void client.socket.write("AUTHENTICATE +\r\n");
    const password = Buffer.from(text, "base64").toString("utf8").split("\0")[2] ?? "";
    client.sasl = this.options.password === undefined || password === this.options.password;
    if (client.sasl) this.reply(client, "903", "SASL authentication successful");
    else this.reply(client, "904", "SASL authentication failed");
  }

  private onNick(client: Client, nick: string): void {
    if (!/^[A-Za-z_[\]\\^{}|`][\w[\]\\^{}|`-]{0,39}$/.test(nick)) return this.reply(client, "432", nick, "Erroneous nickname");
    if ([...this.clients].some((c) => c !== client && c.nick.toLowerCase() === nick.toLowerCase()))
      return this.reply(client, "433", nick, "Nickname is already in use");
    client.nick = nick;
    this.tryWelcome(client);
  }

  private tryWelcome(client: Client): void {
    if (client.welcomed || client.negotiating || !client.user || client.nick === "") return;
    const { password } = this.options;
    if (password !== undefined && client.password !== password && !client.sasl) {
      this.reply(client, "464", "Password incorrect");
      return this.end(client, "access denied");
    }
    client.welcomed = true;
    this.reply(client, "001", `Welcome to the practice rig, ${client.nick}`);
    this.reply(client, "002", `Your host is ${host}`);
    this.reply(client, "004", host, "izzam-practice", "o", "n");
    this.reply(client, "005", "CHANTYPES=#", "NETWORK=practice", "are supported by this server");
    this.reply(client, "422", "No message of the day");
  }

  private onJoin(client: Client, names: string): void {
    if (!client.welcomed) return this.reply(client, "451", "You have not registered");
    for (const name of names.split(",")) {
      if (!/^#[^\s,]{1,60}$/.test(name)) {
        this.reply(client, "403", name, "No such channel");
        continue;
      }
      client.channels.add(name.toLowerCase());
      client.socket.write(`${formatLine("JOIN", [name], { from: `${client.nick}!${client.nick}@${host}` })}\r\n`);
      this.reply(client, "353", "=", name, client.nick);
      this.reply(client, "366", name, "End of /NAMES list");
    }
  }

  private onMessage(client: Client, target: string, text: string): void {
    if (!client.channels.has(target.toLowerCase())) return this.reply(client, "404", target, "Cannot send to channel");
    const now = Date.now();
    client.saidAt = client.saidAt.filter((t) => now - t < 10_000);
    client.saidAt.push(now);
    if (client.saidAt.length > (this.options.floodLines ?? 30)) return this.end(client, "Excess flood");
    for (const other of this.clients) {
      if (other === client || !other.channels.has(target.toLowerCase())) continue;
      const tag = other.caps.has("account-tag") ? `@account=${escapeTag(client.nick.toLowerCase())} ` : "";
      other.socket.write(`${tag}${formatLine("PRIVMSG", [target, text], { from: `${client.nick}!${client.nick}@${host}` })}\r\n`);
    }
    this.options.onHeard?.({ nick: client.nick, channel: target, text });
  }
}
