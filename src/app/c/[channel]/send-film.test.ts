/** @jest-environment jsdom */
import { afterAll, beforeAll, expect, jest, test } from "@jest/globals";
import { createServer, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { mostViewerFilmBytes } from "../../../core/props/sizes";
import { sendFilm } from "./send";

let server: Server;
let answers: ((res: ServerResponse) => void)[] = [];
beforeAll(async () => {
  // The simulated browser writes down by itself that a server hung up, which is what is tested.
  jest.spyOn(console, "error").mockImplementation(() => undefined);
  server = createServer((req, res) => {
    res.setHeader("access-control-allow-origin", "*");
    if (req.method === "OPTIONS") return void res.writeHead(204).end();
    req.resume().on("end", () => answers.shift()?.(res));
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const base = document.createElement("base");
  base.href = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
  document.head.append(base);
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});
const film = new File(["film"], "film.webm", { type: "video/webm" });

test("a film that is sent ahead is known by what it came to; what is not taken is told in words", async () => {
  const words: string[] = [];
  const told = (text: string): void => void words.push(text);
  answers = [
    (res) => void res.end('{"ok":true,"value":{"source":"f-1"}}'),
    (res) => void res.writeHead(422).end('{"ok":false,"words":"This is no film."}'),
    (res) => void res.destroy(),
  ];
  expect(await sendFilm("kiln", film, told)).toBe("f-1");
  expect(words[0]).toBe("Sending the film …");
  expect(await sendFilm("kiln", film, told)).toBeNull();
  expect(words.at(-1)).toBe("This is no film.");
  expect(await sendFilm("kiln", film, told)).toBeNull();
  expect(words.at(-1)).toContain("Nothing was paid");
});

test("one that is too large is not sent at all", async () => {
  const words: string[] = [];
  const large = new File([], "long.webm");
  Object.defineProperty(large, "size", { value: mostViewerFilmBytes + 1 });
  answers = [];
  expect(await sendFilm("kiln", large, (text) => void words.push(text))).toBeNull();
  expect(words).toEqual(["The file is larger than 40 MB."]);
});
