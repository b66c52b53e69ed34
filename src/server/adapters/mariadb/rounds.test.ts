import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { randomBytes } from "node:crypto";
import { checkProof } from "../../../core/chance/check";
import type { Proof } from "../../../core/chance/proof";
import { wheel } from "../../../core/games/wheel/definition";
import { freshWheel } from "../../../core/games/wheel/rules";
import type { WheelDurable } from "../../../core/games/wheel/settings";
import { channelId, gameId } from "../../../core/kernel/ids";
import { readChannel } from "../../engine/recall";
import { Runner } from "../../engine/runner";
import { sealedVault } from "../../engine/vault";
import { pause } from "../../testing/channel";
import { testDatabase } from "../../testing/database";
import { inProcessBus } from "../bus/in-process";
import type { Database } from "./database";
import { mariadbEngineStore } from "./engine-store";
import { mariadbEvents } from "./events";

/** A wheel on the real database: what is written of a spin, and who finds it again. */
let db: Database;
let end: () => Promise<void>;
const id = channelId("plates");
const key = randomBytes(32);
const settings = { ...wheel.defaults, spinMs: 3_000, panelMs: 1_500 };
beforeAll(async () => {
  ({ db, end } = await testDatabase("rounds"));
  await db("channels").insert({ id, name: "Saltmarsh Kiln", salt: 1, revision: 1, hushed: false, created_ms: 1 });
  await db("games").insert({
    id: "plate",
    channel_id: id,
    kind: "wheel",
    name: "The plate",
    draft: JSON.stringify(settings),
    version: 1,
    created_ms: 1,
  });
  await db("game_versions").insert({ game_id: "plate", version: 1, settings: JSON.stringify(settings), by: "x", at_ms: 1 });
});
afterAll(() => end());

async function opened(by = key): Promise<Runner> {
  const store = mariadbEngineStore(db);
  const row = (await readChannel(store, id))!;
  return new Runner({ store, clock: { now: Date.now }, bus: inProcessBus(), vault: sealedVault(by, id) }, row, await store.lastSeq(id));
}
/** Fresh while nothing was ever stored. */
const state = async (): Promise<WheelDurable> => {
  const stored = (await readChannel(mariadbEngineStore(db), id))!.games[0]!.durable;
  return stored === null || stored === undefined ? freshWheel() : (JSON.parse(JSON.stringify(stored)) as WheelDurable);
};
async function until<T>(look: () => Promise<T | null | undefined | false>, ms = 12_000): Promise<T> {
  for (const from = Date.now(); Date.now() - from < ms; await pause(50)) {
    const found = await look();
    if (found) return found;
  }
  throw new Error("it did not come");
}
const spin = async (runner: Runner, name: string): Promise<string | undefined> => {
  const done = await runner.requests.command("plate", "weaver", name, { do: "spin" });
  const [note] = done.ok ? done.value : [];
  return note?.refusal?.code ?? note?.did;
};

test("a spin is promised at once, begun, goes on through a restart, is kept once with its proof, and is found by its name alone", async () => {
  const first = await opened();
  const promise = await until(async () => (await state()).next);
  // Sealed as it stands there: nobody who reads the database knows what comes.
  expect(JSON.stringify(await state())).not.toMatch(/"secret"/);
  await until(async () => (await spin(first, `spin-${Date.now()}`)) === "wheel/spun" || (await state()).spin !== null);
  await first.stop();
  const second = await opened();
  const { results, next } = await until(async () => {
    const now = await state();
    return now.results.length > 0 && now;
  });
  expect(results[0]?.round).toBe(promise.round);
  expect(next?.commitment).not.toBe(promise.commitment);

  const events = mariadbEvents(db);
  const kept = (await events.round("plate", promise.round))!;
  expect(kept).toMatchObject({ channel: id, channelName: "Saltmarsh Kiln", gameName: "The plate", kind: "spin", viewer: null });
  const { proof } = kept.body as { proof: Proof };
  expect(proof.commitment).toBe(promise.commitment);
  expect(checkProof(proof).holds).toBe(true);
  expect(await events.records(id, "plate", "spin", 10)).toHaveLength(1);
  // The one that is promised is not over; and what never was is not there, whatever it is called.
  for (const name of [next!.round, "plate.9.zz", "' or 1=1 --", "__proto__", ""]) expect(await events.round("plate", name)).toBeNull();
  expect(await events.round(gameId("other"), promise.round)).toBeNull();
  await second.stop();
}, 40_000);

test("with another installation’s key the promise is abandoned, which is kept and found, and another is made", async () => {
  const before = (await state()).next!;
  const runner = await opened(randomBytes(32));
  // Public for half a second, or whoever asks would wait.
  await pause(600);
  expect(await spin(runner, "lost-spin-1")).toBe("wheel/secret-lost");
  await until(async () => (await state()).next?.round !== before.round);
  expect(await mariadbEvents(db).round("plate", before.round)).toMatchObject({
    kind: "abandoned",
    body: { why: "lost", commitment: before.commitment },
  });
  await runner.stop();
}, 40_000);
