import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { connect, createServer, type Socket } from "node:net";
import { EventSender } from "./events";
import { IrcServer } from "./irc-server";
import { PracticeStudio } from "./studio";
import { practiceWeb } from "./web";

let irc: IrcServer;
let web: ReturnType<typeof practiceWeb>;
let base: string;
let client: Socket;
let heard = "";

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === "object" && address !== null ? address.port : 0));
    });
  });
const until = async (check: () => boolean): Promise<void> => {
  for (let i = 0; i < 200 && !check(); i += 1) await new Promise((resolve) => setTimeout(resolve, 20));
  expect(check()).toBe(true);
};
const post = (path: string, body: unknown, headers: Record<string, string> = {}): Promise<Response> =>
  fetch(`${base}${path}`, { method: "POST", headers, body: JSON.stringify(body) });

beforeAll(async () => {
  irc = new IrcServer();
  const port = await irc.listen(0);
  web = practiceWeb({ irc, events: new EventSender("", ""), studio: new PracticeStudio(), demo: "demo", page: "src/practice/page" });
  const webPort = await freePort();
  await web.listen(webPort);
  base = `http://localhost:${webPort}`;
  client = connect(port, "127.0.0.1");
  client.on("data", (data) => (heard += String(data)));
  client.write("CAP LS 302\r\nCAP REQ :message-tags\r\nNICK ear\r\nUSER ear 0 * ear\r\nCAP END\r\nJOIN #saltmarsh-kiln\r\n");
  await until(() => heard.includes(" 366 "));
});
afterAll(async () => {
  client.destroy();
  await web.close();
  await irc.close();
});

describe("the practice rig's page", () => {
  test("offers the people, the emotes and the rooms", async () => {
    const setUp = (await (await fetch(`${base}/set-up`)).json()) as {
      people: { nick: string }[];
      own: string[];
      platform: string[];
      rooms: object;
    };
    expect(setUp.people.length).toBeGreaterThan(30);
    expect(new Set(setUp.people.map((p) => p.nick)).size).toBe(setUp.people.length);
    expect([setUp.own.length, setUp.platform, Object.keys(setUp.rooms)]).toEqual([
      12,
      ["gull", "hornblow", "lantern", "tide"],
      ["quiet", "usual", "busy", "storm"],
    ]);
    for (const path of ["/own/teaPot", "/own/wobblePot", "/emotes/gull"])
      expect((await fetch(`${base}${path}`)).headers.get("content-type")).toBe("image/svg+xml");
    expect((await fetch(`${base}/emotes/nothing`)).status).toBe(404);
    expect((await fetch(`${base}/own/..%2f..%2fREADME`)).status).toBe(404);
  });
  test("what one says as somebody is heard in chat, with what the platform adds", async () => {
    await post("/say", { as: "wedgewright", text: "tide and gull" });
    await until(() => heard.includes("tide and gull"));
    expect(heard).toMatch(
      /@account=wedgewright;izzam\/name=WedgeWright;msgid=[0-9a-f-]{36};izzam\/roles=moderator,member;izzam\/emotes=0\+4=tide,9\+4=gull :wedgewright!/,
    );
    expect(((await (await fetch(`${base}/state`)).json()) as { log: { text: string }[] }).log.at(-1)!.text).toBe("tide and gull");
    expect(await (await post("/say", { as: "nobody-here", text: "x" })).json()).toEqual({ ok: false });
  });
  test("a crowd talks until it is asked to be quiet", async () => {
    await post("/crowd", { seed: 1, perSecond: 200, emoteShare: 0.5, copyShare: 0.2, rushesPerMinute: 0 });
    const said = async (): Promise<number> => ((await (await fetch(`${base}/state`)).json()) as { said: number }).said;
    for (let i = 0; i < 100 && (await said()) < 40; i += 1) await new Promise((resolve) => setTimeout(resolve, 30));
    expect(await said()).toBeGreaterThanOrEqual(40);
    await post("/crowd/stop", {});
    const after = await said();
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(await said()).toBe(after);
  });
  test("bad input is refused in words, and other sites' pages can do nothing", async () => {
    const bad = await post("/crowd", { seed: -1, perSecond: 1e9 });
    expect(bad.status).toBe(400);
    expect(((await bad.json()) as { words: string }).words).toContain("seed");
    expect((await post("/say", { as: "loamy", text: "x" }, { origin: "http://evil.invalid" })).status).toBe(403);
    expect((await post("/nowhere", {})).status).toBe(404);
  });
});
