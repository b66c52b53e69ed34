import { newReward, type Reward, type RewardBook } from "../../core/rewards/settings";
import { alertLookDefaults } from "../../core/alerts/alert";
import type { RuleEffect } from "../../core/rules/effect";
import { type Line, second, minute } from "./demo-history";
import { peopleRewards, rewardsForPeople } from "./demo-people-rewards";

const sound = (id: string, volume = 80): RuleEffect => ({ do: "sound", sound: id, volume, queue: "sounds" });

const show = (part: Partial<Extract<RuleEffect, { do: "show" }>>): RuleEffect => ({
  do: "show",
  picture: "",
  sound: "",
  volume: 80,
  text: "",
  ms: 5_000,
  queue: "main",
  look: alertLookDefaults,
  ...part,
});

const act = (game: string, name: string, input: Record<string, unknown>): RuleEffect => ({ do: "act", game, act: name, input, per: 1 });

const flock = (count: number, motion = "", chosen: readonly string[] = []): RuleEffect =>
  act("emote-wall", "flock", {
    count,
    overMs: 2_500,
    emotes: { from: chosen.length === 0 ? "most-used" : "chosen", chosen: [...chosen] },
    motion,
  });

const strike = (amount: number, how: "damage" | "heal" = "damage"): RuleEffect => act("old-spall", how, { amount });

