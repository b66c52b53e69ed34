import { rigStudio } from "../web/practice";
import { join } from "node:path";
import { hash } from "@node-rs/argon2";
import { loginKey } from "../../core/kernel/text";
import { channelId, type ChannelId } from "../../core/kernel/ids";
import { emoteWall } from "../../core/games/emote-wall/definition";
import type { WallSettings } from "../../core/games/emote-wall/settings";
import { chatSettingsSchema } from "../adapters/irc/settings";
import type { Database } from "../adapters/mariadb/database";
import type { Env } from "../env";
import { drawnEmotes } from "../pictures/frames";
import { sha256 } from "../hash";
import { toSheet } from "../pictures/sheet";
import type { OperatorStore } from "../ports/operator-store";
import { wholePlace } from "../../core/wire/messages";
import { hashToken, newToken, seal } from "../secrets";

import { fillGames } from "./demo-games";

export type Seed = Readonly<{ db: Database; store: OperatorStore; env: Env; folder: string; nowMs: number }>;
const channel = channelId("saltmarsh-kiln");
const wall: WallSettings = { ...emoteWall.defaults, motion: "drift", flock: { ...emoteWall.defaults.flock, count: 80 } };

/** Saltmarsh Kiln, filled once; what a person changed in it stays. Only the rig's addresses are kept fresh. */
export async function seedDemo(seed: Seed): Promise<void> {
  const { db, env } = seed;
  if ((await db("channels").where({ id: channel }).first("id")) === undefined) await fill(seed);
  // A demo that was filled by an older Izzam gets what came since, once.
  else if ((await db("games").where({ channel_id: channel, kind: "rules" }).first("id")) === undefined) await fillGames(seed, channel);
  await pointAtPractice(seed.store, env);
}

async function fill({ db, store, env, folder, nowMs }: Seed): Promise<void> {
  await db.transaction(async (trx) => {
    await trx("channels").insert({ id: channel, name: "Saltmarsh Kiln", salt: 4470, created_ms: nowMs });
    for (const [login, role] of [
      ["kilnkeeper", "owner"],
      ["spongebearer", "moderator"],
    ] as const) {
      const id = newToken();
      await trx("operators").insert({
        id,
        login,
        login_key: loginKey(login),
        password_hash: await hash("saltmarsh"),
        demo: true,
        created_ms: nowMs,
      });
      await trx("memberships").insert({ operator_id: id, channel_id: channel, role });
    }
    const token = newToken();
    await trx("overlays").insert({
      id: "main-stage",
      channel_id: channel,
      name: "Main stage",
      width: 1920,
      height: 1080,
      token_hash: hashToken(token),
      token_sealed: seal(env.appKey, "overlay-link", token),
      token_since_ms: nowMs,
      created_ms: nowMs,
    });
    await trx("games").insert({
      id: "emote-wall",
      channel_id: channel,
      kind: emoteWall.kind,
      name: "Kiln sparks",
      draft: JSON.stringify(wall),
      version: 1,
      created_ms: nowMs,
    });
    await trx("game_versions").insert({
      game_id: "emote-wall",
      version: 1,
      settings: JSON.stringify(wall),
      by: "kilnkeeper",
      at_ms: nowMs,
    });
    await trx("placements").insert({
      overlay_id: "main-stage",
      game_id: "emote-wall",
      place: JSON.stringify(wholePlace),
      order: 0,
    });
  });
  await addEmotes(store, channel, join(folder, "emotes"), nowMs);
  await fillGames({ db, store, env, folder, nowMs }, channel);
}

async function addEmotes(store: OperatorStore, to: ChannelId, folder: string, nowMs: number): Promise<void> {
  for (const [i, { word, bytes }] of (await drawnEmotes(folder)).entries()) {
    const sheet = await toSheet(await bytes());
    if (!sheet.ok) throw new Error(`${word}: ${sheet.refusal.code}`);
    const { webp, kind, ...rest } = sheet.value;
    const added = await store.emotes.add(
      to,
      {
        ...rest,
        id: newToken(),
        word,
        kind,
        sheet: { sha: sha256(webp), mime: "image/webp", bytes: webp },
      },
      nowMs + i,
    );
    if (!added.ok) throw new Error(`${word}: ${added.refusal.code}`);
  }
}

/** The rig chooses free ports at every start; a connection that points at it follows. */
async function pointAtPractice(store: OperatorStore, env: Env): Promise<void> {
  if (env.practiceUrl === "") return;
  if ((await store.studio.connection(channel)) === null)
    await store.studio.saveConnection(channel, { enabled: true, settings: rigStudio(env) });
  const kept = await store.chat.connection(channel);
  const before = chatSettingsSchema.safeParse(kept?.settings);
  if (before.success && !before.data.practice) return;
  const settings = chatSettingsSchema.parse({
    nick: "izzam",
    login: "none",
    channel: "#saltmarsh-kiln",
    dialect: {},
    ...(before.success ? before.data : {}),
    practice: true,
    host: "127.0.0.1",
    port: env.practiceIrcPort,
    tls: false,
    emotePictures: `${env.practiceUrl}/emotes/{id}`,
    profiles: new URL(env.practiceUrl).host,
  });
  if (JSON.stringify(before.data) === JSON.stringify(settings)) return;
  await store.chat.saveConnection(channel, { enabled: kept?.enabled ?? true, settings });
}
