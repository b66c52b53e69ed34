import { emoteIndex } from "../../core/chat/emotes";
import { brimful } from "../../core/games/brimful/definition";
import { freshBrimful } from "../../core/games/brimful/rules";
import { brimfulDefaults, type BrimfulDurable, type BrimfulSettings, newTier } from "../../core/games/brimful/settings";
import type { ChannelId } from "../../core/kernel/ids";
import { chanceFrom, pick } from "../../core/kernel/chance";
import { bareContext, type Kept } from "../../core/module/module";
import type { GivenSignal } from "../../core/module/game";
import type { Place } from "../../core/wire/messages";
import type { Database } from "../adapters/mariadb/database";
import { addRecords, eveningMs, someViewers } from "./demo-records";

/** The pot of Saltmarsh Kiln, cut open: what viewers give lies in it. */
export const potId = "the-open-pot";

export function demoPot(key: (word: string) => string): BrimfulSettings {
  const once = (give: number) => ({ give, per: 0, most: 50 });
  const many = [key("wobblePot"), key("teaPot"), key("mugUp"), key("goldMend")];
  return {
    ...brimfulDefaults,
    size: 150,
    face: { ...brimfulDefaults.face, size: 165 },
    vessel: { ...brimfulDefaults.vessel, stand: "free", spill: 60 },
    drops: {
      ...brimfulDefaults.drops,
      follow: [
        newTier("follow", { pieces: once(1), faces: once(1), pictures: [key("wobblePot"), key("mugUp")], body: "circle", solid: 84 }),
      ],
      membership: [newTier("member", { pieces: once(3), faces: once(1), pictures: many, solid: 84 })],
      gift: [newTier("gift", { pieces: { give: 3, per: 1, most: 90 }, pictures: [key("goldMend"), key("kilnGlow")], solid: 84 })],
      tip: [
        newTier("tip", { pieces: { give: 1, per: 100, most: 60 }, emotes: true, pictures: many, solid: 84 }),
        newTier("brick", {
          amount: 2_500,
          pieces: once(1),
          faces: once(1),
          pictures: [key("clayBlock")],
          size: 330,
          mass: 90,
          bounce: 8,
          body: "box",
          solid: 82,
        }),
      ],
      reaction: [
        newTier("sherds", { pieces: { give: 1, per: 10, most: 60 }, pictures: ["prop:sherd"], size: 110, body: "box", solid: 70 }),
      ],
      raid: [newTier("raid", { pieces: { give: 1, per: 1, most: 120 }, size: 110 })],
      host: [newTier("host", { pieces: { give: 1, per: 2, most: 60 }, size: 110 })],
    },
    brim: {
      at: 95,
      then: "empties",
      effects: [
        { do: "sound", sound: "pot-shatters", volume: 80, queue: "sounds" },
        { do: "say", text: "The pot brims over for the {text}. time, with {amount} pieces. Thank you, {viewer}." },
      ],
    },
    touch: { blows: true, pictures: true, people: true },
    goal: { on: true, at: 60, label: "Time for tea" },
    passing: { ...brimfulDefaults.passing, on: true, text: "{viewer}" },
    looks: { ...brimfulDefaults.looks, room: 26 },
  };
}

const dayMs = 86_400_000;
const evenings = 44;
/** Where it stands on the stage; what it held over the last months, by its real rules; and what lies in it now. */
export async function fillPotHistory(
  db: Database,
  channel: ChannelId,
  settings: BrimfulSettings,
  beside: Place,
  nowMs: number,
): Promise<void> {
  const place: Place = { ...beside, x: 0, y: 0.34, width: 0.32, height: 0.66 };
  await db("placements").insert({ overlay_id: "main-stage", game_id: potId, place: JSON.stringify(place), order: 1 });
  const chance = chanceFrom(2_611);
  const viewers = await someViewers(db, channel, 160);
  const ctx = bareContext(emoteIndex([]));
  let durable: BrimfulDurable = freshBrimful();
  const kept: Kept[] = [];
  let seq = 0;
  const step = (signal: GivenSignal, atMs: number): void => {
    seq += 1;
    const outcome = brimful.step({ settings, durable, transient: null }, { ...signal, seq, atMs, id: `p${seq}` } as never, ctx);
    durable = outcome.durable;
    kept.push(...(outcome.kept ?? []));
  };
  const somebody = () => {
    const who = viewers[pick(chance, Math.max(1, viewers.length))];
    return { id: who?.ext ?? "loamy", name: who?.name ?? "loamy", roles: [] };
  };
  const gift = (): GivenSignal => {
    const viewer = somebody();
    const kind = chance();
    if (kind < 0.4) return { kind: "follow", viewer };
    if (kind < 0.55) return { kind: "membership", viewer, months: 1 + pick(chance, 20), text: "", fromGift: "" };
    const minor = 100 * (1 + pick(chance, 9));
    return { kind: "tip", viewer, amountMinor: minor, currency: "EUR", homeMinor: minor, text: "" };
  };
  for (let n = 0; n < evenings; n += 1) {
    const from = eveningMs(nowMs, Math.floor(((evenings - n) * 150) / evenings)) + 60_000 * (n % 9) * 3;
    for (let i = 0; i < 14 + pick(chance, 8); i += 1) step(gift(), from + i * 180_000);
  }
  // As an evening left it: well filled, and not at the brim.
  step({ kind: "command", gameId: potId, by: "kilnkeeper", viewer: null, command: { do: "empty" } }, nowMs - dayMs);
  for (let i = 0; i < 60 && Number(brimful.view(settings, durable, "viewer")["full"]) < 66; i += 1)
    step(gift(), nowMs - dayMs + 60_000 * i);
  await addRecords(db, channel, potId, kept);
  await db("game_states").insert({ game_id: potId, seq: 0, durable: JSON.stringify(durable), version: 1 });
}
