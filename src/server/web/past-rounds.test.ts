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
import { asCsv, pastRounds, roundOut, roundsAsCsv, winnersIn, wonMeanwhile } from "./past-rounds";
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
  const e = eveningOf(raffle, raffleSettingsSchema.parse({ ...raffle.defaults, title, shake: false, claimMs: 0 }));
  e.command({ do: "open" });
  for (const who of people) e.say(who, "!in");
  for (const what of ["lock", "draw", "close"]) e.command({ do: what });
  await written(e, title);
}
async function written(e: Pick<ReturnType<typeof eveningOf>, "rows">, title: string): Promise<void> {
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

describe("a win is a fact from its moment on", () => {
  const claimed = (title: string) => {
    const settings = raffleSettingsSchema.parse({
      ...raffle.defaults,
      title,
      shake: false,
      claimMs: 60_000,
      winners: 2,
      prizes: [{ id: "vase", name: "A vase", count: 2, how: "" }],
    });
    const e = eveningOf(raffle, settings);
    e.command({ do: "open" }, 1_000_000);
    for (const who of ["ada", "bo", "cy"]) e.say(who, "!in", 1_001_000);
    e.command({ do: "lock" }, 1_002_000);
    e.command({ do: "draw" }, 1_003_000);
    return e;
  };
  const names = async (from: number, to: number): Promise<string[]> =>
    (await winnersIn(web, owner.channelId, [from, to])).filter((w) => w.title !== "The mug").map((w) => `${w.viewer}: ${w.prize}`);

  test("claimed and never closed: it is there, in the show in which it was drawn; claimed after its end too", async () => {
    const e = claimed("Vase one");
    const [first] = e.at().round!.winners;
    // The show ended at 1,010 s; it was claimed at 1,040.
    e.say(first!.name, "me", 1_040_000);
    await written(e, "Vase one");
    expect(await names(900_000, 1_010_000)).toEqual([`${first!.name}: A vase`]);
    expect(await names(1_010_001, 2_000_000)).toEqual([]);
    const meanwhile = await wonMeanwhile(web, owner.channelId, [900_000, 1_010_000], []);
    expect(meanwhile.filter((r) => r.title === "Vase one").map((r) => r.result)).toEqual([`${first!.name} (A vase)`]);
    await db("records").delete();
  });
  test("closed later it is one win and not two; passed over after it was claimed it is none", async () => {
    const e = claimed("Vase two");
    const [first] = e.at().round!.winners;
    e.command({ do: "claimed", index: 0 }, 1_010_000);
    e.command({ do: "close" }, 1_200_000);
    await written(e, "Vase two");
    expect(await names(900_000, 2_000_000)).toEqual([`${first!.name}: A vase`]);
    await db("records").delete();
    const other = claimed("Vase three");
    const [taken] = other.at().round!.winners;
    other.command({ do: "claimed", index: 0 }, 1_010_000);
    other.command({ do: "pass", index: 0 }, 1_020_000);
    await written(other, "Vase three");
    expect((await names(900_000, 2_000_000)).some((n) => n.startsWith(`${taken!.name}:`))).toBe(false);
    await db("records").delete();
  });
  test("a round that was opened before wins were kept tells its winners when it is closed", async () => {
    await drawn(["ada"], "Old");
    await db("records").where({ kind: "win" }).delete();
    const [row] = await db("records").where({ kind: "round" }).select("id", "body");
    await db("records")
      .where({ id: row!.id })
      .update({ body: JSON.stringify({ ...(JSON.parse(String(row!.body)) as object), winsKept: false }) });
    expect(await names(0, Number.MAX_SAFE_INTEGER)).toEqual(["ada: "]);
  });
});
