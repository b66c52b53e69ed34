import { describe, expect, test } from "@jest/globals";
import { gameId } from "../../core/kernel/ids";
import type { Command } from "../../core/signals/signal";
import { inProcessBus } from "../adapters/bus/in-process";
import { type MemoryStore, memoryEngineStore } from "../adapters/memory/engine-store";
import type { Publication } from "../ports/bus";
import { pause, said, testChannel } from "../testing/channel";
import { Runner } from "./runner";

function setUp(store: MemoryStore = memoryEngineStore(), lastSeq = 0) {
  const row = testChannel();
  store.put(row);
  const bus = inProcessBus();
  const heard: Publication[] = [];
  bus.subscribe((_, p) => heard.push(p));
  const time = { nowMs: 1_000 };
  const runner = new Runner({ store, clock: { now: () => time.nowMs }, bus }, row, lastSeq);
  const of = <K extends Publication["kind"]>(kind: K) => heard.filter((p): p is Extract<Publication, { kind: K }> => p.kind === kind);
  return { store, runner, heard, of, time };
}
const off: Command = { do: "switch", on: false };
const on: Command = { do: "switch", on: true };

describe("one queue for one channel", () => {
  test("an emote is shown at once, and its message logged with the next batch", async () => {
    const { runner, of, store } = setUp();
    runner.inbox.message(said("wobblePot", "m1"));
    expect(of("effects")).toHaveLength(1);
    expect(of("talk")[0]).toMatchObject({
      name: "ada",
      text: "wobblePot",
      notes: [{ game: "wall", note: { did: "wall/shown", count: 1, facts: { seq: 1 } } }],
    });
    await runner.stop();
    expect(store.log(runner.id)).toMatchObject([{ seq: 1, kind: "message", source: "chat", id: "m1", viewer: { id: "ada" } }]);
  });
  test("a message that comes twice changes nothing the second time", () => {
    const { runner, of } = setUp();
    runner.inbox.message(said("wobblePot", "m1"));
    runner.inbox.message(said("wobblePot", "m1"));
    expect(of("effects")).toHaveLength(1);
  });
  test("what must be exactly right is committed before anyone hears of it", async () => {
    const { runner, heard, store } = setUp();
    heard.length = 0;
    const done = runner.requests.command("wall", "owner", "hand-0001", off);
    expect(heard).toEqual([]);
    expect((await done).ok).toBe(true);
    expect(heard.map((p) => p.kind)).toEqual(["state", "effects", "mark", "talk"]);
    expect((await store.channel(runner.id))!.games[0]!.durable).toEqual({ on: false, worn: [] });
  });
  test("the same command twice is done once and answered twice, after a restart too; one on a game that is not there is refused", async () => {
    const { runner, store, of } = setUp();
    const first = await runner.requests.command("wall", "owner", "hand-0001", off);
    expect(await runner.requests.command("wall", "owner", "hand-0001", off)).toEqual(first);
    expect(of("state")).toHaveLength(1);
    const again = setUp(store, 1).runner;
    expect(await again.requests.command("wall", "owner", "hand-0001", off)).toEqual(first);
    expect(store.log(runner.id)).toHaveLength(1);
    expect(await runner.requests.command("gone", "owner", "hand-0002", on)).toMatchObject({ ok: false, refusal: { code: "game/unknown" } });
  });
  test("many at once are committed in few batches, in their order", async () => {
    const { runner, store, of } = setUp();
    let commits = 0;
    const { commit } = store;
    const slowly: typeof commit = async (...args) => {
      commits += 1;
      await pause(5);
      return commit(...args);
    };
    Object.assign(store, { commit: slowly });
    const all = await Promise.all(
      Array.from({ length: 100 }, (_, i) => runner.requests.command("wall", "owner", `command-${i}-xx`, i % 2 === 0 ? off : on)),
    );
    expect(all.every((r) => r.ok)).toBe(true);
    expect(commits).toBeLessThanOrEqual(3);
    expect(store.log(runner.id).map((r) => r.seq)).toEqual(Array.from({ length: 100 }, (_, i) => i + 1));
    expect(of("state")).toHaveLength(100);
  });
});

