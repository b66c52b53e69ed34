import { companion } from "../../core/games/companion/definition";
import { type CompanionSettings, freshCompanion } from "../../core/games/companion/settings";
import { greeting } from "../../core/games/greeting/definition";
import { freshGreeting, type GreetingDurable, type GreetingSettings } from "../../core/games/greeting/settings";
import { presenting } from "../../core/games/presenting/definition";
import type { PresentingSettings } from "../../core/games/presenting/settings";
import { studio } from "../../core/games/scene-changes/definition";
import type { StudioSettings } from "../../core/games/scene-changes/settings";
import { voices } from "../../core/games/voices/definition";
import type { VoicesSettings } from "../../core/games/voices/settings";
import { chanceFrom, pick } from "../../core/kernel/chance";
import type { ChannelId } from "../../core/kernel/ids";
import type { Kept } from "../../core/module/module";
import type { Place } from "../../core/wire/messages";
import type { Database } from "../adapters/mariadb/database";
import { addRecords, lastEveningMs, someViewers } from "./demo-records";

/** What Saltmarsh Kiln does for the people who come. */
export const greetingId = "at-the-door";
export const demoGreeting: GreetingSettings = {
  ...greeting.defaults,
  lines: {
    fresh: ["comes in from the marsh for the first time", "found the kiln. Mind the buckets!"],
    away: ["is back from the sea after {days} days", "was gone for {days} days, and the tea is still warm"],
    moderator: ["hangs the keys on their nail", "has come to mind the kiln"],
    guest: ["is here, and a chair was kept free"],
    member: ["takes their own mug off the shelf", "puts the kettle on"],
    everybody: ["wipes their feet and sits by the kiln", "comes in with the tide", "pulls up a crate", "leans on the workbench"],
  },
  ignored: ["kilnbot"],
  sound: "small-bell",
  volume: 35,
};

export const presentingId = "worth-a-visit";
export const demoPresenting: PresentingSettings = {
  ...presenting.defaults,
  reply: "Do knock at {name}’s door: {page}",
  looks: { ...presenting.defaults.looks, code: true },
};

export const voicesId = "read-aloud";
export const demoVoices: VoicesSettings = {
  ...voices.defaults,
  words: [
    { word: "!say", voice: "" },
    { word: "!whisper", voice: "ghost" },
  ],
  byRole: [{ role: "guest", voice: "harbour" }],
  voices: [
    { id: "evening", name: "Evening", engine: "espeak", mark: "en", timbre: "f2", pitch: 45, pace: 155, level: 90 },
    { id: "harbour", name: "Harbour master", engine: "flite", mark: "awb", timbre: "", pitch: 45, pace: 150, level: 95 },
    { id: "gull", name: "Gull", engine: "espeak", mark: "en-gb-scotland", timbre: "f5", pitch: 90, pace: 200, level: 80 },
    { id: "ghost", name: "Kiln ghost", engine: "espeak", mark: "en", timbre: "whisper", pitch: 20, pace: 130, level: 100 },
  ],
  said: [{ name: "ferrule7", as: "ferrule seven" }],
};

export const companionId = "kiln-cat";
export const demoCompanion: CompanionSettings = {
  ...companion.defaults,
  name: "Grog",
  hello: ["good evening, {viewer}", "oh, {viewer}! Mind the wet clay", "{viewer}, there is tea", "purr, {viewer}"],
  ignored: ["kilnbot"],
  answers: [
    { word: "!pet", state: "cheer", bubble: "", restMs: 15_000, roles: ["viewer"] },
    { word: "!grog", state: "speak", bubble: "I am at {mood} of 100, {viewer}", restMs: 30_000, roles: ["viewer"] },
    { word: "!jig", state: "dance", bubble: "", restMs: 60_000, roles: ["member", "guest", "moderator", "streamer"] },
    { word: "!nap", state: "sleep", bubble: "", restMs: 0, roles: ["moderator", "streamer"] },
  ],
  sleepMin: 8,
  moodPerHour: 15,
  looks: { ...companion.defaults.looks, size: 95 },
};

export const scenesId = "kiln-scenes";
export const demoScenes: StudioSettings = {
  ...studio.defaults,
  answers: {
    ...studio.defaults.answers,
    raid: { on: true, least: 5, scene: "Shelf", holdMs: 20_000, onlyIn: ["Throwing", "Hands"] },
    tip: { on: true, least: 2_000, scene: "Kiln door", holdMs: 15_000, onlyIn: [] },
    live: { on: true, least: 0, scene: "Throwing", holdMs: 0, onlyIn: [] },
  },
};

