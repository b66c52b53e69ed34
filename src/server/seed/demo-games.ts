import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import { bossBattle } from "../../core/games/boss-battle/definition";
import type { BossSettings } from "../../core/games/boss-battle/settings";
import type { ChannelId } from "../../core/kernel/ids";
import { versionOf } from "../../core/kernel/stored";
import { alertLookDefaults } from "../../core/alerts/alert";
import { pictureDefaults } from "../../core/props/settings";
import type { RuleEffect } from "../../core/rules/effect";
import { newRule, type Rule, type Rulebook, rulebookDefaults, type When } from "../../core/rules/settings";
import { showRules } from "../../core/show/rules";
import { freshShow, type ShowDurable } from "../../core/show/settings";
import type { Place } from "../../core/wire/messages";
import type { Database } from "../adapters/mariadb/database";
import { sha256 } from "../hash";
import type { OperatorStore } from "../ports/operator-store";
import { makeProp } from "../props/make";
import { hashToken, seal } from "../secrets";
import type { Env } from "../env";
import { clipsId, demoClips, fillClips } from "./demo-clips";
import { demoCues } from "./demo-cues";
import { act, bossId, flock, show, wallId } from "./demo-effects";
import { demoCommands, demoPoints } from "./demo-economy";
import { fillHistory } from "./demo-history";
import { demoPot, fillPotHistory, potId } from "./demo-brimful";
import {
  companionId,
  demoCompanion,
  demoScenes,
  demoGreeting,
  demoPresenting,
  fillPeople,
  greetingId,
  presentingId,
  scenesId,
  demoVoices,
  voicesId,
} from "./demo-people";
import { demoPrediction, fillPredictionHistory, predictionId } from "./demo-prediction";
import { demoRaffle, fillRaffleHistory, raffleId } from "./demo-raffle";
import { peopleRewards } from "./demo-people-rewards";
import { demoRewards } from "./demo-rewards";
import { demoPlan, demoShow } from "./demo-show";
import { fillShows } from "./demo-shows";
import { demoWheel, fillWheelHistory, wheelId } from "./demo-wheel";

type Seed = Readonly<{ db: Database; store: OperatorStore; env: Env; folder: string; nowMs: number }>;

/** Old Spall, the rules, the cues and the props of Saltmarsh Kiln: between them they use every effect. */

export const demoBoss: BossSettings = {
  ...bossBattle.defaults,
  health: 600,
  growth: { ...bossBattle.defaults.growth, how: "percent", percent: 20, ceiling: 5_000 },
  roster: [
    { id: "spall", name: "Old Spall", figure: "jug" },
    { id: "crazing", name: "Auntie Crazing", figure: "teapot" },
    { id: "pinhole", name: "Pinhole Pete", figure: "bottle" },
    { id: "shiver", name: "The Shiver", figure: "bowl" },
    { id: "grog", name: "Grand Grog", figure: "urn" },
  ],
  looks: { ...bossBattle.defaults.looks, call: "Follow, join or tip to strike" },
};

const rule = (id: string, name: string, when: When, part: Partial<Rule>): Rule => ({ ...newRule(id, when), name, ...part });
const always = (...effects: RuleEffect[]): Rule["tiers"] => [{ at: "least", amount: 0, effects }];
const low = { ...alertLookDefaults, y: 0.76, size: 0.16, entrance: "slide" as const };

