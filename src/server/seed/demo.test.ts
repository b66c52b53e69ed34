import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { cueBookSchema } from "../../core/cues/settings";
import { bossHints } from "../../core/games/boss-battle/hints";
import { rewardBookSchema } from "../../core/rewards/settings";
import { checkLedgerOf } from "../adapters/mariadb/ledger-check";
import { moduleOf } from "../../core/modules";
import { rulebookSchema } from "../../core/rules/settings";
import { planSchema } from "../../core/show/plan";
import { showDurableSchema, showSettingsSchema } from "../../core/show/settings";
import { cueHints, rewardHints, ruleHints } from "../../core/rules/hints";
import { migrate } from "../adapters/mariadb/migrate";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import { mariadbOperatorStore } from "../adapters/mariadb/operator-store";
import { channelId } from "../../core/kernel/ids";
import { readEnv } from "../env";
import { Modules } from "../engine/modules";
import { testDatabase } from "../testing/database";
import { seedDemo } from "./demo";
import { demoBoss } from "./demo-games";
import { isShowDay, lastEveningMs } from "./demo-records";

const channel = channelId("saltmarsh-kiln");
const at = (part: Record<string, string>) =>
  readEnv({
    IZZAM_DB_PORT: "1",
    IZZAM_DB_PASSWORD: "x",
    IZZAM_APP_KEY: "cd".repeat(32),
    IZZAM_INTERNAL_KEY: "k".repeat(40),
    IZZAM_DEMO: "1",
    ...part,
  });
const rig = (web: number, irc: number) => at({ IZZAM_PRACTICE_URL: `http://127.0.0.1:${web}`, IZZAM_PRACTICE_IRC_PORT: String(irc) });

let db: Awaited<ReturnType<typeof testDatabase>>["db"];
let end: () => Promise<void>;
beforeAll(async () => void ({ db, end } = await testDatabase("seed")));
afterAll(() => end());
const seed = (env = rig(4480, 4481)) => seedDemo({ db, store: mariadbOperatorStore(db), env, folder: "demo/", nowMs: 1_790_000_000_000 });
const chat = async () => (await mariadbOperatorStore(db).chat.connection(channel))!.settings as Record<string, unknown>;

