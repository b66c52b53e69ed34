import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { checkProof } from "../../core/chance/check";
import { eveningOf } from "../../core/games/evening";
import { raffle } from "../../core/games/raffle/definition";
import { wholeProofs } from "../../core/games/raffle/round";
import { raffleSettingsSchema } from "../../core/games/raffle/settings";
import { gameId } from "../../core/kernel/ids";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";
import type { testDatabase } from "../testing/database";
import { openedWeb } from "../testing/web";
import { createGame } from "./games";
import { asCsv, pastRounds, roundOut, roundsAsCsv } from "./past-rounds";
import { proofIn, roundOf } from "./rounds";

let web: WebServices;
let owner: Session;
let db: Awaited<ReturnType<typeof testDatabase>>["db"];
let end: () => Promise<void>;
let game: string;
beforeAll(async () => {
  ({ web, db, end, owner } = await openedWeb("past_rounds"));
  const made = await createGame(web, owner, { kind: "raffle", name: "The mug" });
  game = made.ok ? made.value.id : "";
  // As a process of the web side has them.
  (globalThis as Record<symbol, unknown>)[Symbol.for("izzam.web-services")] = web;
});
afterAll(() => end());

/** A draw by its real rules, kept as the engine keeps it. */
async function drawn(people: readonly string[], title = "The mug"): Promise<void> {
  const settings = raffleSettingsSchema.parse({ ...raffle.defaults, title, shake: false, claimMs: 0 });
  const e = eveningOf(raffle, settings);
  e.command({ do: "open" });
  for (const who of people) e.say(who, "!in");
  for (const what of ["lock", "draw", "close"]) e.command({ do: what });
  const { num } = (await db("channels").where({ id: owner.channelId }).first("num"))!;
  const [{ seq = 0 } = {}] = (await db("records").max("seq as seq")) as { seq: number | null }[];
  // Rounds of this test's own time and numbers, one after another.
  for (const k of e.rows)
    await db("records").insert({
      channel: num,
      game_id: gameId(game),
      seq: (seq ?? 0) + k.seq,
      kind: k.kind,
      viewer: null,
      from_ms: k.fromMs,
      to_ms: k.toMs,
      body: JSON.stringify({
        ...(k.body as object),
        ...("entriesSince" in (k.body as object) ? { entriesSince: (seq ?? 0) + 1 } : {}),
        ...(k.kind === "round" ? { round: `${game}.${title.length}.r` } : {}),
      }),
    });
}

describe("rounds that are over", () => {
  test("stand in words, each with who was in it; names that begin like a formula stay words", async () => {
    await drawn(["ada", "=1+1", "bo"]);
    const [round] = await pastRounds(web, owner.channelId);
    expect(round).toMatchObject({ gameName: "The mug", title: "The mug", people: 3, entries: true });
    const out = await roundOut(web, owner.channelId, round!.id);
    expect(out?.entries.map((x) => x["name"])).toEqual(["ada", "=1+1", "bo"]);
    expect(asCsv(out!.entries)).toContain("'=1+1");
    expect((await roundsAsCsv(web, owner.channelId)).split("\r\n")[0]).toBe("when,game,title,result,viewers,round");
    expect(await roundOut(web, owner.channelId, round!.id + 999)).toBeNull();
    // What is no round is not handed out by its number.
    const entry = (await db("records").where({ kind: "entry" }).first("id"))!;
    expect(await roundOut(web, owner.channelId, entry.id)).toBeNull();
  });
  test("of a large one the proof is put together from the rows of its entries, and holds", async () => {
    await drawn(
      Array.from({ length: wholeProofs + 40 }, (_, i) => `v${i}`),
      "The large mug",
    );
    const kept = (await db("records").where({ kind: "round" }).orderBy("id", "desc").first("body"))!;
    expect(JSON.parse(String(kept.body))).toMatchObject({ proof: { changes: [], list: [] } });
    const found = await roundOf(`${game}.${"The large mug".length}.r`, "127.0.0.1");
    const proof = found.ok ? (proofIn(found.value) as { changes: object[]; list: object[] }) : null;
    expect([proof?.changes.length, proof?.list.length]).toEqual([wholeProofs + 40, wholeProofs + 40]);
    expect(checkProof(proof).steps.filter((s) => !s.holds)).toEqual([]);
  }, 60_000);
});
