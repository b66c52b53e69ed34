import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { clipsDefaults, type ClipsSettings, freshClips } from "../../core/games/clips/settings";
import type { ChannelId } from "../../core/kernel/ids";
import type { Kept } from "../../core/module/module";
import { videoDefaults } from "../../core/props/video";
import type { Place } from "../../core/wire/messages";
import type { Database } from "../adapters/mariadb/database";
import type { OperatorStore } from "../ports/operator-store";
import { sha256 } from "../hash";
import { makeVideo, videoPropUse } from "../video/make";
import { addRecords, eveningMs } from "./demo-records";

export const clipsId = "kiln-clips";
export const demoClips: ClipsSettings = {
  ...clipsDefaults,
  points: { perSecond: 40, least: 200 },
  tips: { perSecond: 25, least: 100 },
  looks: { ...clipsDefaults.looks, curtain: "#a8352b" },
};
const titles = [
  "my first sail",
  "a gull steals a chip",
  "the kiln at night",
  "rain on the ferry",
  "a mug with a face",
  "the tide coming in",
  "dough rising",
];
const senders = ["tidewrack", "tin_lantern", "quietferry", "oatcake_ada", "hollowreed", "raku_rita", "mossy_teapot"];

/** The little window of the demo channel, with what was shown in it; and a film of the channel's own. */
export async function fillClips(db: Database, store: OperatorStore, channel: ChannelId, folder: string, nowMs: number): Promise<void> {
  const place: Place = { x: 0.64, y: 0.02, width: 0.24, height: 0.28, hidden: false, locked: false, opacity: 1 };
  await db("placements").insert({ overlay_id: "main-stage", game_id: clipsId, place: JSON.stringify(place), order: 2 });
  await db("game_states").insert({ game_id: clipsId, seq: 0, durable: JSON.stringify({ ...freshClips(), made: 40 }), version: 1 });
  await addRecords(
    db,
    channel,
    clipsId,
    Array.from({ length: 21 }, (_, i): Kept => {
      const name = senders[i % senders.length] ?? "";
      const fromMs = eveningMs(nowMs, 61 - i * 2.9) + 600_000 + (i % 5) * 840_000;
      const s = 5 + ((i * 7) % 13);
      const byMoney = i % 4 === 3;
      const body = {
        title: titles[(i * 3) % titles.length] ?? "",
        address: "",
        seenMs: (i % 9 === 8 ? 2 : s) * 1_000,
        skipped: i % 9 === 8,
        paid: byMoney ? s * demoClips.tips.perSecond : s * demoClips.points.perSecond,
        by: byMoney ? "money" : "points",
        currency: byMoney ? "EUR" : "",
      };
      return { kind: "clip", viewer: { id: name, name }, fromMs, toMs: fromMs + s * 1_000, body };
    }),
  );
  await addFilm(store, channel, join(folder, "kettle.mp4"), nowMs);
}

async function addFilm(store: OperatorStore, channel: ChannelId, path: string, nowMs: number): Promise<void> {
  const made = await makeVideo(path, videoPropUse(videoDefaults));
  if (!made.ok) throw new Error(`${path}: ${made.refusal.code}`);
  const { facts, files } = made.value;
  for (const file of files) await store.media.putFile(file, nowMs);
  const bytes = await readFile(path);
  const poster = files.find((f) => facts.poster.endsWith(f.sha));
  if (poster === undefined) throw new Error(`${path} has no poster`);
  const source = { sha: sha256(bytes), mime: "application/octet-stream", bytes };
  const prop = {
    id: "kettle-boils",
    name: "The kettle boils",
    kind: "video" as const,
    sourceKind: "mov",
    source,
    made: poster,
    settings: videoDefaults,
    facts,
  };
  const added = await store.props.add(channel, prop, nowMs + 90);
  if (!added.ok) throw new Error(`${path}: ${added.refusal.code}`);
}
