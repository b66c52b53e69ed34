import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { pino } from "pino";
import { bossDefaults } from "../../core/games/boss-battle/settings";
import { channelId } from "../../core/kernel/ids";
import type { LabAsk, LabResult } from "../../core/lab/ask";
import { wheelDefaults } from "../../core/games/wheel/settings";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import { mariadbLab } from "../adapters/mariadb/lab";
import { readChannel } from "../engine/recall";
import { readLedger } from "../engine/runner";
import { systemClock } from "../ports/clock";
import type { LabStore } from "../ports/lab-store";
import { pause } from "../testing/channel";
import { testDatabase } from "../testing/database";
import { LabPlayer } from "./player";
import { type LabDeps, LabWorker, type Playing } from "./worker";

const kiln = channelId("kiln");
let base: Awaited<ReturnType<typeof testDatabase>>;
let lab: LabStore;
beforeAll(async () => {
  base = await testDatabase("lab");
  lab = mariadbLab(base.db);
  await base.db("channels").insert({ id: kiln, name: "Saltmarsh Kiln", salt: 7, revision: 1, hushed: false, created_ms: 1 });
  for (const [id, kind, settings] of [
    ["jug", "boss-battle", { ...bossDefaults, health: 60 }],
    ["glaze", "wheel", { ...wheelDefaults, spinMs: 3_000 }],
  ] as const) {
    await base.db("games").insert({
      id,
      channel_id: kiln,
      kind,
      name: id,
      draft: JSON.stringify(settings),
      draft_revision: 1,
      draft_by: "",
      version: 1,
      created_ms: 1,
    });
    await base.db("game_versions").insert({ game_id: id, version: 1, settings: JSON.stringify(settings), by: "", at_ms: 1 });
  }
});
afterAll(() => base.end());
beforeEach(() => base.db("lab_questions").delete());

const ask = (part: Partial<LabAsk> = {}): LabAsk => ({
  module: "jug",
  question: "stands",
  input: {},
  // A few signals an evening: what is played here is played on the thread that talks to the database.
  evening: { like: "room", room: "quiet", hours: 6 },
  instead: null,
  n: 40,
  ...part,
});
const add = (id: string, part: Partial<LabAsk> = {}) => lab.add({ id, channel: kiln, name: "", ask: ask(part), by: "keeper" }, 10);
async function state(id: string) {
  const row = await lab.one(kiln, id);
  if (row === null) throw new Error("it is gone");
  return row;
}
/** One thread that is none: what a thread runs, in this process. */
const here =
  (slow = 0): LabDeps["threads"] =>
  (job) => {
    const player = new LabPlayer(job);
    const playing: Playing = { size: 1, end: async () => undefined, play: async (_, part) => (await pause(slow), player.play(part)) };
    return playing;
  };
const deps = (part: Partial<LabDeps> = {}): LabDeps => {
  const store = mariadbEngineStore(base.db);
  return {
    lab,
    channel: async ({ channel }) => {
      const row = await readChannel(store, channel);
      return row === null ? null : { row, ledger: await readLedger(store, row, Date.now()) };
    },
    threads: here(),
    clock: systemClock,
    log: pino({ level: "silent" }),
    owner: "one",
    ...part,
  };
};
async function until(id: string, wanted: string): Promise<Awaited<ReturnType<typeof state>>> {
  for (let i = 0; i < 400; i += 1) {
    const row = await state(id);
    if (row.state === wanted) return row;
    await pause(25);
  }
  throw new Error(`${id} is ${(await state(id)).state}, not ${wanted}`);
}
async function answered(id: string, wanted = "done", part: Partial<LabDeps> = {}) {
  const worker = new LabWorker(deps(part));
  worker.start();
  try {
    return await until(id, wanted);
  } finally {
    await worker.stop();
  }
}

