import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { createServer, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { send } from "./send";

/** The page's own code against a server that answers as one that starts, falls over or hangs up does. */
let server: Server;
let answers: ((res: ServerResponse) => void)[] = [];
let ids: string[] = [];
const realFetch = globalThis.fetch;
/** What the page keeps over a reload. */
const kept = new Map<string, string>();
Object.assign(globalThis, {
  sessionStorage: {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  },
});
beforeAll(async () => {
  server = createServer((req, res) => {
    let text = "";
    req.on("data", (data: Buffer) => (text += data.toString()));
    req.on("end", () => {
      if (text.startsWith("{")) ids.push((JSON.parse(text) as { id: string }).id);
      const answer = answers.shift();
      if (answer === undefined) throw new Error("asked once too often");
      answer(res);
    });
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  globalThis.fetch = (path, init) => realFetch(`${base}${String(path)}`, init);
});
afterAll(() => {
  globalThis.fetch = realFetch;
  server.closeAllConnections();
  server.close();
});
beforeEach(() => {
  answers = [];
  ids = [];
});
afterEach(() => kept.clear());

const json = (status: number, body: unknown) => (res: ServerResponse) =>
  void res.writeHead(status, { "content-type": "application/json" }).end(JSON.stringify(body));
const no = (status: number, code: string, words = "No.") => json(status, { ok: false, refusal: { code, facts: {} }, words });
const yes = json(200, { ok: true, value: { words: "Bought." } });
const said: [string, boolean][] = [];
let rewards = 0;
/** Buys one thing again and again, as somebody does who presses again; the ids that were sent. */
async function presses(...given: ((res: ServerResponse) => void)[]): Promise<string[]> {
  const reward = `reward-${(rewards += 1)}`;
  answers = [...given];
  ids = [];
  said.length = 0;
  for (const _ of given) await send("kiln", "buy", reward, { reward }, (words, good) => said.push([words, good]));
  return ids;
}

describe("what a viewer sends", () => {
  const notYet: [string, (res: ServerResponse) => void][] = [
    ["the engine is starting", no(503, "engine/starting")],
    ["the engine is away", no(503, "engine/away")],
    ["the database is away", no(503, "store/away")],
    ["the channel is not known yet", no(404, "channel/unknown")],
    ["an older server has no such address", no(404, "address/unknown")],
    ["a defect", no(500, "defect")],
    ["too many tries", no(429, "sign-in/too-often")],
    ["the page is tied to nobody just now", no(422, "viewer/not-proven")],
    ["a page of HTML", (res) => void res.writeHead(503, { "content-type": "text/html" }).end("<p>starting")],
    ["nothing at all", (res) => void res.destroy()],
    [
      "half of a yes",
      (res) => (res.writeHead(200, { "content-length": "500" }), res.write('{"ok":true,"va'), void setTimeout(() => res.destroy(), 20)),
    ],
  ];
  test.each(notYet)("is the same request after: %s", async (_, answer) => {
    const [first, second, third] = await presses(answer, answer, yes);
    expect(second).toBe(first);
    expect(third).toBe(first);
    expect(said.map(([, good]) => good)).toEqual([false, false, true]);
  });

  test.each<[string, (res: ServerResponse) => void]>([
    ["a yes", yes],
    ["a no of its turn", no(422, "reward/cooling-down", "12 s to go.")],
    ["a reward that is gone", no(404, "reward/unknown")],
    ["a price that moved", no(409, "reward/price")],
  ])("is a new request after %s", async (_, answer) => {
    const [first, second] = await presses(answer, yes);
    expect(second).not.toBe(first);
  });

  test("keeps its id over a reload of the page, until it is answered", async () => {
    const reward = "over-a-reload";
    answers = [no(503, "engine/starting")];
    await send("kiln", "buy", reward, {}, () => undefined);
    expect(sessionStorage.getItem(`izzam-wish kiln ${reward}`)).toBe(ids[0]);
    answers = [yes];
    await send("kiln", "buy", reward, {}, () => undefined);
    expect(sessionStorage.getItem(`izzam-wish kiln ${reward}`)).toBeNull();
    expect(ids[1]).toBe(ids[0]);
  });

  test("says what came of it, and that a lost answer never costs twice", async () => {
    await presses(yes, no(422, "reward/cooling-down", "12 s to go."), (res) => void res.destroy());
    expect(said).toEqual([
      ["Bought.", true],
      ["12 s to go.", false],
      [expect.stringContaining("never paid twice"), false],
    ]);
  });
});
