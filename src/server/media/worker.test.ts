import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { pino } from "pino";
import { channelId } from "../../core/kernel/ids";
import { videoDefaults, videoFactsSchema } from "../../core/props/video";
import { type Database, fromJson } from "../adapters/mariadb/database";
import { mariadbMedia, partBytes } from "../adapters/mariadb/media";
import { mariadbProps } from "../adapters/mariadb/props";
import { sweepFiles } from "../adapters/mariadb/upkeep";
import { sha256 } from "../hash";
import { testDatabase } from "../testing/database";
import { film, films } from "../testing/films";
import { MediaWorker } from "./worker";

const channel = channelId("saltmarsh");
let db: Database;
let end: () => Promise<void>;
let shelf: Server;
let at = "";
let plain: Buffer;
const log = pino({ level: "silent" });
const told: string[] = [];
beforeAll(async () => {
  ({ db, end } = await testDatabase("media"));
  await db("channels").insert({ id: channel, name: "Saltmarsh Kiln", salt: 1, created_ms: 0 } as never);
  plain = film(films.plain(2));
  shelf = createServer((req, res) => {
    if (req.url === "/plain.mp4") return void res.end(plain);
    if (req.url === "/page") return void res.end("<!doctype html><p>no film");
    if (req.url === "/inwards") return void res.writeHead(302, { location: "http://127.0.0.1:1/secret" }).end();
    if (req.url === "/endless") {
      const more = (): void => void (res.write(Buffer.alloc(1_000_000)) ? setImmediate(more) : res.once("drain", more));
      res.on("error", () => undefined);
      return more();
    }
    if (req.url?.startsWith("/drip") === true) {
      res.writeHead(200, { "content-type": "video/mp4" });
      const drip = setInterval(() => void res.write("x"), 100);
      return void res.on("close", () => clearInterval(drip));
    }
    if (req.url === "/huge") return void res.writeHead(200, { "content-length": "10000000000" }).write("x");
    res.writeHead(404).end();
  }).listen(0, "127.0.0.1");
  await new Promise((resolve) => shelf.once("listening", resolve));
  at = `http://127.0.0.1:${(shelf.address() as AddressInfo).port}`;
}, 60_000);
afterAll(async () => {
  shelf.closeAllConnections();
  shelf.close();
  await end();
});
beforeEach(async () => {
  told.length = 0;
  await db("media_jobs").delete();
  await db("props").delete();
});

let names = 0;
const worker = (): MediaWorker =>
  new MediaWorker({
    media: mariadbMedia(db),
    props: mariadbProps(db),
    engine: { reload: async (c) => void told.push(`reload ${c}`), media: async (c) => void told.push(`media ${c}`) },
    clock: { now: () => Date.now() },
    log,
    owner: `w${(names += 1)}`,
    inside: [at],
  });
const one = async (part: Record<string, unknown> = {}, source: Buffer | null = plain): Promise<string> => {
  const id = `job-${(names += 1)}`;
  const media = mariadbMedia(db);
  if (source !== null) await media.putFile({ sha: sha256(source), mime: "application/octet-stream", bytes: source }, Date.now());
  const sourceSha = source === null ? null : sha256(source);
  const job = {
    id,
    channel,
    purpose: "new" as const,
    about: `prop-${id}`,
    name: "Rain",
    request: videoDefaults,
    sourceSha,
    urgent: false,
    ...part,
  };
  expect(await media.add(job, Date.now())).toEqual({ ok: true, value: null });
  return id;
};
const clip = (address: string, part: Record<string, unknown> = {}) =>
  one(
    {
      purpose: "clip",
      about: "clips.1",
      urgent: true,
      request: { address, startMs: 500, ms: 1_000, width: 320, height: 180, mostSourceMs: 60_000, ...part },
    },
    null,
  );
