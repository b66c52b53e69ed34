import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { createServer, type IncomingMessage, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { Webhook } from "standardwebhooks";
import { cloudEventSchema, signalFrom } from "../core/signals/events";
import { EventSender } from "./events";
import { eventBody, eventOf, giveKinds, reactions, rolesOf } from "./give";
import { people } from "./viewers";

const viewer = { id: "mossy_teapot", name: "mossy_teapot", roles: ["member"] };

describe("what the rig sends", () => {
  test.each([...giveKinds])("%s is an event that the published schema takes", (kind) => {
    const [type, data] = eventOf(eventBody.parse({ kind, as: "mossy_teapot", amount: 3 }), viewer);
    const made = signalFrom(cloudEventSchema.parse({ specversion: "1.0", id: "1", source: "s", type, data }));
    expect("signal" in made && made.signal.kind).toBe(kind);
  });
  test("somebody unknown may give what can be given so", () => {
    for (const kind of ["gift", "tip", "reaction"] as const) {
      const [type, data] = eventOf(eventBody.parse({ kind, as: "", amount: 3 }), null);
      expect("signal" in signalFrom(cloudEventSchema.parse({ specversion: "1.0", id: "1", source: "s", type, data }))).toBe(true);
    }
  });
  test("each kind of reaction has its worth", () => {
    const [, data] = eventOf(eventBody.parse({ kind: "reaction", as: "", amount: 2, reaction: "golden sherd" }), null);
    expect(data).toMatchObject({ count: 2, valueEach: 100 });
    expect(Object.values(reactions).every((v) => v > 0)).toBe(true);
  });
  test("badges of the platform are roles of ours", () => {
    const of = (nick: string): string[] => rolesOf(people.find((p) => p.nick === nick)!);
    expect([of("kilnkeeper"), of("wedgewright"), of("grandad_grog"), of("loamy")]).toEqual([
      ["streamer"],
      ["moderator", "member"],
      ["guest"],
      [],
    ]);
  });
});

describe("the sender", () => {
  const secret = `whsec_${Buffer.alloc(32, 5).toString("base64")}`;
  let server: Server;
  let url: string;
  let heard: { headers: IncomingMessage["headers"]; body: string }[] = [];
  let answer: { status: number; body: unknown } = { status: 200, body: { taken: 1 } };
  beforeAll(async () => {
    server = createServer((req, res) => {
      let body = "";
      req.on("data", (part) => (body += String(part)));
      req.on("end", () => {
        heard.push({ headers: req.headers, body });
        res.writeHead(answer.status, { "content-type": "application/json" }).end(JSON.stringify(answer.body));
      });
    });
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
  });
  afterAll(() => void server.close());
  test("signs so that the standard's own library accepts it", async () => {
    heard = [];
    expect(await new EventSender(url, secret).send("app.izzam.follow.v1", { viewer })).toEqual({ status: 200, said: "taken" });
    const { headers, body } = heard[0]!;
    expect(new Webhook(secret).verify(body, headers as Record<string, string>)).toMatchObject({
      specversion: "1.0",
      type: "app.izzam.follow.v1",
    });
  });
  test("tells what it was told", async () => {
    answer = { status: 401, body: { why: "its signature does not fit" } };
    expect(await new EventSender(url, secret).send("x", {})).toEqual({ status: 401, said: "its signature does not fit" });
    answer = { status: 200, body: { taken: 0, duplicates: 1 } };
    expect((await new EventSender(url, secret).send("x", {})).said).toBe("was there already");
    expect(await new EventSender("http://127.0.0.1:1/", secret).send("x", {})).toEqual({ status: 0, said: "Izzam does not answer" });
    expect((await new EventSender("", "").send("x", {})).said).toMatch(/no address/);
  });
});
