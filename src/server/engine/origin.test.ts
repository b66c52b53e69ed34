import { describe, expect, test } from "@jest/globals";
import type { IncomingMessage } from "node:http";
import { askers, fromHere } from "./origin";

const req = (remoteAddress: string, headers: Record<string, string> = {}): IncomingMessage =>
  ({ socket: { remoteAddress }, headers }) as never;

describe("who asks", () => {
  const ask = askers(["10.0.0.7", "192.168.4.0/24", "::1"]);
  test("straight from the network it is who connects, whatever the headers say", () => {
    expect(ask(req("203.0.113.9", { "x-forwarded-for": "127.0.0.1", "x-forwarded-proto": "https" }))).toEqual({
      address: "203.0.113.9",
      local: false,
      https: false,
    });
    expect(ask(req("::ffff:127.0.0.1"))).toEqual({ address: "127.0.0.1", local: true, https: false });
  });
  test("a proxy that was not named makes nobody local", () => {
    for (const name of ["x-forwarded-for", "forwarded", "via", "x-real-ip"])
      expect(ask(req("127.0.0.1", { [name]: "127.0.0.1" })).local).toBe(false);
  });
  test("behind proxies that were named it is the nearest that is none of them", () => {
    const headers = { "x-forwarded-for": "6.6.6.6, 203.0.113.9, 192.168.4.20", "x-forwarded-proto": "https" };
    expect(ask(req("10.0.0.7", headers))).toEqual({ address: "203.0.113.9", local: false, https: true });
    expect(ask(req("10.0.0.7", { "x-forwarded-for": "nonsense", "x-forwarded-proto": "http" }))).toMatchObject({
      address: "10.0.0.7",
      https: false,
    });
    expect(ask(req("::1", { "x-forwarded-for": "2001:db8::5" }))).toMatchObject({ address: "2001:db8::5", local: false });
  });
  test("a network that is none is said at the start", () => expect(() => askers(["10.0.0.0/99"])).toThrow(/no address of a proxy/));
  test("a page is from here by the host it asked, or by the public address", () => {
    const there = new URL("https://izzam.example");
    expect(fromHere("http://localhost:4470", "localhost:4470", null)).toBe(true);
    expect(fromHere("https://izzam.example", "localhost:4470", there)).toBe(true);
    expect(fromHere("http://izzam.example", "localhost:4470", there)).toBe(false);
    expect(fromHere("https://evil.example", "localhost:4470", there)).toBe(false);
    for (const none of [undefined, "null", "", "nonsense"]) expect(fromHere(none, "localhost:4470", there)).toBe(false);
  });
});