const settled = async (id: string): Promise<Record<string, unknown>> => {
  for (let n = 0; n < 400; n += 1) {
    const row = (await db("media_jobs").where({ id }).first()) as Record<string, unknown> | undefined;
    if (row !== undefined && row["state"] !== "waiting" && row["state"] !== "working") return row;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error("it is not done");
};
const withWorker = async (work: () => Promise<void>): Promise<void> => {
  const w = worker();
  w.start();
  try {
    await work();
  } finally {
    await w.stop();
  }
};
const codeOf = (row: Record<string, unknown>): string => (fromJson(row["why"]) as { code: string }).code;

describe("moving pictures that are made by and by", () => {
  test("a file becomes a prop with all its files; cut anew and replaced it stays the same prop", async () => {
    await withWorker(async () => {
      const id = await one();
      expect((await settled(id))["state"]).toBe("done");
      const [prop] = await mariadbProps(db).props(channel);
      expect(prop).toMatchObject({ id: `prop-${id}`, name: "Rain", kind: "video", sourceKind: "mov" });
      const facts = videoFactsSchema.parse(prop?.facts);
      const files = mariadbMedia(db);
      for (const url of [facts.url, facts.poster, facts.sound, facts.strip.url, facts.still])
        expect((await files.file(url.slice("/props/".length)))?.size).toBeGreaterThan(100);
      expect(told).toEqual(["reload saltmarsh"]);

      const cut = await one({ purpose: "shape", about: `prop-${id}`, request: { ...videoDefaults, startMs: 500, endMs: 1_500 } });
      expect((await settled(cut))["state"]).toBe("done");
      const [again] = await mariadbProps(db).props(channel);
      expect(again?.id).toBe(prop?.id);
      expect(Math.abs(videoFactsSchema.parse(again?.facts).ms - 1_000)).toBeLessThan(80);
    });
  }, 60_000);

  test("what is large is kept in parts and comes back byte by byte, from the middle too", async () => {
    const media = mariadbMedia(db);
    const bytes = Buffer.from(Array.from({ length: partBytes * 2 + 77 }, (_, i) => (i * 31) % 253));
    await media.putFile({ sha: sha256(bytes), mime: "video/webm", bytes }, Date.now());
    await media.putFile({ sha: sha256(bytes), mime: "video/webm", bytes }, Date.now());
    const file = await media.file(sha256(bytes));
    const read = async (from: number, to: number): Promise<Buffer> => {
      const parts: Buffer[] = [];
      for await (const part of file?.read(from, to) ?? []) parts.push(part);
      return Buffer.concat(parts);
    };
    expect(file?.size).toBe(bytes.length);
    expect((await read(0, bytes.length)).equals(bytes)).toBe(true);
    expect((await read(partBytes - 5, partBytes * 2 + 9)).equals(bytes.subarray(partBytes - 5, partBytes * 2 + 9))).toBe(true);
  });

  test("what is waited for on air goes first; what nobody wants any more ends, and its maker goes on", async () => {
    const slow = await one({ request: videoDefaults }, film(films.plain(20)));
    const later = await one();
    const first = await clip(`${at}/plain.mp4`);
    const media = mariadbMedia(db);
    expect((await media.claim("somebody", Date.now(), 0))?.id).toBe(first);
    await withWorker(async () => {
      await settled(first);
      expect(await media.drop(channel, slow, Date.now())).toBe(true);
      expect((await settled(later))["state"]).toBe("done");
      expect((await settled(slow))["state"]).toBe("dropped");
    });
  }, 60_000);

  test("a maker that is killed in the middle: the next one makes it; what kills each of them is given up", async () => {
    const id = await one();
    const media = mariadbMedia(db);
    const now = Date.now();
    expect((await media.claim("killed", now, 10))?.id).toBe(id);
    // Somebody else has it by now: what the first one still says of it counts for nothing.
    expect((await media.claim("second", now + 20, 10))?.tries).toBe(2);
    expect(await media.end(id, "killed", { ok: true, value: {} }, now + 20)).toBe(false);
    expect(await media.beat(id, "killed", 0.5, now, 10)).toBe(false);
    expect((await media.claim("third", now + 40, 10))?.tries).toBe(3);
    expect(await media.claim("fourth", now + 60, 10)).toBeNull();
    expect(codeOf(await settled(id))).toBe("file/too-heavy");
  });

  test("addresses that drip hold no other film up, and let go at once when they are dropped or the maker stops", async () => {
    const drips = [await clip(`${at}/drip-1`), await clip(`${at}/drip-2`)];
    const film = await clip(`${at}/plain.mp4`);
    const file = await one();
    const began = Date.now();
    await withWorker(async () => {
      expect([(await settled(film))["state"], (await settled(file))["state"]]).toEqual(["done", "done"]);
      const states = await db("media_jobs").whereIn("id", drips).select("state");
      expect(states.map((s) => s.state)).toEqual(["working", "working"]);
    });
    expect(Date.now() - began).toBeLessThan(25_000);
  }, 60_000);

  test("two ask at once: each gets another one", async () => {
    const ids = [await one(), await one({}, film(films.silent(1)))];
    const media = mariadbMedia(db);
    const got = await Promise.all(["a", "b", "c"].map((owner) => media.claim(owner, Date.now(), 1_000)));
    expect(got.flatMap((j) => (j === null ? [] : [j.id])).sort()).toEqual([...ids].sort());
    // Again and again, with more workers than jobs: the order in which their statements meet is never the same.
    for (let n = 0; n < 20; n += 1) {
      await db("media_jobs").update({ state: "waiting", tries: 0 });
      const again = await Promise.all(["a", "b", "c", "d", "e"].map((owner) => media.claim(owner, Date.now(), 1_000)));
      expect(again.flatMap((j) => (j === null ? [] : [j.id])).sort()).toEqual([...ids].sort());
    }
  });

  test("no more than may wait", async () => {
    const media = mariadbMedia(db);
    const job = { channel, purpose: "new" as const, about: "x", name: "x", request: videoDefaults, sourceSha: null, urgent: false };
    for (let n = 0; n < 40; n += 1) expect((await media.add({ ...job, id: `w${n}` }, n)).ok).toBe(true);
    expect(await media.add({ ...job, id: "w99" }, 99)).toMatchObject({ ok: false, refusal: { code: "file/too-many" } });
    // One that is there already is there.
    expect((await media.add({ ...job, id: "w1" }, 99)).ok).toBe(true);
  });

  test("its files stay while something uses them, and go with it", async () => {
    await withWorker(async () => void (await settled(await one())));
    const count = async (): Promise<number> => Number(((await db("prop_files").count({ n: "*" }).first()) as { n: number }).n);
    await db("media_jobs").delete();
    await db("prop_files").update({ created_ms: 0 });
    const facts = videoFactsSchema.parse((await mariadbProps(db).props(channel))[0]?.facts);
    await sweepFiles(db, Date.now());
    for (const url of [facts.url, facts.poster, facts.sound, facts.strip.url, facts.still])
      expect([url, (await mariadbMedia(db).file(url.slice("/props/".length))) !== null]).toEqual([url, true]);
    expect(await count()).toBeGreaterThanOrEqual(6);
    await db("props").delete();
    await sweepFiles(db, Date.now());
    expect(await count()).toBe(0);
    expect(await db("file_parts").select("sha")).toEqual([]);
  }, 60_000);
});

describe("clips, from addresses", () => {
  test("the stretch that was asked for, at the stage's size, and whose file it was", async () => {
    await withWorker(async () => {
      const row = await settled(await clip(`${at}/plain.mp4`));
      const { facts, sha } = fromJson(row["result"]) as { facts: unknown; sha: string };
      expect([row["state"], sha]).toEqual(["done", sha256(plain)]);
      const { ms, width, strip } = videoFactsSchema.parse(facts);
      expect([Math.abs(ms - 1_000) < 80, width, strip.frames > 5]).toEqual([true, 320, true]);
      expect(told).toEqual(["media saltmarsh"]);
    });
  }, 60_000);

  test.each<[string, string, Record<string, unknown>, string]>([
    ["a page", "/page", {}, "video/no-video"],
    ["nothing", "/none", {}, "prop/address-failed"],
    ["one that points inwards", "/inwards", {}, "prop/address-inside"],
    ["one that streams for ever", "/endless", {}, "prop/too-large"],
    ["ten gigabytes", "/huge", {}, "prop/too-large"],
    ["one that begins after it ends", "/plain.mp4", { startMs: 7_000 }, "video/ends-before"],
    ["one that is longer than may be", "/plain.mp4", { mostSourceMs: 1_000 }, "video/too-long"],
  ])(
    "%s: refused, and its game hears of it",
    async (_, path, part, code) => {
      await withWorker(async () => {
        expect(codeOf(await settled(await clip(`${at}${path}`, part)))).toBe(code);
        expect(told).toEqual(["media saltmarsh"]);
      });
    },
    60_000,
  );
  test("an address of this computer that nobody named", async () => {
    await withWorker(async () => expect(codeOf(await settled(await clip("http://127.0.0.1:9/x.mp4")))).toBe("prop/address-inside"));
  }, 60_000);
});