describe("the demo channel", () => {
  test("is a channel that runs: two operators, twelve emotes of which two move, a wall on a linked stage, chat", async () => {
    await seed();
    const row = (await mariadbEngineStore(db).channel(channel))!;
    expect(row.name).toBe("Saltmarsh Kiln");
    const emotes = row.sprites.filter((s) => s.key.startsWith("own:"));
    expect(emotes).toHaveLength(12);
    expect(emotes.filter((s) => s.frames > 1).map((s) => s.word)).toEqual(["kilnGlow", "wobblePot"]);
    expect(row.games.map((g) => moduleOf(g.kind)?.settings.safeParse(g.settings).success)).toEqual(row.games.map(() => true));
    expect(row.games.map((g) => g.kind).sort()).toEqual([
      "boss-battle",
      "brimful",
      "clips",
      "commands",
      "companion",
      "cues",
      "emote-wall",
      "greeting",
      "points",
      "prediction",
      "presenting",
      "raffle",
      "rewards",
      "rules",
      "scene-changes",
      "show",
      "voices",
      "wheel",
    ]);
    expect(row.overlays.map((o) => [o.tokenHash !== null, o.places.length])).toEqual([[true, 11]]);
    expect(((await db("operators").select("login")) as { login: string }[]).map((o) => o.login).sort()).toEqual([
      "kilnkeeper",
      "spongebearer",
    ]);
    expect(await chat()).toMatchObject({ host: "127.0.0.1", port: 4481, emotePictures: "http://127.0.0.1:4480/emotes/{id}" });
  });
  test("has rules, cues and props that between them use every effect, and none that can't work", async () => {
    const row = (await mariadbEngineStore(db).channel(channel))!;
    const rules = rulebookSchema.parse(row.games.find((g) => g.kind === "rules")!.settings);
    const cues = cueBookSchema.parse(row.games.find((g) => g.kind === "cues")!.settings);
    const effects = [
      ...rules.rules.flatMap((r) => r.tiers.flatMap((t) => t.effects)),
      ...cues.cues.flatMap((c) => [...c.effects, ...c.offEffects]),
    ];
    expect(new Set(effects.map((d) => (d.do === "act" ? d.act : d.do)))).toEqual(
      new Set(["damage", "heal", "flock", "shake", "show", "sound", "say", "spin", "dance", "calm", "go", "switch", "tell-rules", "wait"]),
    );
    const props = [
      ...row.sprites.filter((s) => s.key.startsWith("prop:")).map((s) => ({ id: s.key.slice(5), kind: "picture" as const })),
      ...row.sounds.map((s) => ({ id: s.id, kind: "sound" as const })),
    ];
    expect([props.length, row.sounds.length]).toEqual([20, 14]);
    const facts = { games: row.games.map((g) => ({ id: g.id, kind: g.kind })), props };
    expect([...ruleHints(rules, facts), ...cueHints(cues.cues, facts)]).toEqual([]);
    // The rundown and the commands name what is there.
    const show = row.games.find((g) => g.kind === "show")!;
    const modules = new Modules();
    modules.load(row);
    expect(modules.unreadable).toEqual([]);
    const { plan } = showDurableSchema.parse(show.durable);
    expect(planSchema.safeParse(plan.items).success).toBe(true);
    for (const { does } of plan.items) {
      if (does.do === "cue") expect(cues.cues.map((c) => c.id)).toContain(does.cue);
      else if (does.do !== "note") expect(facts.games.map((g) => g.id)).toContain(does.game);
    }
    for (const { game } of showSettingsSchema.parse(show.settings).commands) expect(["", ...facts.games.map((g) => g.id)]).toContain(game);
    expect(bossHints(demoBoss)).toEqual([]);
  });
  test("has clay: forty-six rewards that can all work, half a year of history, and a ledger that balances to the point", async () => {
    const row = (await mariadbEngineStore(db).channel(channel))!;
    const { rewards } = rewardBookSchema.parse(row.games.find((g) => g.kind === "rewards")!.settings);
    expect(rewards).toHaveLength(46);
    const facts = {
      games: row.games.map((g) => ({ id: g.id, kind: g.kind })),
      props: [
        ...row.sprites.filter((s) => s.key.startsWith("prop:")).map((s) => ({ id: s.key.slice(5), kind: "picture" as const })),
        ...row.sounds.map((s) => ({ id: s.id, kind: "sound" as const })),
      ],
      audible: true,
    };
    expect(rewardHints(rewards, facts).filter((h) => !h.text.includes("no chat word"))).toEqual([]);
    // No chat word means two things.
    const words = rewards.flatMap((r) => r.words);
    const others = [
      ...showSettingsSchema.parse(row.games.find((g) => g.kind === "show")!.settings).commands.map((c) => c.word),
      ...cueBookSchema.parse(row.games.find((g) => g.kind === "cues")!.settings).cues.map((c) => c.word),
    ];
    expect(words.filter((w) => others.includes(w))).toEqual([]);
    const report = await checkLedgerOf(db, channel);
    expect(report.faults).toEqual([]);
    expect(report.accounts).toBeGreaterThan(300);
    const { months, shows, rewards: best } = await mariadbOperatorStore(db).points.charts(channel, 0);
    expect(months.length).toBeGreaterThanOrEqual(6);
    expect(shows.length).toBe(24);
    expect(months.every((m) => m.made > 0 && m.there > 0)).toBe(true);
    expect(best.length).toBe(12);
  });
  test("its rounds, films and texts fall into its shows, whichever day it is filled on", () => {
    for (let day = 0; day < 14; day += 1) {
      const nowMs = Date.UTC(2026, 10, 20 + day, (day * 5) % 24);
      const nights = Array.from({ length: 12 }, (_, nth) => lastEveningMs(nowMs, nth));
      expect(new Set(nights).size).toBe(12);
      expect(nights.every((at, i) => i === 0 || at < (nights[i - 1] ?? 0))).toBe(true);
      expect(nights.every((at) => isShowDay(Math.floor(at / 86_400_000) * 86_400_000) && at % 86_400_000 === 19 * 3_600_000)).toBe(true);
      // None was left out between two, and none is of yesterday or today.
      expect(nights.slice(1).every((at, i) => (nights[i] ?? 0) - at <= 3 * 86_400_000)).toBe(true);
      expect(nowMs - (nights[0] ?? 0)).toBeGreaterThan(24 * 3_600_000);
    }
  });
  test("is filled once: what a person changed stays", async () => {
    await db("games").update({ name: "My own wall" });
    await db("emotes").where({ word: "teaPot" }).update({ removed_ms: 1 });
    await seed();
    expect(((await db("games").first("name")) as { name: string }).name).toBe("My own wall");
    expect((await mariadbEngineStore(db).channel(channel))!.sprites.filter((s) => s.key.startsWith("own:"))).toHaveLength(11);
  });
  test("follows the rig to its new ports, and stays with a server that a person chose", async () => {
    await seed(rig(5000, 5001));
    expect(await chat()).toMatchObject({ port: 5001, emotePictures: "http://127.0.0.1:5000/emotes/{id}" });
    await mariadbOperatorStore(db).chat.saveConnection(channel, {
      enabled: true,
      settings: { ...(await chat()), practice: false, host: "chat.example" },
    });
    await seed(rig(6000, 6001));
    expect(await chat()).toMatchObject({ host: "chat.example", port: 5001 });
  });
  test("migrations run once, and again change nothing", async () => {
    expect(await migrate(db)).toEqual([]);
  });
});
