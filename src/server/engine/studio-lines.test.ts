import { describe, expect, test } from "@jest/globals";
import { pino } from "pino";
import { gameId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { studio } from "../../core/games/scene-changes/definition";
import { wholePlace } from "../../core/wire/messages";
import { inProcessBus } from "../adapters/bus/in-process";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import type { StudioStanding } from "../ports/studio";
import { pause, testChannel } from "../testing/channel";
import { Runner } from "./runner";
import { StudioLines } from "./studio-lines";

const scenes = ["Throwing", "Kiln door"];
const stands = (current: string | null) => ({ connected: true, name: "rig", scenes, current });
const away = { connected: false, name: "", scenes: [], current: null };

/** A channel with a wall that is shown in one scene, and scene changes that follow a studio. */
function setUp(go: (scene: string) => Promise<Result<null>> = async () => ok(null)) {
  const store = memoryEngineStore();
  const row = testChannel();
  const places = [{ gameId: gameId("wall"), place: { ...wholePlace, scenes: ["Kiln door"] }, order: 0 }];
  const full = {
    ...row,
    games: [
      ...row.games,
      { id: gameId("scenes"), kind: "scene-changes", name: "Scenes", version: 1, settings: studio.defaults, durable: null },
    ],
    overlays: row.overlays.map((o) => ({ ...o, places })),
  };
  store.put(full);
  const asked: string[] = [];
  const runner = new Runner(
    {
      store,
      clock: { now: () => 1_000 },
      bus: inProcessBus(),
      studio: (scene) => {
        asked.push(scene);
        return go(scene);
      },
    },
    full,
    0,
  );
  const view = () => runner.standing().games.find((g) => g.id === "scenes")!.view;
  const shown = () => runner.view.overlay("main", "").games.map((g) => g.id);
  return { runner, asked, view, shown };
}
const until = async (what: () => boolean): Promise<void> => {
  for (let i = 0; i < 200 && !what(); i += 1) await pause(10);
  expect(what()).toBe(true);
};

describe("a studio that a channel follows", () => {
  test("is told to the games that ask, once each time it differs; where it goes is asked, and what came of it told", async () => {
    const { runner, asked, view } = setUp();
    runner.outside.tellStudio(stands("Throwing"));
    await until(() => view()["current"] === "Throwing");
    const { version } = runner.standing().games.find((g) => g.id === "scenes")!;
    runner.outside.tellStudio(stands("Throwing"));
    expect((await runner.requests.command("scenes", "owner", "hand-0001", { do: "switch-to", scene: "Kiln door" })).ok).toBe(true);
    await until(() => view()["current"] === "Kiln door");
    expect([asked, version]).toEqual([["Kiln door"], 1]);
    runner.outside.tellStudio(away);
    await until(() => view()["connected"] === false);
    await runner.stop();
  });
  test("that refuses, fails or is not there, is not waited for", async () => {
    for (const go of [async () => refused("studio/refused", { why: "locked" }), () => Promise.reject(new Error("lost"))]) {
      const { runner, view } = setUp(go as (scene: string) => Promise<Result<null>>);
      runner.outside.tellStudio(stands("Throwing"));
      await until(() => view()["connected"] === true);
      await runner.requests.command("scenes", "owner", "hand-0001", { do: "switch-to", scene: "Kiln door" });
      await until(() => view()["asked"] === null);
      expect(view()["current"]).toBe("Throwing");
      await runner.stop();
    }
  });
  test("decides which games are shown; while nobody knows the scene, all are", async () => {
    const { runner, view, shown } = setUp();
    expect(shown()).toEqual(["wall"]);
    runner.outside.tellStudio(stands("Throwing"));
    await until(() => view()["current"] === "Throwing");
    expect(shown()).toEqual([]);
    runner.outside.tellStudio(stands("Kiln door"));
    await until(() => shown().length === 1);
    // Away, it is as it was: a game does not come and go with a bad connection.
    runner.outside.tellStudio(away);
    await until(() => view()["connected"] === false);
    expect(shown()).toEqual(["wall"]);
    await runner.stop();
  });
});

describe("connections to studios", () => {
  test("are opened, changed and closed as the channel's row says, and what an old one tells is not heard", () => {
    const made: { settings: unknown; stopped: boolean; tell: (s: Partial<StudioStanding>) => void }[] = [];
    const standing: StudioStanding = { state: "connecting", sinceMs: 0, lastError: "", name: "", scenes: [], current: null };
    const changed: string[] = [];
    const lines = new StudioLines(
      (row, on) => {
        const one = { settings: row.settings, stopped: false, tell: (s: Partial<StudioStanding>) => on({ ...standing, ...s }) };
        made.push(one);
        return { start: () => undefined, stop: () => (one.stopped = true), standing: () => standing, go: async () => ok(null) };
      },
      pino({ level: "silent" }),
      (id) => changed.push(id),
    );
    const row = testChannel();
    const at = (settings: unknown, enabled = true) => lines.keep({ ...row, studio: { enabled, settings, secret: null } });
    at({ address: "ws://one/" });
    at({ address: "ws://one/" });
    made[0]!.tell({ state: "connected", scenes, current: "Throwing" });
    expect([made.length, lines.facts(row.id).current, changed.length]).toEqual([1, "Throwing", 1]);
    at({ address: "ws://two/" });
    made[0]!.tell({ state: "connected", scenes, current: "Kiln door" });
    expect([made.length, made[0]!.stopped, lines.facts(row.id).connected]).toEqual([2, true, false]);
    at({ address: "ws://two/" }, false);
    expect([made[1]!.stopped, lines.standing(row.id)]).toEqual([true, null]);
    lines.drop(row.id);
  });
});
