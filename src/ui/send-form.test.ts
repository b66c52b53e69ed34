/** @jest-environment jsdom */
import { afterAll, beforeAll, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { sendForm } from "./send-form";

let server: Server;
let at = "";
let answer: (req: IncomingMessage, res: ServerResponse, body: Buffer) => void;
let heard = 0;
beforeAll(async () => {
  // The simulated browser writes down by itself that a server hung up, which is what is tested.
  jest.spyOn(console, "error").mockImplementation(() => undefined);
  server = createServer((req, res) => {
    res.setHeader("access-control-allow-origin", "*").setHeader("access-control-allow-methods", "POST, PUT");
    if (req.method === "OPTIONS") return void res.writeHead(204).end();
    const parts: Buffer[] = [];
    req.on("data", (part: Buffer) => parts.push(part));
    req.on("end", () => {
      heard += 1;
      answer(req, res, Buffer.concat(parts));
    });
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  at = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/props`;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});
beforeEach(() => {
  heard = 0;
});
const file = new File(["a film of some length"], "film.webm");

describe("a file that is sent", () => {
  test("comes as the field of a form", async () => {
    let body = "";
    answer = (_, res, bytes) => {
      body = bytes.toString();
      res.end('{"ok":true,"value":[]}');
    };
    expect(await sendForm(at, "film", file)).toEqual({ status: 200, answer: { ok: true, value: [] } });
    expect(body).toContain('name="film"; filename="film.webm"');
    expect(body).toContain("a film of some length");
  });
  test("is answered as the server answers, with its no", async () => {
    answer = (_, res) => void res.writeHead(422).end('{"ok":false,"words":"No."}');
    expect(await sendForm(at, "file", file, { method: "PUT" })).toEqual({ status: 422, answer: { ok: false, words: "No." } });
  });
  test.each<[string, typeof answer]>([
    ["hangs up", (_, res) => void res.destroy()],
    ["answers with a page", (_, res) => void res.end("<p>starting")],
  ])("has no answer where the server %s", async (_, how) => {
    answer = how;
    expect(await sendForm(at, "file", file)).toBe("no-answer");
  });
  test("is called back before it goes, and on its way", async () => {
    answer = () => undefined;
    const early = new AbortController();
    early.abort();
    expect(await sendForm(at, "file", file, { signal: early.signal })).toBe("cancelled");
    expect(heard).toBe(0);
    const late = new AbortController();
    const sent = sendForm(at, "file", file, { signal: late.signal });
    while (heard === 0) await new Promise((resolve) => setTimeout(resolve, 5));
    late.abort();
    expect(await sent).toBe("cancelled");
  });
});
