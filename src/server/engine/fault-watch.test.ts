import { describe, expect, test } from "@jest/globals";
import { channelId } from "../../core/kernel/ids";
import type { HealthItem } from "../../core/wire/messages";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import { testChannel } from "../testing/channel";
import { FaultWatch } from "./fault-watch";
import type { Fence } from "../ports/engine-store";
import type { Runner } from "./runner";

const kiln = channelId("kiln");
function house() {
  const now = { ms: 1_000 };
  const at = { show: "on" as "on" | "off", bad: [] as string[], fence: undefined as Fence | undefined };
  const store = memoryEngineStore();
  store.put(testChannel({ id: kiln }));
  const runner = { modules: { show: () => ({ state: at.show, id: "s", sinceMs: 0 }) } } as unknown as Runner;
  const health = (): HealthItem[] =>
    ["chat", "database"].map((id) => ({
      id,
      name: id,
      state: at.bad.includes(id) ? "bad" : "good",
      says: `${id} is away.`,
      means: "Nothing comes.",
      todo: "",
    }));
  const watch = new FaultWatch(new Map([[kiln, runner]]), store, { now: () => now.ms }, health, () => at.fence);
  const look = async (...bad: string[]): Promise<void> => {
    at.bad = bad;
    now.ms += 2_000;
    await watch.look();
  };
  const kept = () => store.keptRows(kiln).map(({ kind, fromMs, toMs, body }) => [kind, fromMs, toMs, (body as { name: string }).name]);
  return { at, store, watch, look, kept };
}

describe("what goes wrong in a show", () => {
  test("is kept with from when to when, once it is over; a hiccup is not", async () => {
    const { watch, look, kept } = house();
    await look("chat");
    await look();
    expect(kept()).toEqual([]);
    await look("chat");
    await look("chat", "database");
    await look("database");
    expect(kept()).toEqual([["fault", 7_000, 11_000, "chat"]]);
    await look();
    expect(kept()).toHaveLength(2);
    watch.stop();
  });
  test("is over with the show, and nothing is kept of what happens off air", async () => {
    const { at, watch, look, kept } = house();
    await look("chat");
    await look("chat");
    at.show = "off";
    await look("chat");
    await look("chat");
    await look();
    expect(kept()).toEqual([["fault", 3_000, 7_000, "chat"]]);
    watch.stop();
  });
  test("that nobody ran it in the middle of a show is kept once; not before the show, and not where nobody ever ran it", async () => {
    const { at, store, watch, look, kept } = house();
    const taken = async (owner: string, idleFromMs: number | null): Promise<void> => {
      if (at.fence !== undefined) await store.release(kiln, at.fence.owner);
      at.fence = { ...(await store.lease(kiln, owner, 10_000))!, idleFromMs };
    };
    await taken("one", null);
    await look();
    await taken("two", 1_500);
    await look();
    await look();
    expect(kept()).toEqual([["fault", 1_500, 5_000, "Izzam"]]);
    // Between two shows.
    at.show = "off";
    await taken("three", 2_000);
    await look();
    at.show = "on";
    await look();
    expect(kept()).toHaveLength(1);
    watch.stop();
  });
  test("while it can't be written it waits, and is written once", async () => {
    const { store, watch, look, kept } = house();
    store.away = true;
    for (let i = 0; i < 3; i += 1) await look("database");
    await look();
    expect(kept()).toEqual([]);
    store.away = false;
    await look();
    await look();
    expect(kept()).toEqual([["fault", 3_000, 9_000, "database"]]);
    watch.stop();
  });
});
