import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { refused } from "../../core/kernel/refusal";
import { bossBattle } from "../../core/games/boss-battle/definition";
import { channelId } from "../../core/kernel/ids";
import { ratesOfRoom } from "../../core/lab/rates";
import { inProcessBus } from "../adapters/bus/in-process";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import { readLedger, Runner } from "../engine/runner";
import { readChannel } from "../engine/recall";
import { openedWeb } from "../testing/web";
import { pause } from "../testing/channel";
import { Rehearsals } from "./rehearsals";

// A rehearsal on the real database: whatever happens in it, every table stands as it did.
let base: Awaited<ReturnType<typeof openedWeb>>;
beforeAll(async () => (base = await openedWeb("rehearsal")));
afterAll(() => base.end());

test("a stormy rehearsal leaves every table as it was, byte for byte", async () => {
  const { db } = base;
  const kiln = channelId(String((await db("channels").first("id"))?.id));
  await db("games").insert({ id: "jug", channel_id: kiln, kind: "boss-battle", name: "Jug", draft: "{}", version: 1, created_ms: 1 });
  await db("game_versions").insert({ game_id: "jug", version: 1, settings: JSON.stringify(bossBattle.defaults), by: "x", at_ms: 1 });
  const store = mariadbEngineStore(db);
  const bus = inProcessBus();
  const clock = { now: () => Date.UTC(2026, 10, 28, 19) };
  const row = (await readChannel(store, kiln))!;
  const live = new Runner({ store, clock, bus }, row, await store.lastSeq(kiln), await readLedger(store, row, clock.now()));
  await pause(150);
  const all = new Rehearsals({
    bus,
    clock,
    store,
    runners: new Map([[kiln, live]]),
    absent: () => refused("engine/starting"),
    say: () => true,
    speech: undefined,
    lookUp: async () => null,
    watchers: () => 1,
    lend: () => undefined,
    beat: () => undefined,
    frames: () => [],
    gone: () => undefined,
    tell: () => undefined,
    onError: (what, error) => {
      throw new Error(`${what}: ${String(error)}`);
    },
  });
  const [tables] = (await db.raw("show tables")) as [Record<string, string>[]];
  const names = tables.flatMap((t) => Object.values(t));
  const sums = async (): Promise<unknown> =>
    ((await db.raw(`checksum table ${names.map((t) => `\`${t}\``).join(", ")}`)) as unknown as [unknown])[0];
  const before = await sums();
  const source = { from: "rates" as const, name: "a storm", rates: ratesOfRoom("busy", 1) };
  const begun = await all.begin(kiln, { source, pace: 1, chat: false, overlays: false, by: "tom" });
  if (!begun.ok) throw new Error(begun.refusal.code);
  all.steer(kiln, begun.value.id, { do: "jump", minutes: 1 });
  for (let i = 0; i < 400 && (all.standing(channelId(begun.value.id))?.state ?? "over") === "jumps"; i += 1) await pause(25);
  const found = all.of(kiln, begun.value.id)!;
  expect(found.standing().signals).toBeGreaterThan(500);
  all.steer(kiln, begun.value.id, { do: "end" });
  expect(found.report?.map((p) => p.id)).toContain("came");
  expect(await sums()).toEqual(before);
  expect(names.length).toBeGreaterThan(30);
  await all.stop();
  await live.stop();
});