const dayMs = 86_400_000;
/** In which shows they were, so that regulars are known; who was greeted lately; and two who have an entrance of their own. */
export async function fillPeople(db: Database, channel: ChannelId, nowMs: number): Promise<void> {
  const place: Place = { x: 0.27, y: 0.045, width: 0.38, height: 0.16, hidden: false, locked: false, opacity: 1 };
  await db("placements").insert({ overlay_id: "main-stage", game_id: greetingId, place: JSON.stringify(place), order: 5 });
  const chance = chanceFrom(1_209);
  const viewers = await someViewers(db, channel, 600);
  const kept: Kept[] = [];
  for (const [i, v] of viewers.entries()) {
    // The oldest were in most; a few have not been seen for long.
    const shows = 1 + pick(chance, Math.max(2, 46 - Math.floor(i / 9)));
    const lastMs = nowMs - dayMs * (i % 11 === 5 ? 40 + pick(chance, 60) : 1 + pick(chance, 16)) - pick(chance, 3) * 3_600_000;
    const firstMs = Math.min(lastMs, nowMs - dayMs * (3 * shows + pick(chance, 9)));
    await db("viewers").where({ id: v.id }).update({ shows, first_ms: firstMs, last_ms: lastMs, last_show: "before" });
    if (i < 60)
      kept.push({
        kind: "greeted",
        viewer: { id: v.ext, name: v.name },
        fromMs: lastMs,
        toMs: lastMs,
        body: { shows, days: shows === 1 ? null : 1 + pick(chance, 9) },
      });
  }
  await addRecords(
    db,
    channel,
    greetingId,
    kept.sort((a, b) => a.fromMs - b.fromMs),
  );
  const card: Place = { x: 0.34, y: 0.36, width: 0.4, height: 0.18, hidden: false, locked: false, opacity: 1 };
  await db("placements").insert({ overlay_id: "main-stage", game_id: presentingId, place: JSON.stringify(card), order: 6 });
  const said: Place = { x: 0.31, y: 0.85, width: 0.4, height: 0.13, hidden: false, locked: false, opacity: 1 };
  await db("placements").insert({ overlay_id: "main-stage", game_id: voicesId, place: JSON.stringify(said), order: 7 });
  // On the workbench, over where what is said stands; under all cards.
  const bench: Place = { x: 0.33, y: 0.5, width: 0.3, height: 0.345, hidden: false, locked: false, opacity: 1 };
  await db("placements").insert({ overlay_id: "main-stage", game_id: companionId, place: JSON.stringify(bench), order: 0 });
  const cat = { ...freshCompanion(), seed: 12, fed: 311, mood: { thousandths: 64_000, atMs: nowMs } };
  await db("game_states").insert({ game_id: companionId, seq: 0, durable: JSON.stringify(cat), version: 1 });
  const neighbours = ["seaglass_sia", "grandad_grog", "raku_rita", "tin_lantern", "otterly_fine", "wedgewright"];
  const topics = ["Sea glass jewellery", "Songs of the marsh", "Bread, slowly", "Painting boats"];
  await addRecords(
    db,
    channel,
    presentingId,
    neighbours.map((name, i): Kept => {
      const atMs = lastEveningMs(nowMs, 2 * i) + (50 + i * 7) * 60_000;
      const body = {
        name,
        page: `https://platform.example/${name}`,
        topic: topics[i % topics.length],
        about: "",
        by: i % 2 === 0 ? "spongebearer" : "a raid",
      };
      return { kind: "presented", viewer: null, fromMs: atMs, toMs: atMs, body };
    }),
  );
  const spoken = [
    ["mossy_teapot", "Good evening to everybody at the wheel", "both"],
    ["oatcake_ada", "Does the tall one get a lid?", "both"],
    ["loamy_wren", "My first mug is out of the kiln and it holds tea", "both"],
    ["misty_bucket", "Slower on the pull", "shown"],
    ["amber_kettle", "Greetings from the ferry", "both"],
    ["ivory_wren", "Ash glaze, please, ash glaze", "spoken"],
    ["hollow_bucket", "The cat is on the bats again", "both"],
  ] as const;
  const texts = [0, 0, 0, 0, 1, 1, 1, 2, 2, 3, 4, 5].map((nth, i): Kept => {
    const [name, text, how] = spoken[i % spoken.length] ?? spoken[0];
    const atMs = lastEveningMs(nowMs, nth) + (8 + i * 7) * 60_000;
    return { kind: "spoken", viewer: { id: name, name }, fromMs: atMs, toMs: atMs, body: { text, voice: "harbour", how } };
  });
  await addRecords(
    db,
    channel,
    voicesId,
    texts.sort((a, b) => a.toMs - b.toMs),
  );
  const of = (name: string, line: string, picture: string, sound: string): GreetingDurable["entrances"][number] => ({
    id: name,
    name,
    line,
    picture,
    sound,
    role: null,
    by: "kilnkeeper",
  });
  const durable: GreetingDurable = {
    ...freshGreeting(),
    entrances: [
      of("mossy_teapot", "pours in, steaming", "", "kettle-whistle"),
      of("oatcake_ada", "wipes their feet and sits by the kiln", "gold-ribbon", ""),
    ],
  };
  await db("game_states").insert({ game_id: greetingId, seq: 0, durable: JSON.stringify(durable), version: 1 });
}
