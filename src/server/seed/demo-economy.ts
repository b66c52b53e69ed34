import { type CommandBook, newCommand } from "../../core/commands/settings";
import { chanceFrom } from "../../core/kernel/chance";
import { type ChannelId, gameId } from "../../core/kernel/ids";
import * as ledger from "../../core/points/ledger";
import { type PointsSettings, pointsDefaults } from "../../core/points/settings";
import type { Sale } from "../../core/rewards/desk";
import { newReward, type Reward, type RewardBook } from "../../core/rewards/settings";
import { momentLookDefaults } from "../../core/moments/moment";
import type { Deed } from "../../core/rules/deeds";
import type { Database } from "../adapters/mariadb/database";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import type { Booked, KeptRow } from "../ports/engine-store";

/** Clay, forty rewards and half a year of it, for Saltmarsh Kiln. */
export const demoPoints: PointsSettings = {
  ...pointsDefaults,
  name: "clay",
  presence: { points: 12, everyMin: 10, withinMin: 20 },
  dailyMost: 5_000,
  dayOffsetMin: 60,
  give: { on: true, least: 10, feeBp: 200 },
  words: { balance: "!clay", top: "!top", give: "!give" },
};

export const demoCommands: CommandBook = {
  schema: 1,
  bots: [],
  commands: [
    {
      ...newCommand("cone", "!cone", "The kiln climbs to cone 6, about 1,220 degrees."),
      words: ["!cone", "!kiln"],
      about: "how hot the kiln gets",
    },
    {
      ...newCommand("clays", "!clays", ""),
      about: "which clay this is",
      how: "in-turn",
      answers: ["Stoneware from the estuary, with a little grog.", "A smooth white body for the small cups."],
    },
    {
      ...newCommand("oracle", "!willitcrack", ""),
      about: "asks the kiln gods",
      how: "random",
      cooldownMs: 10_000,
      answers: ["The kiln gods nod, {viewer}.", "It will crack, {viewer}. It always does.", "Ask again when it is cool."],
    },
    {
      ...newCommand("oops", "!oops", "{count, plural, one {# pot} other {# pots}} fell off the wheel so far."),
      about: "counts what fell off the wheel",
      counts: true,
      roles: ["moderator", "streamer"],
    },
    { ...newCommand("hug", "!mugup", "{viewer} raises a mug to {target}."), about: "raises a mug to somebody", ownCooldownMs: 20_000 },
  ],
};

const sound = (id: string, volume = 80): Deed => ({ do: "sound", sound: id, volume, lane: "sounds" });
const show = (part: Partial<Extract<Deed, { do: "show" }>>): Deed => ({
  do: "show",
  picture: "",
  sound: "",
  volume: 80,
  text: "",
  ms: 5_000,
  lane: "main",
  look: momentLookDefaults,
  ...part,
});
const flock = (count: number, motion = "", chosen: readonly string[] = []): Deed => ({
  do: "flock",
  game: "emote-wall",
  count,
  overMs: 2_500,
  from: chosen.length === 0 ? "most-used" : "chosen",
  chosen: [...chosen],
  motion,
});
const strike = (give: number, how: "damage" | "heal" = "damage"): Deed => ({
  do: "damage",
  game: "old-spall",
  how,
  rate: { give, per: 1 },
});

/** Of each: mark, name, price, chat words, what it does, and what differs from a plain reward. */
type Line = readonly [id: string, name: string, price: number, words: string, deeds: Deed[], more?: Partial<Reward>];
const second = 1_000;
const minute = 60_000;

