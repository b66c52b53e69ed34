import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import sharp from "sharp";
import { channelId } from "../../core/kernel/ids";
import { aboutProperty, avatarRel, pageRel, topicProperty, webFingerProfiles } from "../adapters/webfinger/profiles";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import type { Decoder } from "../decode/decoder";
import { refused } from "../../core/kernel/refusal";
import { inProcessDecoder } from "../testing/decoder";
import type { Found, Profiles } from "../ports/profiles";
import { Faces, lookUpMs, patienceMs } from "./faces";

/** A platform that answers WebFinger, well and badly, by the name that is asked for. */
let server: Server;
let origin = "";
let asked: string[] = [];
let png: Buffer;
let late = false;
const picture = (width: number, height: number): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background: "#3F7A74" } })
    .png({ compressionLevel: 9 })
    .toBuffer();
beforeAll(async () => {
  png = await picture(300, 200);
  server = createServer((req, res) => {
    const url = new URL(req.url ?? "/", origin);
    const name = /^acct:(.*)@/.exec(url.searchParams.get("resource") ?? "")?.[1] ?? "";
    if (url.pathname === "/.well-known/webfinger") {
      asked.push(name);
      const links = (avatar: string): unknown => ({
        links: [{ rel: avatarRel, href: avatar }, { rel: pageRel, href: `${origin}/@${name}` }, { rel: "constructor" }],
        properties: { [topicProperty]: "Bread", [aboutProperty]: null, __proto__: "x" },
      });
      switch (name) {
        case "hangs":
          return;
        case "nobody":
          return res.writeHead(404).end();
        case "html":
          return res.writeHead(200, { "content-type": "text/html" }).end("<h1>hello</h1>");
        case "inside":
          return res.writeHead(302, { location: "http://127.0.0.1:1/x" }).end();
        case "round":
          return res.writeHead(302, { location: req.url ?? "" }).end();
        case "endless":
          res.writeHead(200);
          return void setInterval(() => res.destroyed || res.write(Buffer.alloc(60_000, 32)), 5).unref();
        case "odd":
          return res
            .writeHead(200)
            .end('{"links":[{"rel":"http://webfinger.net/rel/avatar","href":"javascript:alert(1)"}],"properties":null}');
        case "late":
        case "script":
        case "huge":
        case "text":
          return res.writeHead(200).end(JSON.stringify(links(`${origin}/${name}`)));
        default:
          return res.writeHead(200).end(JSON.stringify(links(`${origin}/face.png`)));
      }
    }
    if (url.pathname === "/face.png") return res.writeHead(200).end(png);
    if (url.pathname === "/late") return late ? res.writeHead(503).end() : res.writeHead(200).end(png);
    if (url.pathname === "/script")
      return res
        .writeHead(200)
        .end(
          '<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90"><script>alert(1)</script><rect width="90" height="90" fill="red"/></svg>',
        );
    if (url.pathname === "/huge")
      return res
        .writeHead(200)
        .end('<svg xmlns="http://www.w3.org/2000/svg" width="20000" height="20000"><rect width="20000" height="20000" fill="red"/></svg>');
    res.writeHead(200).end("no picture");
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
});

const kiln = channelId("kiln");
function setUp() {
  asked = [];
  const store = memoryEngineStore();
  const time = { nowMs: 1_000 };
  const profiles = webFingerProfiles({ origin, practice: true });
  const make = () => new Faces({ decoder: inProcessDecoder, store, now: () => time.nowMs, profiles: () => profiles });
  return { store, time, profiles, faces: make(), again: make };
}

describe("faces by WebFinger", () => {
  test("the picture is made small and square; page, topic and own words come along", async () => {
    const face = await setUp().faces.of(kiln, "ada");
    const { width, height, format } = await sharp(face!.picture!).metadata();
    expect([width, height, format]).toEqual([160, 160, "webp"]);
    expect(face!.profile).toEqual({ name: "ada", page: `${origin}/@ada`, topic: "Bread", about: "" });
  });
  test("asked for once, however many want it and in whatever case; kept through a restart, looked for again after a day", async () => {
    const s = setUp();
    await Promise.all(["ada", "ADA", "Áda", "ada"].map((name) => s.faces.of(kiln, name)));
    await s.again().of(kiln, "ada");
    expect(asked).toHaveLength(1);
    s.time.nowMs += 86_400_001;
    await s.again().of(kiln, "ada");
    expect(asked).toHaveLength(2);
  });
  test("nobody of that name: known for an hour, then asked for again", async () => {
    const s = setUp();
    for (let i = 0; i < 3; i += 1) expect(await s.faces.of(kiln, "nobody")).toMatchObject({ profile: null, picture: null });
    expect(asked).toHaveLength(1);
    s.time.nowMs += 3_600_001;
    await s.faces.of(kiln, "nobody");
    expect(asked).toHaveLength(2);
  });
  test("a platform that hangs keeps nobody waiting longer than two seconds, nor others behind it", async () => {
    const { faces } = setUp();
    const from = performance.now();
    const [hung, other] = await Promise.all([faces.of(kiln, "hangs"), faces.of(kiln, "ada")]);
    expect(hung?.picture ?? null).toBeNull();
    expect(other?.picture).not.toBeNull();
    expect(performance.now() - from).toBeLessThan(patienceMs + 1_500);
  });
  test.each(["html", "inside", "round", "endless"])("%s is no answer: initials, and asked again in a minute", async (name) => {
    const s = setUp();
    expect(await s.faces.of(kiln, name)).toMatchObject({ profile: null, picture: null, away: true });
    s.time.nowMs += 60_001;
    await s.faces.of(kiln, name);
    expect(asked.filter((n) => n === name).length).toBeGreaterThan(1);
  });
  test("a picture that does not come, or can’t be opened just now, is looked for again within seconds, and not called none for a day", async () => {
    const s = setUp();
    late = true;
    expect(await s.faces.of(kiln, "late")).toMatchObject({ profile: { page: `${origin}/@late` }, picture: null });
    late = false;
    s.time.nowMs += 5_001;
    expect((await s.faces.of(kiln, "late"))?.picture).not.toBeNull();

    let busy = true;
    const full: Decoder = { ...inProcessDecoder, face: async (b) => (busy ? refused("file/too-many") : inProcessDecoder.face(b)) };
    const faces = new Faces({ decoder: full, store: s.store, now: () => s.time.nowMs, profiles: () => s.profiles });
    expect((await faces.of(kiln, "bo"))?.picture).toBeNull();
    busy = false;
    s.time.nowMs += 5_001;
    expect((await faces.of(kiln, "bo"))?.picture).not.toBeNull();
  });
  test("who is to be presented is asked for with more patience, and once more where the platform said nothing; the picture may follow", async () => {
    const s = setUp();
    const tries: (number | undefined)[] = [];
    const answers: Found[] = [{ is: "away" }, await s.profiles.find("ada")];
    const profiles: Profiles = {
      find: async (_, patience) => {
        tries.push(patience);
        return answers[tries.length - 1] ?? { is: "away" };
      },
    };
    let opens: () => void = () => undefined;
    const opened = new Promise<void>((resolve) => (opens = resolve));
    const slow: Decoder = { ...inProcessDecoder, face: async (b) => opened.then(() => inProcessDecoder.face(b)) };
    const faces = new Faces({ decoder: slow, store: s.store, now: () => s.time.nowMs, profiles: () => profiles });
    const card = await faces.found(kiln, "ada");
    expect([card?.profile?.page, card?.picture, tries]).toEqual([`${origin}/@ada`, null, [lookUpMs, lookUpMs]]);
    opens();
    expect((await faces.of(kiln, "ada"))?.picture).not.toBeNull();
    // Known now, and asked for no more.
    expect((await faces.found(kiln, "ADA"))?.picture).not.toBeNull();
    expect(tries).toHaveLength(2);
    expect(await faces.found(kiln, "silent")).toMatchObject({ away: true });
  });
  test("a platform that stays away is asked less and less often", async () => {
    const s = setUp();
    const asks = async (afterMs: number): Promise<number> => {
      s.time.nowMs += afterMs;
      await s.faces.of(kiln, "html");
      return asked.length;
    };
    expect([await asks(0), await asks(4_999), await asks(2), await asks(14_000), await asks(1_001), await asks(59_000)]).toEqual([
      1, 1, 2, 2, 3, 3,
    ]);
  });
  test("a page that leads elsewhere than to the web is none", async () => {
    expect(await setUp().faces.of(kiln, "odd")).toMatchObject({ picture: null });
  });
  test("an SVG with a script is drawn without it; one of 20,000 by 20,000, or what is no picture, is none, and the rest is told", async () => {
    const { faces } = setUp();
    expect((await faces.of(kiln, "script"))?.picture).not.toBeNull();
    for (const name of ["huge", "text"]) {
      const face = await faces.of(kiln, name);
      expect(face?.profile?.page).toBe(`${origin}/@${name}`);
      if (name === "text") expect(face?.picture).toBeNull();
    }
  });
  test("five thousand at once: a few are looked for, nobody waits long, the rest are initials for now", async () => {
    const { faces } = setUp();
    const from = performance.now();
    const all = await Promise.all(Array.from({ length: 5_000 }, (_, i) => faces.of(kiln, `v${i}`)));
    expect(performance.now() - from).toBeLessThan(patienceMs + 3_000);
    expect(all.filter((face) => face === null).length).toBeGreaterThan(4_000);
    expect(asked.length).toBeLessThan(400);
  });
  test("while the database is away pictures are found all the same", async () => {
    const s = setUp();
    s.store.away = true;
    expect((await s.faces.of(kiln, "ada"))?.picture).not.toBeNull();
  });
});