export function demoRewards(key: (word: string) => string): RewardBook {
  const made = (category: string, lines: readonly Line[]): Reward[] =>
    lines.map(([id, name, price, words, effects, more = {}]) => ({
      ...newReward(id, name, price),
      category,
      words: words === "" ? [] : words.split(" "),
      effects,
      ...more,
    }));
  const noisy = { sharedRestMs: 20 * second, ownRestMs: 60 * second };
  const red = { ...alertLookDefaults, y: 0.72, size: 0.2, entrance: "slide" as const };
  return {
    schema: 3,
    words: { shop: "!shop", price: "!price" },
    rewards: [
      ...made("Sounds", [
        [
          "kiln-roar",
          "Kiln roar",
          200,
          "!roar",
          [sound("kiln-roar")],
          { ...noisy, icon: key("kilnGlow"), about: "The kiln opens its throat." },
        ],
        ["clay-slap", "Slap of clay", 60, "!slap", [sound("clay-slap", 90)], { ...noisy, icon: key("clayBlock") }],
        ["bell", "Bell for a good pull", 80, "!bell", [sound("small-bell")], { ...noisy, icon: key("goodPull") }],
        ["wheel-hum", "Hum of the wheel", 90, "!hum", [sound("wheel-hum")], { ...noisy, icon: key("wheelTurn") }],
        ["drip", "Drip of glaze", 50, "!drip", [sound("glaze-drip")], { ...noisy, icon: key("glazeDrip") }],
        ["kettle", "Kettle", 120, "!kettle", [sound("kettle-whistle", 70)], { ...noisy, icon: key("teaPot") }],
        ["tide", "The tide comes in", 110, "!tide", [sound("tide-wave")], noisy],
        ["gull", "Gull over the roof", 70, "!gull", [sound("gull-cry", 70)], noisy],
        [
          "plate",
          "Spinning plate",
          100,
          "!plate",
          [sound("plate-spin")],
          { ...noisy, moving: { ceiling: 400, raiseBp: 800, halfLifeMs: 10 * minute } },
        ],
        ["door", "Kiln door", 150, "!creak", [sound("kiln-door")], noisy],
        ["shatter", "A pot shatters", 180, "!crash", [sound("pot-shatters", 85)], { ...noisy, perShow: 12, icon: key("crackSad") }],
        [
          "horn",
          "Harbour horn",
          400,
          "!horn",
          [sound("harbour-horn", 70)],
          { sharedRestMs: 5 * minute, ownRestMs: 20 * minute, perViewerShow: 2 },
        ],
      ]),
      ...made("On the picture", [
        [
          "sparks",
          "Handful of sparks",
          120,
          "!sparkle",
          [flock(40, "spout", [key("kilnGlow")])],
          { sharedRestMs: 15 * second, icon: key("kilnGlow") },
        ],
        ["rain", "Rain of mugs", 220, "!mugs", [flock(60, "rain", [key("mugUp")])], { sharedRestMs: 30 * second, icon: key("mugUp") }],
        [
          "gold",
          "Mended with gold",
          300,
          "!gold",
          [flock(80, "", [key("goldMend")]), sound("small-bell")],
          { sharedRestMs: 45 * second, icon: key("goldMend") },
        ],
        [
          "sponges",
          "Sponges everywhere",
          160,
          "!sponge",
          [flock(50, "ricochet", [key("spongeDab")])],
          { sharedRestMs: 30 * second, icon: key("spongeDab") },
        ],
        [
          "boat",
          "Boat on the marsh",
          350,
          "!boat",
          [show({ picture: "harbour-boat", text: "{viewer} sails by", ms: 7 * second, look: red })],
          { sharedRestMs: 60 * second },
        ],
        [
          "fire",
          "Fire in the kiln",
          260,
          "!fire",
          [show({ picture: "kiln-fire-sheet", sound: "kiln-roar", ms: 4 * second })],
          { sharedRestMs: 40 * second },
        ],
        [
          "ribbon",
          "A ribbon for somebody",
          240,
          "!ribbon",
          [show({ picture: "gold-ribbon", text: "{viewer}: {text}", look: red })],
          { text: { how: "must", asks: "For whom, and what for?" }, sharedRestMs: 30 * second },
        ],
        [
          "note",
          "A note on the picture",
          180,
          "!note",
          [show({ text: "{viewer} says: {text}", look: red })],
          { text: { how: "must", asks: "What shall it say?" }, ownRestMs: 5 * minute },
        ],
        [
          "sherd",
          "A sherd with your name",
          90,
          "!sherd",
          [show({ picture: "sherd", text: "{viewer}", ms: 3 * second, look: { ...red, size: 0.12 } })],
          { sharedRestMs: 10 * second },
        ],
      ]),
      ...made("Against Old Spall", [
        ["tap", "Tap him", 40, "!tap", [strike(5)], { ownRestMs: 20 * second }],
        ["hammer", "Swing the hammer", 150, "!hammer", [strike(25), sound("clay-slap")], { ownRestMs: 60 * second }],
        ["ram", "Battering ram", 600, "!ram", [strike(120), sound("pot-shatters")], { sharedRestMs: 3 * minute, onlyOnAir: true }],
        ["mend-him", "Mend him a little", 60, "!glue", [strike(10, "heal")], { ownRestMs: 30 * second }],
        ["ask-him", "What does he do", 0, "!whois", [act("old-spall", "tell-rules", {})], { sharedRestMs: 60 * second, price: 0 }],
      ]),
      ...made(peopleRewards, rewardsForPeople),
      ...made("At the wheel", [
        [
          "spin-wheel",
          "Spin the glaze wheel",
          500,
          "!wheel",
          [act("glaze-wheel", "spin", {})],
          { sharedRestMs: 30 * second, ownRestMs: 5 * minute, icon: key("wheelTurn"), about: "What comes is what gets dipped next." },
        ],
        [
          "mug-ticket",
          "A ticket for the mug",
          120,
          "!ticket",
          [act("weekly-mug", "enter", { tickets: 1, guess: "{text}" })],
          { about: "One more ticket in the weekly draw, while it is open.", icon: key("teaPot") },
        ],
        [
          "next-glaze",
          "Choose the next glaze",
          900,
          "!glaze",
          [{ do: "say", text: "{viewer} chose the next glaze: {text}" }],
          {
            approval: true,
            text: { how: "must", asks: "Which glaze?" },
            perShow: 3,
            perViewerShow: 1,
            onlyOnAir: false,
            icon: key("glazeDrip"),
          },
        ],
        [
          "name-pot",
          "Name a pot",
          1_200,
          "!name",
          [show({ text: "This pot is called {text}", ms: 6 * second })],
          { approval: true, text: { how: "must", asks: "Its name?" }, perShow: 2, onlyOnAir: true, icon: key("tallVase") },
        ],
        [
          "left-hand",
          "Throw left-handed for a minute",
          700,
          "!lefthand",
          [{ do: "say", text: "Left hand for a minute, thanks to {viewer}." }],
          { approval: true, sharedRestMs: 10 * minute, onlyOnAir: true },
        ],
        [
          "tall",
          "Pull it taller",
          500,
          "!taller",
          [{ do: "say", text: "Taller, says {viewer}." }],
          { approval: true, sharedRestMs: 5 * minute, onlyOnAir: true, icon: key("tallVase") },
        ],
        ["sing", "A song while trimming", 1_500, "!sing", [], { approval: true, perShow: 1, onlyOnAir: true }],
        [
          "tea-break",
          "Call a tea break",
          800,
          "!teabreak",
          [{ do: "cue", cue: "break" }],
          { approval: true, perShow: 1, onlyOnAir: true, icon: key("teaPot") },
        ],
        ["door-cue", "Open the kiln door", 250, "", [{ do: "cue", cue: "kiln-door" }], { sharedRestMs: 60 * second }],
      ]),
      ...made("To hold in your hands", [
        [
          "mug",
          "Mug from the second shelf",
          25_000,
          "",
          [],
          {
            approval: true,
            stock: 5,
            detail: "Where shall it be sent? Name and address",
            perViewerShow: 1,
            about: "Thrown on stream, fired last week.",
            icon: key("mugUp"),
          },
        ],
        [
          "test-tile",
          "Test tile",
          8_000,
          "",
          [],
          {
            approval: true,
            stock: 20,
            detail: "Where shall it be sent? Name and address",
            about: "One of the glaze tests, with its recipe.",
          },
        ],
        ["card", "Postcard from the marsh", 4_000, "", [], { approval: true, detail: "Where shall it be sent? Name and address" }],
      ]),
      ...made("For members", [
        [
          "m-bell",
          "Three bells",
          60,
          "!bells",
          [sound("small-bell"), { do: "wait", ms: 900 }, sound("small-bell"), { do: "wait", ms: 900 }, sound("small-bell")],
          { roles: ["member", "guest", "moderator", "streamer"], ...noisy },
        ],
        [
          "m-storm",
          "Storm of pots",
          400,
          "!potstorm",
          [flock(160, "spout")],
          { roles: ["member", "guest", "moderator", "streamer"], sharedRestMs: 2 * minute, icon: key("wobblePot") },
        ],
        [
          "m-greet",
          "Be greeted by name",
          100,
          "!greetme",
          [{ do: "say", text: "Good evening, {viewer}. Your mug is on its hook." }],
          { roles: ["member", "guest", "moderator", "streamer"], perViewerShow: 1 },
        ],
        [
          "early",
          "Tomorrow’s photos tonight",
          2_000,
          "!photos",
          [],
          { approval: true, on: false, roles: ["member", "guest", "moderator", "streamer"] },
        ],
      ]),
    ],
  };
}