export const demoRules = (key: (word: string) => string): Rulebook => ({
  ...rulebookDefaults,
  queues: [...rulebookDefaults.queues, { id: "sounds", name: "Sounds", gapMs: 200, mostWaiting: 10 }],
  money: {
    home: "EUR",
    rates: [
      { currency: "GBP", millionths: 1_150_000 },
      { currency: "JPY", millionths: 6_100 },
    ],
  },
  hiddenWords: ["crackpot"],
  rules: [
    rule("welcome", "Welcome a follower", "follow", {
      tiers: always(show({ picture: "gold-ribbon", sound: "small-bell", text: "{viewer} follows", look: low }), {
        do: "say",
        text: "Welcome to the kiln, {viewer}.",
      }),
    }),
    rule("members", "New and old members", "membership", {
      tiers: [
        { at: "least", amount: 1, effects: [show({ picture: "gold-ribbon", text: "{viewer} joins the kiln", look: low })] },
        {
          at: "least",
          amount: 12,
          effects: [show({ picture: "kiln-fire-sheet", text: "{viewer}: {months} months at the kiln", look: low }), flock(80, "most-used")],
        },
      ],
    }),
    rule("gifts", "Gifts", "gift", {
      tiers: always(flock(40, "chosen", [key("goldMend"), key("kilnGlow")]), {
        do: "say",
        text: "{viewer} gives {count, plural, one {# membership} other {# memberships}} away. Thank you.",
      }),
    }),
    rule("tips", "Tips", "tip", {
      tiers: [
        { at: "least", amount: 1, effects: [show({ text: "{viewer} tips {amount} {text}", look: { ...low, size: 0.2 } })] },
        { at: "exact", amount: 1_313, effects: [act(bossId, "heal", { amount: 131 }, 1_313)] },
        {
          at: "least",
          amount: 2_000,
          effects: [
            show({ picture: "kiln-fire-sheet", sound: "kiln-door", text: "{viewer} tips {amount}", ms: 6_000 }),
            { do: "wait", ms: 1_500 },
            flock(120, "chosen", [key("kilnGlow")], "rain"),
          ],
        },
      ],
    }),
    rule("sherds", "A heap of sherds", "reaction", {
      reaction: "sherd",
      tiers: [{ at: "least", amount: 50, effects: [flock(30, "message", [], "ricochet")] }],
    }),
    rule("raid", "A raid lands", "raid", {
      tiers: always(
        show({
          picture: "harbour-boat",
          sound: "harbour-horn",
          text: "{viewer} brings {viewers, plural, one {# viewer} other {# viewers}}",
          ms: 6_000,
        }),
        { do: "wait", ms: 2_000 },
        flock(100, "most-used"),
      ),
    }),
    rule("fell", "A boss falls", "happened", {
      what: "boss/fell",
      tiers: always(
        act(potId, "shake", { strength: 120 }),
        { do: "sound", sound: "pot-shatters", volume: 90, queue: "sounds" },
        flock(60, "chosen", [key("goldMend")], "spout"),
        {
          do: "say",
          text: "{text} lies in shards. Struck down by {viewer}.",
        },
      ),
    }),
    rule("ask", "“!oldspall” tells the rules", "message", {
      words: { how: "is", list: ["!oldspall"] },
      cooldownMs: 30_000,
      tiers: always(act(bossId, "tell-rules", {})),
    }),
    rule("stop", "The show ends: the wall stops", "ended", { tiers: always({ do: "switch", game: wallId, on: false }) }),
    rule("start", "The show begins: the wall wakes", "live", { tiers: always({ do: "switch", game: wallId, on: true }) }),
    rule("remind", "A word on Old Spall now and then", "timer", {
      everyMs: 1_200_000,
      time: { how: "show", fromMin: 10, toMin: 0 },
      tiers: always({ do: "say", text: "Old Spall still stands. Write !oldspall for the rules." }),
    }),
  ],
});

const insertPart = async (
  db: Database,
  channel: ChannelId,
  part: { id: string; kind: string; name: string; settings: unknown; nowMs: number },
) => {
  const settings = JSON.stringify(part.settings);
  await db("games").insert({
    id: part.id,
    channel_id: channel,
    kind: part.kind,
    name: part.name,
    draft: settings,
    version: 1,
    created_ms: part.nowMs,
  });
  await db("game_versions").insert({ game_id: part.id, version: 1, settings, by: "kilnkeeper", at_ms: part.nowMs });
};