export function demoRewards(key: (word: string) => string): RewardBook {
  const made = (category: string, lines: readonly Line[]): Reward[] =>
    lines.map(([id, name, price, words, deeds, more = {}]) => ({
      ...newReward(id, name, price),
      category,
      words: words === "" ? [] : words.split(" "),
      deeds,
      ...more,
    }));
  const noisy = { sharedRestMs: 20 * second, ownRestMs: 60 * second };
  const red = { ...momentLookDefaults, y: 0.72, size: 0.2, entrance: "slide" as const };
  return {
    schema: 1,
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
        ["ask-him", "What does he do", 0, "!whois", [{ do: "tell-rules", game: "old-spall" }], { sharedRestMs: 60 * second, price: 0 }],
      ]),
      ...made("At the wheel", [
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
          { roles: ["member", "vip", "moderator", "streamer"], ...noisy },
        ],
        [
          "m-storm",
          "Storm of pots",
          400,
          "!potstorm",
          [flock(160, "spout")],
          { roles: ["member", "vip", "moderator", "streamer"], sharedRestMs: 2 * minute, icon: key("wobblePot") },
        ],
        [
          "m-greet",
          "Be greeted by name",
          100,
          "!greetme",
          [{ do: "say", text: "Good evening, {viewer}. Your mug is on its hook." }],
          { roles: ["member", "vip", "moderator", "streamer"], perViewerShow: 1 },
        ],
        [
          "early",
          "Tomorrow’s photos tonight",
          2_000,
          "!photos",
          [],
          { approval: true, on: false, roles: ["member", "vip", "moderator", "streamer"] },
        ],
      ]),
    ],
  };
}

const first = [
  "amber",
  "mossy",
  "pale",
  "salty",
  "quiet",
  "tidal",
  "crackle",
  "ashen",
  "copper",
  "drift",
  "ember",
  "fennel",
  "glazed",
  "hollow",
  "ivory",
  "kelp",
  "loamy",
  "misty",
  "nettle",
  "ochre",
];
const last = [
  "kettle",
  "wren",
  "bucket",
  "sponge",
  "gannet",
  "pestle",
  "lantern",
  "teapot",
  "otter",
  "ladle",
  "biscuit",
  "barge",
  "reed",
  "trowel",
  "thimble",
  "puddle",
  "spindle",
  "anvil",
  "marrow",
  "cricket",
];
const handles = Array.from({ length: 360 }, (_, i) => `${first[i % 20] ?? ""}_${last[Math.floor(i / 20) % 20] ?? ""}${i >= 340 ? i : ""}`);
const dayMs = 86_400_000;

