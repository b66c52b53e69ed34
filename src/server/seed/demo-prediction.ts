import { emoteIndex } from "../../core/chat/emotes";
import { prediction } from "../../core/games/prediction/definition";
import { freshPrediction, type PredictionDurable, type PredictionSettings } from "../../core/games/prediction/settings";
import { letterOf } from "../../core/games/prediction/letters";
import { chanceFrom, pick } from "../../core/kernel/chance";
import type { ChannelId } from "../../core/kernel/ids";
import { bareContext, type Kept } from "../../core/module/module";
import { emptyLedgerView } from "../../core/rewards/ledger-view";
import type { Place } from "../../core/wire/messages";
import type { Database } from "../adapters/mariadb/database";
import { addRecords, eveningMs, someViewers } from "./demo-records";

/** The prediction of Saltmarsh Kiln: whether the tall vase survives, and what else can be asked at a kiln. */
export const predictionId = "kiln-prediction";

const template = (id: string, title: string, outcomes: string[], openMs = 120_000) => ({ id, title, outcomes, openMs });
export const demoPrediction: PredictionSettings = {
  ...prediction.defaults,
  title: "Will the tall vase survive the firing?",
  outcomes: ["It survives", "It cracks", "Breaks in half"],
  word: "!back",
  templates: [
    template("handle", "Will the handle hold?", ["It holds", "It comes off"], 60_000),
    template("pull", "How high does the next pull go?", ["Under 20 cm", "20 to 30 cm", "Over 30 cm"], 90_000),
    template("lid", "Does the lid fit?", ["At once", "After a shave", "Never"], 60_000),
    template("glaze", "Does the glaze run?", ["It stays", "It runs a little", "It sticks to the shelf"]),
    template("door", "When does the kiln door open?", ["Before eight", "Before nine", "Tomorrow"], 300_000),
  ],
};

const rounds = 34;
/** Where it stands on the stage, and what was asked in the last months, by its real rules. */
export async function fillPredictionHistory(db: Database, channel: ChannelId, beside: Place, nowMs: number): Promise<void> {
  const place: Place = { ...beside, x: 0.385, y: 0.57, width: 0.34, height: 0.41 };
  await db("placements").insert({ overlay_id: "main-stage", game_id: predictionId, place: JSON.stringify(place), order: 4 });
  const chance = chanceFrom(8_808);
  const viewers = await someViewers(db, channel, 140);
  // What was staked in these is not among the demo's points: they have their own past.
  const ctx = bareContext(emoteIndex([]), { pointsName: "clay", ledgerView: { ...emptyLedgerView, balance: () => 5_000 } });
  let durable: PredictionDurable = freshPrediction();
  let seq = 0;
  const kept: Kept[] = [];
  const step = (signal: object, atMs: number): void => {
    seq += 1;
    const at = { settings: demoPrediction, durable, transient: null };
    const outcome = prediction.step(at, { id: `p${seq}`, seq, atMs, ...signal } as never, ctx);
    durable = outcome.durable;
    kept.push(...(outcome.kept ?? []));
  };
  const command = (what: object, atMs: number): void =>
    step({ kind: "command", gameId: predictionId, by: chance() < 0.7 ? "kilnkeeper" : "spongebearer", viewer: null, command: what }, atMs);
  for (let i = 0; i < rounds; i += 1) {
    const atMs = eveningMs(nowMs, 168 - Math.floor((i * 165) / rounds)) + 1_800_000 + i * 61_000;
    const asked = i % 6 === 0 ? "" : (demoPrediction.templates[i % demoPrediction.templates.length]?.id ?? "");
    command({ do: "open", template: asked }, atMs);
    const outcomes = durable.round?.outcomes.length ?? 2;
    const likely = pick(chance, outcomes);
    for (const [k, v] of viewers.entries()) {
      if (chance() > 0.14 + i * 0.006) continue;
      const letter = letterOf(chance() < 0.5 ? likely : pick(chance, outcomes));
      step(
        {
          kind: "message",
          viewer: { id: v.ext, name: v.name, roles: [] },
          text: `!back ${letter} ${10 * (1 + pick(chance, 40))}`,
          marks: [],
        },
        atMs + 200 * k,
      );
    }
    command({ do: "lock" }, atMs + 90_000);
    if (chance() < 0.06) command({ do: "cancel" }, atMs + 200_000);
    else command({ do: "result", outcome: letterOf(chance() < 0.55 ? likely : pick(chance, outcomes)) }, atMs + 1_000_000);
    while (prediction.dueMs?.(demoPrediction, durable) === 0) step({ kind: "timer", moduleId: predictionId }, atMs + 1_000_001);
  }
  await addRecords(db, channel, predictionId, kept);
  const fresh = freshPrediction();
  const standing = { ...durable, round: null, backers: fresh.backers };
  await db("game_states").insert({ game_id: predictionId, seq: 0, durable: JSON.stringify(standing), version: 1 });
}
