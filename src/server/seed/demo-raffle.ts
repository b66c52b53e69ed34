import { emoteIndex } from "../../core/chat/emotes";
import { openVault } from "../../core/chance/vault";
import { raffle } from "../../core/games/raffle/definition";
import { freshTransient } from "../../core/games/raffle/rules";
import { freshRaffle, type RaffleDurable, type RaffleSettings } from "../../core/games/raffle/settings";
import { chanceFrom } from "../../core/kernel/chance";
import type { ChannelId } from "../../core/kernel/ids";
import { bareContext, type Kept } from "../../core/module/module";
import type { Place } from "../../core/wire/messages";
import type { Database } from "../adapters/mariadb/database";
import { addRecords, eveningMs, someViewers } from "./demo-records";

/** The draw of Saltmarsh Kiln: last week's mug goes to somebody. */
export const raffleId = "weekly-mug";

export const demoRaffle: RaffleSettings = {
  ...raffle.defaults,
  title: "Last week’s mug",
  subtitle: "celadon over iron",
  word: "!mug",
  most: 3,
  times: [{ role: "member", times: 2 }],
  restShows: 3,
  prizes: [{ id: "mug", name: "The mug", count: 1, how: "by post, ask for the address" }],
  effects: [{ do: "sound", sound: "small-bell", volume: 70, queue: "sounds" }],
};

const rounds = 22;
/** Where it stands on the stage, and its rounds of the last months, by its real rules, each with the proof that viewers can check. */
export async function fillRaffleHistory(db: Database, channel: ChannelId, beside: Place, nowMs: number): Promise<void> {
  const place: Place = { ...beside, x: 0.39, y: 0.03, width: 0.42, height: 0.28 };
  await db("placements").insert({ overlay_id: "main-stage", game_id: raffleId, place: JSON.stringify(place), order: 3 });
  const chance = chanceFrom(77);
  const viewers = await someViewers(db, channel, 160);
  const settings = demoRaffle;
  const ctx = bareContext(emoteIndex([]), { vault: openVault("the mug's evenings") });
  let durable: RaffleDurable = freshRaffle();
  let transient = freshTransient();
  let seq = 0;
  const kept: Kept[] = [];
  const step = (signal: object, atMs: number): void => {
    seq += 1;
    const outcome = raffle.step({ settings, durable, transient }, { id: `r${seq}`, seq, atMs, ...signal } as never, ctx);
    ({ durable, transient } = outcome);
    kept.push(...(outcome.kept ?? []));
  };
  const command = (what: string, atMs: number): void =>
    step({ kind: "command", gameId: raffleId, by: "kilnkeeper", viewer: null, command: { do: what } }, atMs);
  for (let i = 0; i < rounds; i += 1) {
    const atMs = eveningMs(nowMs, 7 * (rounds - i) - 4) + 40 * 60_000;
    step({ kind: "live", viewer: null }, atMs - 3_600_000);
    command("open", atMs);
    const here = viewers.filter(() => chance() < 0.12 + i * 0.012);
    for (const [k, v] of here.entries()) {
      const viewer = { id: v.ext, name: v.name, roles: chance() < 0.3 ? ["member"] : [] };
      step({ kind: "message", viewer, text: `!mug ${1 + Math.floor(chance() * 3)}`, marks: [] }, atMs + 2_000 * k);
    }
    const lockMs = atMs + 300_000;
    command("lock", lockMs);
    for (const [k, v] of here.slice(0, settings.shakers).entries())
      step(
        {
          kind: "message",
          viewer: { id: v.ext, name: v.name, roles: [] },
          text: ["good luck all", "shake", "brrr", "come on", "mug!"][k] ?? "",
          marks: [],
        },
        lockMs + 2_000 + k * 900,
      );
    command("draw", lockMs + 30_000);
    // Now and then somebody has gone to bed.
    const winner = durable.round?.winners[0];
    if (winner !== undefined && chance() < 0.85)
      step({ kind: "message", viewer: { id: winner.id, name: winner.name, roles: [] }, text: "me!", marks: [] }, lockMs + 40_000);
    else {
      step({ kind: "timer", moduleId: raffleId }, lockMs + 92_000);
      const next = durable.round?.winners[1];
      if (next !== undefined)
        step({ kind: "message", viewer: { id: next.id, name: next.name, roles: [] }, text: "oh, that is me", marks: [] }, lockMs + 99_000);
    }
    command("close", lockMs + 180_000);
  }
  await addRecords(db, channel, raffleId, kept);
  // All but the last two mugs are in the post.
  const owed = durable.owed.map((o, i) => (i < 2 ? o : { ...o, state: "sent" as const }));
  await db("game_states").insert({ game_id: raffleId, seq: 0, durable: JSON.stringify({ ...durable, owed }), version: 1 });
}