export async function fillGames({ db, store, env, folder, nowMs }: Seed, channel: ChannelId): Promise<void> {
  await addProps(store, channel, join(folder, "props"), nowMs);
  const emotes = await store.emotes.emotes(channel);
  const key = (word: string): string => emotes.find((e) => e.word === word)?.sprite.key ?? "emoji:🔥";
  await insertPart(db, channel, { id: bossId, kind: bossBattle.kind, name: "Old Spall", settings: demoBoss, nowMs: nowMs + 1 });
  const plate = demoWheel(key);
  await insertPart(db, channel, { id: wheelId, kind: "wheel", name: "The glaze wheel", settings: plate, nowMs: nowMs + 8 });
  await insertPart(db, channel, { id: raffleId, kind: "raffle", name: "The weekly mug", settings: demoRaffle, nowMs: nowMs + 9 });
  await insertPart(db, channel, {
    id: predictionId,
    kind: "prediction",
    name: "The kiln’s questions",
    settings: demoPrediction,
    nowMs: nowMs + 10,
  });
  const pot = demoPot(key);
  await insertPart(db, channel, { id: potId, kind: "brimful", name: "The open pot", settings: pot, nowMs: nowMs + 11 });
  await insertPart(db, channel, { id: greetingId, kind: "greeting", name: "At the door", settings: demoGreeting, nowMs: nowMs + 12 });
  await insertPart(db, channel, {
    id: presentingId,
    kind: "presenting",
    name: "Worth a visit",
    settings: demoPresenting,
    nowMs: nowMs + 13,
  });
  await insertPart(db, channel, { id: voicesId, kind: "voices", name: "Read aloud", settings: demoVoices, nowMs: nowMs + 14 });
  await insertPart(db, channel, {
    id: companionId,
    kind: "companion",
    name: "Grog the kiln cat",
    settings: demoCompanion,
    nowMs: nowMs + 15,
  });
  await insertPart(db, channel, { id: clipsId, kind: "clips", name: "The little window", settings: demoClips, nowMs: nowMs + 17 });
  await insertPart(db, channel, { id: scenesId, kind: "scene-changes", name: "Scenes", settings: demoScenes, nowMs: nowMs + 16 });
  await insertPart(db, channel, { id: "kiln-rules", kind: "rules", name: "Rules", settings: demoRules(key), nowMs: nowMs + 2 });
  await insertPart(db, channel, { id: "kiln-cues", kind: "cues", name: "Cues", settings: demoCues(key), nowMs: nowMs + 3 });
  await insertPart(db, channel, { id: "kiln-show", kind: "show", name: "Show", settings: demoShow, nowMs: nowMs + 4 });
  const rewards = demoRewards(key);
  await insertPart(db, channel, { id: "kiln-rewards", kind: "rewards", name: "Rewards", settings: rewards, nowMs: nowMs + 5 });
  await insertPart(db, channel, { id: "kiln-points", kind: "points", name: "Points", settings: demoPoints, nowMs: nowMs + 6 });
  await insertPart(db, channel, { id: "kiln-commands", kind: "commands", name: "Commands", settings: demoCommands, nowMs: nowMs + 7 });
  const standing: ShowDurable = {
    ...freshShow(),
    plan: { revision: 1, by: "kilnkeeper", items: [...demoPlan] },
    templates: [{ id: "friday", name: "Friday at the kiln", items: [...demoPlan] }],
  };
  const version = versionOf(showRules.stateSteps);
  await db("game_states").insert({ game_id: "kiln-show", seq: 0, durable: JSON.stringify(standing), version });
  const place: Place = { x: 0.735, y: 0.3, width: 0.255, height: 0.68, hidden: false, locked: false, opacity: 1 };
  await db("placements").insert({ overlay_id: "main-stage", game_id: bossId, place: JSON.stringify(place), order: 1 });
  if (env.practiceSecret !== "")
    await store.events.setSecret(channel, { sealed: seal(env.appKey, "event-secret", env.practiceSecret), oldUntilMs: 0, nowMs });
  for (const [cueId, token] of Object.entries(env.practiceTriggers))
    await store.events.setTrigger(channel, cueId, { hash: hashToken(token), sealed: seal(env.appKey, "trigger-address", token) }, nowMs);
  await fillHistory(db, channel, { ...rewards, rewards: rewards.rewards.filter((r) => r.category !== peopleRewards) }, nowMs);
  await fillWheelHistory(db, channel, plate, place, nowMs);
  await fillRaffleHistory(db, channel, place, nowMs);
  await fillPredictionHistory(db, channel, place, nowMs);
  await fillPotHistory(db, channel, pot, place, nowMs);
  await fillPeople(db, channel, nowMs);
  await fillClips(db, store, channel, join(folder, "films"), nowMs);
  await fillShows(db, channel, nowMs);
  await db("channels").where({ id: channel }).increment("revision", 1);
}

/** Their ids are their file names, so that rules and cues can name them. */
async function addProps(store: OperatorStore, channel: ChannelId, folder: string, nowMs: number): Promise<void> {
  const files = (await readdir(folder)).filter((f) => !f.endsWith(".md")).sort();
  const sheet = { ...pictureDefaults, grid: { columns: 6, rows: 1, frames: 6 }, frameMs: 180 };
  // Side by side: each waits for a process of its own.
  const ready = await Promise.all(
    files.map(async (file) => {
      const bytes = await readFile(join(folder, file));
      const id = file.replace(/\.[a-z0-9]+$/, "");
      return { file, bytes, id, made: await makeProp(bytes, id.endsWith("-sheet") ? { kind: "picture", settings: sheet } : undefined) };
    }),
  );
  for (const [i, { file, bytes, id, made }] of ready.entries()) {
    if (!made.ok) throw new Error(`${file}: ${made.refusal.code}`);
    const { kind, sourceKind, made: served, settings, facts } = made.value;
    const source = { sha: sha256(bytes), mime: "application/octet-stream", bytes };
    const name = id.replace(/-sheet$/, "").replace(/-/g, " ");
    const added = await store.props.add(
      channel,
      { id, name: name.charAt(0).toUpperCase() + name.slice(1), kind, sourceKind, source, made: served, settings, facts },
      nowMs + i,
    );
    if (!added.ok) throw new Error(`${file}: ${added.refusal.code}`);
  }
}
