import { afterEach, describe, expect, test } from "@jest/globals";
import { createServer, type Server, type Socket } from "node:net";
import { createServer as createTlsServer } from "node:tls";
import type { ChatLine } from "../../../core/chat/dialect";
import { IrcServer } from "../../../practice/irc-server";
import { saidLine } from "../../../practice/platform";
import { people } from "../../../practice/viewers";
import type { Chat, ChatStanding } from "../../ports/chat";
import { ircChat, type IrcTiming } from "./connection";
import { type ChatSettings, chatSettingsSchema } from "./settings";
import { testCertificate, testKey } from "./test-certificate";

const channel = "#saltmarsh-kiln";
const fast: IrcTiming = { connectMs: 400, quietMs: 300, pongMs: 250, firstRetryMs: 40, longestRetryMs: 200 };
const ends: (() => unknown)[] = [];
afterEach(async () => {
  for (const end of ends.splice(0).reverse()) await end();
});

const settings = (port: number, part: Partial<ChatSettings> = {}): ChatSettings =>
  chatSettingsSchema.parse({
    host: "127.0.0.1",
    port,
    tls: false,
    nick: "izzam",
    login: "none",
    channel,
    emotePictures: "",
    dialect: {},
    ...part,
  });
const until = async (check: () => boolean, what: string, withinMs = 4_000): Promise<void> => {
  for (let waited = 0; !check(); waited += 10) {
    if (waited > withinMs) throw new Error(`waited in vain for: ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
};
type Talk = { chat: Chat; lines: ChatLine[]; standings: ChatStanding[]; now: () => ChatStanding };
function talk(at: ChatSettings, password = "", timing = fast, behind = (): boolean => false): Talk {
  const lines: ChatLine[] = [];
  const standings: ChatStanding[] = [];
  const chat = ircChat(at, password, { onLine: (l) => lines.push(l), onStanding: (s) => standings.push(s), behind }, timing);
  ends.push(() => chat.stop());
  chat.start();
  return { chat, lines, standings, now: () => chat.standing() };
}
const rig = async (options: ConstructorParameters<typeof IrcServer>[0] = {}): Promise<{ irc: IrcServer; port: number }> => {
  const irc = new IrcServer(options);
  ends.push(() => irc.close());
  return { irc, port: await irc.listen(0) };
};
/** A server that does just what a test says. */
const raw = async (onSocket: (socket: Socket) => void, tls = false): Promise<{ server: Server; port: number; sockets: Socket[] }> => {
  const sockets: Socket[] = [];
  const greet = (socket: Socket): void => {
    sockets.push(socket);
    socket.on("error", () => undefined);
    onSocket(socket);
  };
  const server = tls ? createTlsServer({ cert: testCertificate, key: testKey }, greet) : createServer(greet);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  ends.push(
    () =>
      new Promise((resolve) => {
        for (const s of sockets) s.destroy();
        server.close(resolve);
      }),
  );
  const address = server.address();
  return { server, port: typeof address === "object" && address !== null ? address.port : 0, sockets };
};
const letIn = (socket: Socket): void => {
  socket.on("data", (data) => {
    if (String(data).includes("CAP LS")) socket.write(":s CAP * LS :\r\n");
    if (String(data).includes("USER")) socket.write(":s 001 izzam :hi\r\n");
    if (String(data).includes("JOIN")) socket.write(`:s 366 izzam ${channel} :end\r\n`);
  });
};

describe("chat over IRC", () => {
  test("connects, joins and hears who said what, with what the platform adds", async () => {
    const { irc, port } = await rig();
    const { lines, now } = talk(settings(port));
    await until(() => now().state === "connected", "connected");
    const mossy = people.find((p) => p.nick === "mossy_teapot")!;
    irc.say(channel, saidLine(mossy, channel, "🔥 tide wobblePot; a\\b", ["tide"], "id-1"));
    await until(() => lines.length === 1, "a line");
    expect(lines[0]).toEqual({
      id: "id-1",
      viewerId: "mossy_teapot",
      name: "mossy_teapot",
      roles: ["member"],
      text: "🔥 tide wobblePot; a\\b",
      marks: [{ start: 3, length: 4, id: "tide" }],
      target: channel,
    });
  });
  test("talk of other channels and its own echo are not chat", async () => {
    const { irc, port } = await rig();
    const { lines, now } = talk(settings(port));
    await until(() => now().state === "connected", "connected");
    irc.say(channel, `:izzam!i@h PRIVMSG ${channel} :mine`);
    irc.say(channel, ":a!a@h PRIVMSG #elsewhere :other");
    irc.say(channel, `:a!a@h PRIVMSG ${channel} :ours`);
    await until(() => lines.length > 0, "a line");
    expect(lines.map((l) => l.text)).toEqual(["ours"]);
  });
  test("signs in with PASS and with SASL, and says plainly when the password is wrong", async () => {
    const { port } = await rig({ password: "glaze" });
    for (const login of ["pass", "sasl"] as const) {
      const good = talk(settings(port, { login, nick: `good_${login}` }), "glaze");
      await until(() => good.now().state === "connected", `${login} connected`);
      const bad = talk(settings(port, { login, nick: `bad_${login}` }), "wrong");
      await until(() => bad.standings.some((s) => /password/.test(s.lastError)), `${login} refused`);
      expect(bad.now().lastError).toBe(`The chat server does not accept the password for bad_${login}.`);
    }
  });
  test("takes another name when its own is in use", async () => {
    const { irc, port } = await rig();
    const first = talk(settings(port));
    await until(() => first.now().state === "connected", "first connected");
    const second = talk(settings(port));
    await until(() => second.now().state === "connected", "second connected");
    expect(irc.connected).toBe(2);
  });
  test("speaks TLS; an unknown certificate is refused unless it was allowed", async () => {
    const { port } = await raw(letIn, true);
    const strict = talk(settings(port, { tls: true }));
    await until(() => /certificate/.test(strict.now().lastError), "refused");
    const own = talk(settings(port, { tls: true, tlsUnverified: true }));
    await until(() => own.now().state === "connected", "connected");
  });
});

test("two channels in one name are refused where they are typed", () => {
  expect(chatSettingsSchema.safeParse({ ...settings(6667), channel: "#a,#b" }).success).toBe(false);
  expect(chatSettingsSchema.safeParse({ ...settings(6667), channel: "#a #b" }).success).toBe(false);
});

describe("servers that misbehave", () => {
  test("one that is not there: says what to check, waits longer each time, comes back when it is there", async () => {
    const { port } = await rig();
    await ends.pop()!();
    const { standings, now } = talk(settings(port));
    await until(() => standings.filter((s) => s.state === "waiting").length >= 4, "four tries");
    expect(now().lastError).toContain(`Nothing answers at 127.0.0.1:${port}`);
    const waits = standings.filter((s) => s.state === "waiting").map((s) => s.retryAtMs! - s.sinceMs);
    expect(waits[3]!).toBeGreaterThan(waits[0]! + 20);
    const irc = new IrcServer();
    ends.push(() => irc.close());
    await irc.listen(port);
    await until(() => now().state === "connected", "connected at last");
    expect(now().lastError).toBe("");
  });
  test("one that hangs is given up in time, though it accepts connections", async () => {
    const { port } = await raw(() => undefined);
    const { now, standings } = talk(settings(port));
    await until(
      () => standings.some((s) => / did not answer in time\. If this is the server’s TLS port, turn TLS on/.test(s.lastError)),
      "given up",
    );
    expect(["waiting", "connecting"]).toContain(now().state);
  });
  test("one that lets Izzam in and not speak: connected, and says so until it may", async () => {
    let client: Socket | undefined;
    const { port } = await raw((s) => {
      letIn(s);
      client = s;
      s.on(
        "data",
        (data: Buffer) => data.toString().includes("PRIVMSG") && s.write(`:s 404 izzam ${channel} :Cannot send to channel (+m)\r\n`),
      );
    });
    const { chat, now } = talk(settings(port));
    await until(() => now().state === "connected", "connected");
    chat.say("hello");
    await until(() => now().lastError !== "", "told");
    expect(now()).toMatchObject({ state: "connected", lastError: expect.stringContaining("but not speak there (a moderated room)") });
    client!.write(`:s MODE ${channel} +v izzam\r\n`);
    await until(() => now().lastError === "", "free again");
  });
  test("TLS asked of a plain port is told as what it mostly is", async () => {
    const { port } = await raw(() => undefined);
    const { standings } = talk(settings(port, { tls: true }));
    await until(
      () => standings.some((s) => /did not answer to TLS in time\. If this is the server’s plain port, turn TLS off/.test(s.lastError)),
      "told",
    );
  });
  test("one that talks but never lets in is given up too", async () => {
    const { port } = await raw((s) => void setInterval(() => !s.destroyed && s.write(":s NOTICE * :wait\r\n"), 50).unref());
    const { standings } = talk(settings(port));
    await until(
      () => standings.some((s) => / did not answer in time\. If this is the server’s TLS port, turn TLS on/.test(s.lastError)),
      "given up",
    );
  });
  test("one that goes quiet is asked, and left when it stays quiet", async () => {
    const heard: string[] = [];
    const { port } = await raw((socket) => {
      letIn(socket);
      socket.on("data", (d) => heard.push(String(d)));
    });
    const { standings } = talk(settings(port));
    await until(() => heard.some((h) => h.includes("PING")), "asked");
    await until(() => standings.some((s) => s.lastError === "The chat server stopped answering."), "left");
  });
  test("one that drops the line is come back to", async () => {
    const { irc, port } = await rig();
    const { standings, now } = talk(settings(port));
    await until(() => now().state === "connected", "connected");
    irc.setFault("drop");
    await until(() => standings.some((s) => s.state === "waiting"), "lost");
    await until(() => now().state === "connected", "back");
    expect(now().lastTrouble).toMatchObject({ words: "The chat server closed the connection." });
  });
  test("its PING is answered with the same words", async () => {
    const heard: string[] = [];
    const { port, sockets } = await raw((socket) => {
      letIn(socket);
      socket.on("data", (d) => heard.push(String(d)));
    });
    const { now } = talk(settings(port));
    await until(() => now().state === "connected", "connected");
    sockets[0]!.write("PING :are you there\r\n");
    await until(() => heard.join("").includes("PONG :are you there"), "answer");
  });
  test("malformed lines, 8 KB lines, broken UTF-8 and 500 emotes harm nothing", async () => {
    const { irc, port } = await rig();
    const { lines, now } = talk(settings(port));
    await until(() => now().state === "connected", "connected");
    const say = (text: string | Buffer): void =>
      irc.raw(Buffer.concat([Buffer.from(`:a!a@h PRIVMSG ${channel} :`), Buffer.from(text), Buffer.from("\r\n")]));
    irc.raw(Buffer.from(":::: \r\n@\r\n\r\nPRIVMSG\r\n:x\r\n@a=b\r\n"));
    irc.raw(Buffer.from(`${"z".repeat(40_000)}\r\n`));
    say(Buffer.from([0xc3, 0x28, 0xff]));
    say("🔥".repeat(500));
    say("x".repeat(8_000));
    say("\u202E\u200Bok");
    await until(() => lines.some((l) => l.text.includes("ok")), "the last");
    expect(lines).toHaveLength(4);
    expect(now().state).toBe("connected");
    expect(now().dropped).toBeGreaterThan(0);
  });
  test("a flood of 50,000 lines is heard to the last; while others are behind no line of it is taken", async () => {
    const { irc, port } = await rig();
    let behind = false;
    const { lines, now } = talk(settings(port), "", fast, () => behind);
    await until(() => now().state === "connected", "connected");
    behind = true;
    irc.raw(Buffer.from(`:a!a@h PRIVMSG ${channel} :wobblePot\r\n`.repeat(50_000)));
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(lines).toHaveLength(0);
    behind = false;
    await until(() => lines.length === 50_000, "all", 15_000);
  });
});

describe("speaking", () => {
  test("is heard, keeps to the flood limit, and refuses what can't be said", async () => {
    const said: string[] = [];
    const { port } = await rig({ onHeard: (h) => said.push(h.text) });
    const { chat, now } = talk(settings(port, { mostPer30s: 3 }));
    expect(chat.say("too early")).toBe(false);
    await until(() => now().state === "connected", "connected");
    for (let i = 0; i < 10; i += 1) expect(chat.say(`line ${i}\r\nQUIT`)).toBe(true);
    expect(chat.say("   ")).toBe(false);
    await until(() => said.length >= 3, "three lines");
    await new Promise((resolve) => setTimeout(resolve, 400));
    expect(said).toEqual(["line 0 QUIT", "line 1 QUIT", "line 2 QUIT"]);
    expect(now().state).toBe("connected");
  });
  test("a text too long for a line is cut between characters", async () => {
    const said: string[] = [];
    const { port } = await rig({ onHeard: (h) => said.push(h.text) });
    const { chat, now } = talk(settings(port));
    await until(() => now().state === "connected", "connected");
    chat.say("🔥".repeat(300));
    await until(() => said.length === 1, "heard");
    expect(Buffer.byteLength(said[0]!)).toBeLessThanOrEqual(403);
    expect(said[0]).toMatch(/^🔥+…$/u);
  });
});