/** Seventy-odd shows in half a year: who was there, what they did with their clay. The same every time. */
export async function fillHistory(db: Database, channel: ChannelId, rewards: RewardBook, nowMs: number): Promise<void> {
  const chance = chanceFrom(4_470);
  const sold = rewards.rewards.filter((r) => r.on && r.keptFor === "" && r.roles.includes("viewer") && r.price > 0);
  const balances = new Map<string, number>();
  const booked: Booked[] = [];
  const records: Omit<KeptRow, "gameId">[] = [];
  let seq = 0;
  const midnight = Math.floor(nowMs / dayMs) * dayMs;
  /** Each is a signal of its own, as it was when it happened. */
  const pay = (entry: ledger.Entry, sale: Sale | null = null, showId = ""): void => {
    if (sale === null || sale.id !== `s${seq}`) seq += 1;
    const viewers = entry.postings.flatMap((p) => (p.account.startsWith("v:") ? [p.account.slice(2)] : []));
    for (const p of entry.postings)
      if (p.account.startsWith("v:")) balances.set(p.account.slice(2), (balances.get(p.account.slice(2)) ?? 0) + p.amount);
    booked.push({
      seq,
      showId,
      booking: { entries: [entry], sales: sale === null ? [] : [sale], names: viewers.map((id) => ({ id, name: id })), prices: [] },
      earned: [],
      fresh: viewers.map((v) => ledger.viewerAccount(v)),
      counted:
        sale === null || sale.state === "refunded"
          ? sale === null
            ? []
            : [{ rewardId: sale.rewardId, name: sale.rewardName, sold: -1, handed: 0, points: -sale.price }]
          : [{ rewardId: sale.rewardId, name: sale.rewardName, sold: 1, handed: 0, points: sale.price }],
    });
  };
  let n = 0;
  for (let day = 182; day >= 2; day -= 1) {
    const weekday = new Date(midnight - day * dayMs).getUTCDay();
    if (![2, 5, 6].includes(weekday)) continue;
    n += 1;
    const fromMs = midnight - day * dayMs + 19 * 3_600_000;
    const toMs = fromMs + (110 + Math.floor(chance() * 70)) * minute;
    const showId = `past-${n}`;
    records.push({ seq: 0, kind: "show", viewer: null, fromMs, toMs, body: { id: showId, rehearsal: false, by: "kilnkeeper" } });
    // The channel grows: more of them come as the months go by, and the first come most often.
    const known = Math.min(handles.length, 60 + Math.floor(n * 4.4));
    const here = handles.slice(0, known).filter((_, i) => chance() < 0.16 + 0.5 * Math.exp(-i / 40));
    const rounds = 6 + Math.floor(chance() * 6);
    pay(
      ledger.earnedByMany(
        { key: `demo-here:${n}`, atMs: toMs, about: "", by: "" },
        "presence",
        here.map((viewer) => ({ viewer, amount: 12 * (3 + Math.floor(chance() * rounds)) })),
      ),
      null,
      showId,
    );
    for (let k = 0; k < 2 + chance() * 5; k += 1) {
      const viewer = here[Math.floor(chance() * here.length)] ?? "amber_kettle";
      const kind = chance() < 0.5 ? "follow" : chance() < 0.6 ? "membership" : "tip";
      pay(
        ledger.earned(
          { key: `demo-sig:${n}.${k}`, atMs: fromMs + k * 9 * minute, about: kind, by: "" },
          "signal",
          viewer,
          kind === "follow" ? 100 : kind === "tip" ? 300 : 500,
        ),
        null,
        showId,
      );
    }
    for (let k = 0; k < 14 + n / 3; k += 1) {
      const viewer = here[Math.floor(chance() * chance() * here.length)] ?? "amber_kettle";
      const reward = sold[Math.floor(chance() * chance() * sold.length)];
      if (reward === undefined || (balances.get(viewer) ?? 0) < reward.price || reward.stock > 0) continue;
      const id = `s${(seq += 1)}`;
      const atMs = fromMs + Math.floor((k / (14 + n / 3)) * (toMs - fromMs));
      const sale: Sale = {
        id,
        atMs,
        rewardId: reward.id,
        rewardName: reward.name,
        viewer: { id: viewer, name: viewer },
        price: reward.price,
        text: reward.text.how === "none" ? "" : "celadon, please",
        state: "done",
        showId,
        decidedBy: reward.approval ? "spongebearer" : "",
        times: 0,
        code: "",
        shown: true,
      };
      pay(ledger.bought({ key: `buy:${id}`, atMs, about: reward.name, by: "" }, viewer, reward.price), sale, showId);
      if (chance() < 0.02)
        pay(
          ledger.refunded(
            { key: `back:${id}:0`, atMs: atMs + minute, about: reward.name, by: "spongebearer" },
            viewer,
            reward.price,
            "spent",
          ),
          { ...sale, state: "refunded", decidedBy: "spongebearer" },
          showId,
        );
    }
  }
  // Those whom the rig and the tests speak as have something to spend.
  for (const [viewer, name, amount] of [
    ["mossy_teapot", "mossy_teapot", 1_240],
    ["quietferry", "quietferry", 640],
    ["oatcake_ada", "oatcake_ada", 2_310],
  ] as const)
    pay(
      ledger.adjusted(
        { key: `demo-start:${name}`, atMs: nowMs - 3 * dayMs, about: "thank you for the summer fair", by: "kilnkeeper" },
        viewer,
        Math.max(0, amount - (balances.get(viewer) ?? 0)),
      ),
    );
  // Two that wait for a yes.
  for (const [i, [viewer, rewardId, text]] of (
    [
      ["amber_kettle", "test-tile", ""],
      ["mossy_wren", "card", ""],
    ] as const
  ).entries()) {
    const reward = rewards.rewards.find((r) => r.id === rewardId);
    if (reward === undefined) continue;
    const atMs = nowMs - (2 - i) * 3_600_000;
    const short = reward.price - (balances.get(viewer) ?? 0);
    if (short > 0)
      pay(
        ledger.adjusted(
          { key: `demo-prize:${viewer}`, atMs: atMs - dayMs, about: "won at the summer fair", by: "kilnkeeper" },
          viewer,
          short + 350,
        ),
      );
    const id = `s${(seq += 1)}`;
    pay(ledger.asked({ key: `buy:${id}`, atMs, about: reward.name, by: "" }, viewer, reward.price), {
      id,
      atMs,
      rewardId,
      rewardName: reward.name,
      viewer: { id: viewer, name: viewer },
      price: reward.price,
      text,
      state: "waiting",
      showId: "",
      decidedBy: "",
      times: 0,
      code: "",
      shown: false,
    });
  }
  const store = mariadbEngineStore(db);
  await store.commit(channel, { rows: [], states: [], kept: records.map((r) => ({ ...r, gameId: gameId("kiln-show") })), booked });
}
