import { emoteIndex } from "../../core/chat/emotes";
import { openVault } from "../../core/chance/vault";
import { wheel } from "../../core/games/wheel/definition";
import { freshWheel } from "../../core/games/wheel/rules";
import { newSegment, type Segment, type WheelDurable, type WheelSettings } from "../../core/games/wheel/settings";
import type { Pattern } from "../../core/pictures/patterns";
import { chanceFrom, pick } from "../../core/kernel/chance";
import type { ChannelId } from "../../core/kernel/ids";
import { bareContext, type Kept } from "../../core/module/module";
import type { Place } from "../../core/wire/messages";
import type { Database } from "../adapters/mariadb/database";
import { addRecords, eveningMs, someViewers } from "./demo-records";

/** The wheel of Saltmarsh Kiln: which glaze comes next. */
export const wheelId = "glaze-wheel";

export function demoWheel(key: (word: string) => string): WheelSettings {
  const glaze = (id: string, label: string, weight: number, colour: string, pattern: Pattern, part: Partial<Segment> = {}): Segment => ({
    ...newSegment(id, label, 0),
    weight,
    colour,
    pattern,
    ...part,
  });
  return {
    ...wheel.defaults,
    segments: [
      glaze("celadon", "Celadon", 3, "#B7C9A8", "dots"),
      glaze("tenmoku", "Tenmoku", 3, "#6A5B4B", "grain"),
      glaze("oatmeal", "Oatmeal", 4, "#F0E2C4", "waves"),
      glaze("iron", "Iron red", 1, "#B23A2B", "stripes", {
        effects: [
          {
            do: "act",
            game: "emote-wall",
            act: "flock",
            input: { count: 60, overMs: 2_000, emotes: { from: "chosen", chosen: [key("kilnGlow")] }, motion: "rain" },
            per: 1,
          },
        ],
      }),
      glaze("cobalt", "Cobalt", 2, "#2F4F7A", "crosses", { effects: [{ do: "sound", sound: "small-bell", volume: 70, queue: "sounds" }] }),
      glaze("ash", "Ash", 2, "#9A4F2C", "net"),
      glaze("straw", "Straw", 2, "#D9B65A", "triangles"),
      glaze("sea", "Sea green", 1, "#3F7A74", "stripes"),
    ],
    again: false,
    looks: { ...wheel.defaults.looks, show: "spins", middle: key("teaPot") },
  };
}

const dayMs = 86_400_000;
const spins = 64;
/** Where it stands on the stage, and its spins of the last months, by its real rules, each with the proof that viewers can check. */
export async function fillWheelHistory(
  db: Database,
  channel: ChannelId,
  settings: WheelSettings,
  beside: Place,
  nowMs: number,
): Promise<void> {
  const place: Place = { ...beside, x: 0.015, y: 0.12, width: 0.36, height: 0.74 };
  await db("placements").insert({ overlay_id: "main-stage", game_id: wheelId, place: JSON.stringify(place), order: 2 });
  const chance = chanceFrom(1_906);
  const viewers = await someViewers(db, channel, 120);
  const ctx = bareContext(emoteIndex([]), { vault: openVault("the wheel's evenings") });
  let durable: WheelDurable = freshWheel();
  const kept: Kept[] = [];
  const times = Array.from(
    { length: spins },
    (_, i) => eveningMs(nowMs, 150 - Math.floor((i * 148) / spins)) + 60_000 * (25 + (i % 8) * 9),
  ).sort((a, b) => a - b);
  for (const [i, atMs] of times.entries()) {
    const who = chance() < 0.8 ? viewers[pick(chance, Math.max(1, viewers.length))] : undefined;
    const viewer = who === undefined ? null : { id: who.ext, name: who.name, roles: [] };
    const step = (signal: object): void => {
      const outcome = wheel.step({ settings, durable, transient: null }, { id: `w${i}`, seq: i * 2 + 1, ...signal } as never, ctx);
      durable = outcome.durable;
      kept.push(...(outcome.kept ?? []));
    };
    // As the engine does it: promised well before anybody spins.
    if (i === 0) step({ kind: "timer", moduleId: wheelId, atMs: atMs - dayMs });
    step({ kind: "command", gameId: wheelId, by: "kilnkeeper", signedIn: viewer === null, viewer, command: { do: "spin" }, atMs });
    step({ kind: "timer", moduleId: wheelId, atMs: atMs + settings.spinMs });
  }
  await addRecords(db, channel, wheelId, kept);
  // The next promise is the engine's own: this one's secret could be read in the source.
  await db("game_states").insert({ game_id: wheelId, seq: 0, durable: JSON.stringify({ ...durable, next: null }), version: 1 });
}