describe("a question", () => {
  test("is answered by as many evenings as were asked for, and again the same", async () => {
    await add("q1");
    const first = (await answered("q1")).result as LabResult;
    expect(first.plain).toMatchObject({ n: 40, never: 0 });
    expect(first.signals).toBeGreaterThan(40);
    expect(first.stopped).toBe(false);
    await lab.again(kiln, "q1", null, 20);
    const again = (await answered("q1")).result as LabResult;
    expect(again.plain).toEqual(first.plain);
  });
  test("leaves every table but its own as it was", async () => {
    const [tables] = (await base.db.raw("show tables")) as [Record<string, string>[]];
    const others = tables.flatMap((t) => Object.values(t)).filter((t) => t !== "lab_questions");
    const sums = async (): Promise<unknown> =>
      ((await base.db.raw(`checksum table ${others.map((t) => `\`${t}\``).join(", ")}`)) as [unknown])[0];
    const before = await sums();
    await add("q0", { n: 60 });
    await answered("q0");
    expect(await sums()).toEqual(before);
    expect(others.length).toBeGreaterThan(30);
  });
  test("and the same, if a setting were another, on the same evenings", async () => {
    await add("q2", { instead: { path: "health", value: 1_000_000 } });
    const { instead, plain, more, less } = (await answered("q2")).result as LabResult;
    expect([plain.never, instead?.never]).toEqual([0, 40]);
    expect([more, less]).toEqual([40, 0]);
  });
  test.each([
    ["of what is gone", { module: "gone" }, "lab/gone"],
    ["nobody knows", { question: "constructor" }, "lab/unreadable"],
    ["with a blank that does not fit", { module: "glaze", question: "drawn", input: { spins: -4 } }, "lab/input"],
    ["about a setting that is none", { instead: { path: "__proto__.x", value: 1 } }, "lab/no-setting"],
    ["about a setting that can’t be so", { instead: { path: "health", value: 0 } }, "lab/setting"],
    ["about shows that left no log", { evening: { like: "last", shows: 10 } }, "lab/no-shows"],
  ] as const)("%s is refused with its reason", async (_, part, code) => {
    await add("q3", part as Partial<LabAsk>);
    expect((await answered("q3", "failed")).why?.code).toBe(code);
  });
  test("that is stored by another version is told, not lost", async () => {
    await add("q4");
    await base
      .db("lab_questions")
      .where({ id: "q4" })
      .update({ ask: JSON.stringify({ of: "another age" }) });
    expect((await answered("q4", "failed")).why?.code).toBe("lab/unreadable");
  });
  test("whose evening breaks has no answer, and the next one has", async () => {
    await add("q5");
    const breaks: LabDeps["threads"] = () => ({ size: 1, end: async () => undefined, play: () => Promise.reject(new Error("it burst")) });
    expect((await answered("q5", "failed", { threads: breaks })).why?.code).toBe("lab/broken");
    await lab.again(kiln, "q5", null, 30);
    expect((await answered("q5")).result).not.toBeNull();
  });
});

describe("stopping", () => {
  test("in the middle answers with what was played", async () => {
    await add("q6", { n: 10_000 });
    const worker = new LabWorker(deps({ threads: here(120) }));
    worker.start();
    await until("q6", "working");
    await pause(900);
    expect(await lab.stop(kiln, "q6")).toBe(true);
    const { plain, stopped } = (await until("q6", "done")).result as LabResult;
    await worker.stop();
    expect(stopped).toBe(true);
    expect(plain.n).toBeGreaterThan(0);
    expect(plain.n).toBeLessThan(10_000);
  });
  test("before it began leaves it without an answer, and it can be asked again", async () => {
    await add("q7");
    expect(await lab.stop(kiln, "q7")).toBe(true);
    expect(await state("q7")).toMatchObject({ state: "failed", why: { code: "lab/stopped" } });
    expect(await lab.claim("one", 1, 1_000)).toBeNull();
    expect((await lab.again(kiln, "q7", null, 40)).ok).toBe(true);
    expect((await answered("q7")).state).toBe("done");
  });
  test("the process gives the question to the next one, which begins it anew", async () => {
    await add("q8", { n: 4_000 });
    const worker = new LabWorker(deps({ threads: here(60) }));
    worker.start();
    await until("q8", "working");
    await worker.stop();
    expect((await state("q8")).state).toBe("working");
    // Its lease has run out.
    await base
      .db("lab_questions")
      .where({ id: "q8" })
      .update({ lease_ms: 0, ask: JSON.stringify(ask()) });
    expect((await answered("q8")).state).toBe("done");
  });
});

describe("the queue", () => {
  test("two never work on one; what another took over is not ended by the first", async () => {
    await add("q9");
    const now = Date.now();
    const [a, b] = await Promise.all([lab.claim("one", now, 1_000), lab.claim("two", now, 1_000)]);
    expect([a, b].filter((row) => row !== null)).toHaveLength(1);
    const first = a === null ? "two" : "one";
    const other = first === "one" ? "two" : "one";
    expect((await lab.claim(other, now + 2_000, 1_000))?.id).toBe("q9");
    expect(await lab.beat("q9", first, 3, now + 2_001, 1_000)).toBe("gone");
    await lab.end("q9", first, { why: { code: "lab/broken", facts: {} } }, now + 2_002);
    expect((await state("q9")).state).toBe("working");
  });
  test("one that kills its worker three times is given up", async () => {
    await add("q10");
    for (let i = 0; i < 3; i += 1) expect(await lab.claim("one", i * 10_000, 1_000)).not.toBeNull();
    expect(await lab.claim("one", 90_000, 1_000)).toBeNull();
    expect(await state("q10")).toMatchObject({ state: "failed", why: { code: "lab/broken" } });
  });
  test("no more than twenty wait; the same one is asked once", async () => {
    for (let i = 0; i < 20; i += 1) expect((await add(`w${i}`)).ok).toBe(true);
    expect((await add("w0")).ok).toBe(true);
    expect(await add("w20")).toMatchObject({ ok: false, refusal: { code: "lab/too-many-wait" } });
  });
  test("removed and brought back, it is as it was; nobody works on it meanwhile, and other channels never see it", async () => {
    await add("q11");
    await lab.remove(kiln, "q11", Date.now());
    expect(await lab.claim("one", 1, 1_000)).toBeNull();
    expect((await lab.again(kiln, "q11", null, 1)).ok).toBe(false);
    expect((await lab.list(kiln)).map((r) => r.removedMs !== null)).toEqual([true]);
    const other = channelId("elsewhere");
    expect([await lab.one(other, "q11"), await lab.remove(other, "q11", null), await lab.rename(other, "q11", "mine")]).toEqual([
      null,
      false,
      false,
    ]);
    expect(await lab.remove(kiln, "q11", null)).toBe(true);
    expect((await lab.claim("one", 1, 1_000))?.id).toBe("q11");
  });
});
