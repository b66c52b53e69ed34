import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { Map as Entries } from "immutable";
import { z } from "zod";
import { register } from "../../core/games/registry";
import { channelId, gameId } from "../../core/kernel/ids";
import type { GameDefinition } from "../../core/module/game";
import { kettle } from "../../testing/kettle/definition";
import { inProcessBus } from "../adapters/bus/in-process";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import { pause, said, testChannel } from "../testing/channel";
import { readChannel } from "./recall";
import { Runner } from "./runner";

/** A guest book, kept for this test alone: who writes signs it, and each signature is a row. */
const entries = z.preprocess(
  (v) => (Entries.isMap(v) ? v : Entries((v ?? {}) as Record<string, string>)),
  z.custom<Entries<string, string>>(),
);
const durable = z.object({
  on: z.boolean(),
  since: z.object({ seq: z.number(), atMs: z.number() }).nullable(),
  count: z.number(),
  names: entries,
});
type Durable = z.infer<typeof durable>;
const guestBook: GameDefinition<unknown, Durable, null, never> = {
  ...(kettle as unknown as GameDefinition<unknown, Durable, null, never>),
  kind: "guest-book",
  durable: durable as z.ZodType<Durable>,
  freshDurable: () => ({ on: true, since: null, count: 0, names: Entries() }),
  view: (_, d) => ({ on: d.on, count: d.count, names: [...d.names.values()] }),
  step: ({ durable: d }, signal) => {
    const still = { durable: d, transient: null, effects: [], notes: [] };
    if (signal.kind !== "message") return still;
    const { id, name } = signal.viewer;
    const names = d.names.set(`v:${id}`, name);
    const body = { name };
    return {
      ...still,
      durable: { ...d, since: d.since ?? { seq: signal.seq, atMs: signal.atMs }, count: names.size, names },
      kept: [{ kind: "signature", viewer: { id, name }, fromMs: signal.atMs, toMs: signal.atMs, body }],
    };
  },
  rows: {
    kinds: ["signature"],
    stored: ({ names: _, ...rest }) => rest,
    since: (d) => d.since,
    recall: (d, rows) => ({
      ...d,
      names: Entries(rows.map((r) => [`v:${r.viewer?.id ?? ""}`, (r.body as { name: string }).name] as const)),
    }),
  },
};

let takeOut: () => void;
beforeAll(() => {
  takeOut = register(guestBook);
});
afterAll(() => takeOut());

const kiln = channelId("kiln");
async function opened(store = memoryEngineStore()) {
  if ((await store.channel(kiln)) === null)
    store.put(
      testChannel({
        games: [{ id: gameId("book"), kind: "guest-book", name: "Book", version: 1, settings: kettle.defaults, durable: null }],
      }),
    );
  const row = (await readChannel(store, kiln))!;
  const runner = new Runner({ store, clock: { now: () => 1_000 }, bus: inProcessBus() }, row, await store.lastSeq(kiln));
  const names = () => runner.view.game("book")?.["names"];
  return { store, runner, names };
}

describe("a state that is kept row by row", () => {
  test("is written without its rows, and whole again after a restart, whatever the names", async () => {
    const { store, runner, names } = await opened();
    for (const [i, who] of ["ada", "__proto__", "bo"].entries()) runner.inbox.message(said("hello", `m${i}`, who));
    await pause(30);
    expect(names()).toEqual(["ada", "__proto__", "bo"]);
    const stored = (await store.channel(kiln))!.games[0]!.durable as Record<string, unknown>;
    expect(stored).toEqual({ on: true, since: { seq: 1, atMs: 1_000 }, count: 3 });
    await runner.stop();
    const again = await opened(store);
    expect(again.names()).toEqual(["ada", "__proto__", "bo"]);
    again.runner.inbox.message(said("hello", "m9", "cy"));
    await pause(30);
    expect(again.names()).toEqual(["ada", "__proto__", "bo", "cy"]);
    await again.runner.stop();
  });
  test("what could not be stored is not in it, and what was is", async () => {
    const { store, runner, names } = await opened();
    runner.inbox.message(said("hello", "m1", "ada"));
    await pause(30);
    store.unfit.add("half");
    runner.inbox.message(said("half", "m2", "bo"));
    runner.inbox.message(said("hello", "m3", "cy"));
    await pause(60);
    expect(names()).toEqual(["ada", "cy"]);
    expect(store.keptRows(kiln).map((r) => r.viewer?.id)).toEqual(["ada", "cy"]);
    await runner.stop();
  });
  test("is read again when the database was away in the middle", async () => {
    const { store, runner, names } = await opened();
    runner.inbox.message(said("hello", "m1", "ada"));
    await pause(30);
    store.away = true;
    runner.inbox.message(said("hello", "m2", "bo"));
    await pause(50);
    store.away = false;
    await pause(400);
    expect(names()).toEqual(["ada"]);
    runner.inbox.message(said("hello", "m3", "cy"));
    await pause(30);
    expect(names()).toEqual(["ada", "cy"]);
    await runner.stop();
  });
});
