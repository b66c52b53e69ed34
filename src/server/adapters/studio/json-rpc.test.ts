import { afterEach, describe, expect, test } from "@jest/globals";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { WebSocketServer } from "ws";
import { studioOpenRpc } from "../../../core/studio/protocol";
import { PracticeStudio } from "../../../practice/studio";
import type { Studio, StudioStanding } from "../../ports/studio";
import { rpcStudio } from "./json-rpc";
import { studioConnectionSchema } from "./settings";

const open: { close: () => void }[] = [];
afterEach(() => {
  for (const each of open.splice(0)) each.close();
});
const until = async (what: () => boolean, ms = 9_000): Promise<void> => {
  for (const from = Date.now(); !what();) {
    if (Date.now() - from > ms) throw new Error("it did not come to that");
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
};
const listening = (server: Server): Promise<number> =>
  new Promise((resolve) => server.listen(0, "127.0.0.1", () => resolve((server.address() as AddressInfo).port)));

async function rig(secret = "") {
  const studio = new PracticeStudio(secret);
  const server = createServer((_, res) => res.writeHead(404).end());
  server.on("upgrade", (req, socket, head) => studio.upgrade(req, socket, head));
  const port = await listening(server);
  open.push({ close: () => (studio.close(), server.close()) });
  return { studio, address: `ws://127.0.0.1:${port}/` };
}
/** A server that answers each message as it is told to, which is no studio. */
async function oddServer(answer: (text: string, send: (data: string | Buffer) => void) => void): Promise<string> {
  const server = createServer();
  const sockets = new WebSocketServer({ server });
  sockets.on("connection", (ws) => ws.on("message", (data) => answer(String(data), (said) => ws.send(said))));
  const port = await listening(server);
  open.push({ close: () => (sockets.clients.forEach((c) => c.terminate()), server.close()) });
  return `ws://127.0.0.1:${port}/`;
}
function connect(address: string, secret = ""): { studio: Studio; now: () => StudioStanding } {
  let standing: StudioStanding | null = null;
  const studio = rpcStudio({ address, secret }, (next) => (standing = next));
  open.push({ close: studio.stop });
  studio.start();
  return { studio, now: () => standing ?? studio.standing() };
}

describe("a studio by JSON-RPC", () => {
  test("tells its scenes and which is on, goes where it is sent, and tells what happens on it", async () => {
    const { studio: made, address } = await rig();
    const { studio, now } = connect(address);
    await until(() => now().state === "connected");
    expect(now()).toMatchObject({ name: "Saltmarsh studio", current: "Throwing", lastError: "" });
    expect(now().scenes).toContain("Kiln door");
    expect(await studio.go("Kiln door")).toEqual({ ok: true, value: null });
    expect([made.current, now().current]).toEqual(["Kiln door", "Kiln door"]);
    made.show("Tea break");
    await until(() => now().current === "Tea break");
    made.have(["Tea break", "A new one"]);
    await until(() => now().scenes.includes("A new one"));
  });
  test("that refuses, has no such scene, or is slow to answer, says so within seconds", async () => {
    const { studio: made, address } = await rig();
    const { studio, now } = connect(address);
    await until(() => now().state === "connected");
    expect(await studio.go("Attic")).toMatchObject({
      ok: false,
      refusal: { code: "studio/refused", facts: { why: "it has no such scene" } },
    });
    made.behave("refuses");
    expect(await studio.go("Hands")).toMatchObject({ ok: false, refusal: { facts: { why: "the studio will not switch now" } } });
    made.behave("slow");
    expect(await studio.go("Hands")).toMatchObject({ ok: true });
  });
  test("that vanishes is away at once, and is found again by itself", async () => {
    const { studio: made, address } = await rig();
    const { studio, now } = connect(address);
    await until(() => now().state === "connected");
    made.behave("vanished");
    await until(() => now().state !== "connected");
    expect(await studio.go("Hands")).toMatchObject({ ok: false, refusal: { code: "studio/away" } });
    expect(now().scenes).toContain("Hands");
    made.behave("good");
    await until(() => now().state === "connected", 15_000);
  });
  test("with a secret lets in who brings it, and nobody else", async () => {
    const { studio: made, address } = await rig("between-us");
    const right = connect(address, "between-us");
    await until(() => right.now().state === "connected");
    const wrong = connect(address, "guessed");
    await until(() => wrong.now().lastError !== "");
    expect(wrong.now()).toMatchObject({ state: "waiting", lastError: "it does not take the secret", scenes: [] });
    expect(made.connected).toBe(1);
  });
  test("that is nobody, no studio, talks nonsense, never answers, or sends too much, is told in words and tried again", async () => {
    const words = async (address: string): Promise<string> => {
      const { now } = connect(address);
      await until(() => now().lastError !== "");
      expect(now().state).not.toBe("connected");
      return now().lastError;
    };
    expect(await words("ws://127.0.0.1:1/")).toBe("nothing listens at its address");
    expect(await words(await oddServer((_, send) => send("hello?")))).toBe("it says something that is no JSON-RPC");
    expect(await words(await oddServer((_, send) => send(Buffer.from([1, 2, 3]))))).toBe("it says something that is no JSON-RPC");
    expect(
      await words(await oddServer((text, send) => send(JSON.stringify({ jsonrpc: "2.0", id: JSON.parse(text).id, result: { name: 7 } })))),
    ).toContain("another shape");
    expect(await words(await oddServer((_, send) => send(JSON.stringify("x".repeat(300_000)))))).not.toBe("");
    expect(await words(await oddServer(() => undefined))).toBe("it did not answer in time");
    expect(await words("ws://[nonsense")).not.toBe("");
  }, 30_000);
  test("scenes of odd names are told each once, as they can be stored", async () => {
    const { studio: made, address } = await rig();
    made.scenes = ["Throwing", " Throwing ", "__proto__", "half \ud83d", "constructor"];
    const { now } = connect(address);
    await until(() => now().state === "connected");
    expect(now().scenes).toEqual(["Throwing", "__proto__", "half \ufffd", "constructor"]);
  });
});

test("an address is one of a WebSocket, without a password in it", () => {
  const good = (address: string) => studioConnectionSchema.safeParse({ address, practice: false }).success;
  expect([
    good("ws://127.0.0.1:4600/"),
    good("wss://studio.example/rpc"),
    good("http://x.example"),
    good("ws://me:pw@x"),
    good(""),
  ]).toEqual([true, true, false, false, false]);
});
test("what is published says every method, with its parameters and its answer", () => {
  const text = JSON.stringify(studioOpenRpc());
  for (const word of ["1.3.2", "hello", "scenes", "go", "changed", "by-name", "-32001"]) expect(text).toContain(word);
});