describe("while the database is away", () => {
  test("emotes go on, hands are refused in words' reach, and state is as it was when it is back", async () => {
    const { runner, store, of } = setUp();
    await runner.requests.command("wall", "owner", "hand-0001", off);
    await runner.requests.command("wall", "owner", "hand-0002", on);
    store.away = true;
    expect(await runner.requests.command("wall", "owner", "hand-0003", off)).toMatchObject({ ok: false, refusal: { code: "store/away" } });
    runner.inbox.message(said("wobblePot", "m1"));
    expect(of("talk").filter((t) => t.of === "message")).toHaveLength(1);
    expect(await runner.requests.command("wall", "owner", "hand-0004", off)).toMatchObject({ ok: false, refusal: { code: "store/away" } });
    expect(runner.standing().recovering).toBe(true);
    store.away = false;
    for (let i = 0; i < 100 && runner.standing().recovering; i += 1) await pause(20);
    // The refused switch was not half-done: the wall is on, as committed.
    expect(runner.standing().games[0]!.view).toMatchObject({ on: true });
    expect((await runner.requests.command("wall", "owner", "hand-0005", off)).ok).toBe(true);
    await runner.stop();
    expect(
      store
        .log(runner.id)
        .map((r) => r.id)
        .sort(),
    ).toEqual(["hand-0001", "hand-0002", "hand-0005", "m1"]);
  });
  test("hush is heard at once, though it can't be stored", async () => {
    const { runner, store, of } = setUp();
    store.away = true;
    await runner.hush(true);
    expect(of("hush")).toEqual([{ kind: "hush", on: true }]);
    runner.inbox.message(said("wobblePot", "m1"));
    expect(of("effects")).toEqual([]);
    expect(of("talk")).toHaveLength(1);
    store.away = false;
    await runner.stop();
  });
});

describe("starting again", () => {
  test("after a kill the state is that of the accepted signals, and numbers go on", async () => {
    const first = setUp();
    await first.runner.requests.command("wall", "owner", "hand-0001", off);
    const row = (await first.store.channel(first.runner.id))!;
    const bus = inProcessBus();
    const again = new Runner({ store: first.store, clock: { now: () => 2_000 }, bus }, row, await first.store.lastSeq(row.id));
    expect(again.standing().games[0]!.view).toMatchObject({ on: false });
    await again.requests.command("wall", "owner", "hand-0002", on);
    expect(first.store.log(row.id).map((r) => r.seq)).toEqual([1, 2]);
  });
  test("new settings are met by the next signal, and memory of combos and limits stays", () => {
    const { runner, of } = setUp();
    const settings = testChannel().games[0]!.settings as Record<string, unknown>;
    const withWall = (part: Record<string, unknown>) =>
      testChannel({ games: [{ ...testChannel().games[0]!, version: 2, settings: { ...settings, ...part } }] });
    const combo = { on: true, needed: 2, withinMs: 10_000, counted: "copies", spawns: "one", roles: ["viewer"], emoji: true };
    runner.reload(withWall({ combo }));
    runner.inbox.message(said("wobblePot"));
    runner.reload(withWall({ combo, lifeMs: 9_000 }));
    runner.inbox.message(said("wobblePot"));
    expect(of("effects")).toHaveLength(1);
  });
  test("a game whose settings can't be read does not run, and does not stop the others", () => {
    const { runner, of } = setUp();
    const good = testChannel().games[0]!;
    runner.reload(testChannel({ games: [{ ...good, id: "broken" as typeof good.id, settings: { schema: 99 } }, good] }));
    runner.inbox.message(said("wobblePot"));
    expect(of("effects").map((e) => e.game)).toEqual(["wall"]);
  });
});

describe("what is stored and can't be read", () => {
  const game = testChannel().games[0]!;
  const withGame = (part: Partial<typeof game>) =>
    testChannel({
      games: [
        { ...game, ...part },
        { ...game, id: gameId("other"), name: "Other" },
      ],
    });
  test.each([
    ["a state of another shape", { durable: { on: "perhaps" } }, /can’t be read \(on:/],
    ["a state that a newer Izzam stored", { durable: { on: true }, stateVersion: 9 }, /stored by a newer Izzam \(version 9/],
    ["settings that a newer Izzam stored", { settings: { schema: 7 } }, /stored by a newer Izzam \(version 7/],
    ["a kind of game that is not there", { kind: "carousel" }, /no kind of game called carousel/],
  ])("%s: that part does not run and says so, the others do, and nothing is written over", async (_, part, why) => {
    const store = memoryEngineStore();
    const row = withGame(part);
    store.put(row);
    const runner = new Runner({ store, clock: { now: () => 1_000 }, bus: inProcessBus() }, row, 0);
    expect(runner.standing().games.map((g) => g.id)).toEqual(["other"]);
    expect(runner.standing().unreadable).toEqual([expect.stringMatching(why)]);
    expect(await runner.requests.command("wall", "owner", "hand-0001", off)).toMatchObject({ refusal: { code: "game/unknown" } });
    expect((await runner.requests.command("other", "owner", "hand-0002", off)).ok).toBe(true);
    expect((await store.channel(row.id))!.games[0]).toMatchObject(part);
    // Whoever reads it again comes to the same.
    await runner.refresh();
    expect(runner.standing().games.map((g) => g.id)).toEqual(["other"]);
    await runner.stop();
  });
});

describe("what an overlay is told", () => {
  test("its own games with their looks, and nothing that is secret or the operator's", () => {
    const { runner } = setUp();
    const stage = runner.view.overlay("main", "/marked/kiln/kiln");
    expect(stage.games.map((g) => g.id)).toEqual(["wall"]);
    expect(JSON.stringify(stage)).not.toMatch(/token|roles|perViewer|secret|password|hash/i);
    expect(runner.view.overlay("other", "").games).toEqual([]);
  });
});
