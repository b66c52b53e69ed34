import { afterEach, describe, expect, test } from "@jest/globals";
import { refused } from "../../core/kernel/refusal";
import { bossBattle } from "../../core/games/boss-battle/definition";
import { bossDefaults } from "../../core/games/boss-battle/settings";
import { channelId, gameId } from "../../core/kernel/ids";
import { ratesOfRoom } from "../../core/lab/rates";
import { pointsDefaults } from "../../core/points/settings";
import type { Source } from "../../core/rehearsal/plan";
import { newReward, rewardBookDefaults } from "../../core/rewards/settings";
import { newRule, rulebookDefaults } from "../../core/rules/settings";
import { versionOf } from "../../core/kernel/stored";
import { showRules } from "../../core/show/rules";
import { freshShow, showDefaults } from "../../core/show/settings";
import { inProcessBus } from "../adapters/bus/in-process";
import { memoryEngineStore, type MemoryStore } from "../adapters/memory/engine-store";
import { Runner } from "../engine/runner";
import type { ChannelRow, GameRow, LogRow } from "../ports/engine-store";
import type { Publication } from "../ports/bus";
import { pause, testChannel } from "../testing/channel";
import { Rehearsal } from "./rehearsal";
import { Rehearsals, type RehearsalsParts } from "./rehearsals";

const fromMs = Date.UTC(2026, 10, 28, 19);
const game = (id: string, kind: string, settings: unknown, durable: unknown = null): GameRow => ({
  id: gameId(id),
  kind,
  name: id,
  version: 1,
  settings,
  durable,
});
const jug = { ...bossDefaults, health: 200 };
const games = (items: readonly unknown[] = []): readonly GameRow[] => [
  game("jug", "boss-battle", jug, { ...bossBattle.freshDurable(jug), on: false }),
  game("rules", "rules", { ...rulebookDefaults, rules: [{ ...newRule("late", "raid"), name: "Late rule" }] }),
  game("rewards", "rewards", { ...rewardBookDefaults, rewards: [newReward("gold", "Gold rim", 9_000_000)] }),
  game("points", "points", { ...pointsDefaults, name: "clay" }),
  {
    ...game("show", "show", showDefaults, { ...freshShow(), plan: { revision: 1, by: "t", items } }),
    stateVersion: versionOf(showRules.stateSteps),
  },
];
const starts = {
  id: "one",
  title: "The jug",
  atMin: 1,
  lengthMin: 0,
  note: "",
  does: { do: "start", game: "jug" },
  starts: { how: "time" },
};
const quiet: Source = { from: "nobody" };
const follows = (perHour: number): Source => ({
  from: "rates",
  name: "follows",
  rates: {
    ...ratesOfRoom("quiet", 3),
    perHour: { message: 0, follow: perHour, membership: 0, gift: 0, tip: 0, reaction: 0, raid: 0, host: 0 },
    buys: 0,
  },
});
const open: { stop: () => Promise<void> }[] = [];
afterEach(async () => {
  for (const one of open.splice(0)) await one.stop();
});

function room(source: Source, at: Readonly<{ items?: readonly unknown[]; pace?: number; rows?: readonly LogRow[]; chat?: boolean }> = {}) {
  const bus = inProcessBus();
  const told: Publication[] = [];
  bus.subscribe((_, p) => told.push(p));
  const real = { ms: 0 };
  const said: string[] = [];
  const errors: unknown[] = [];
  const rehearsal = new Rehearsal(
    {
      bus,
      say: (text) => (said.push(text), true),
      speech: undefined,
      lookUp: undefined,
      realMs: () => real.ms,
      onError: (_, error) => errors.push(error),
      logged: async ({ after, fromMs: from }) =>
        (at.rows ?? []).filter((r) => r.atMs >= from && (after === null || r.atMs > after.atMs || r.seq > after.seq)).slice(0, 3),
    },
    {
      id: channelId("rh-1"),
      channel: channelId("kiln"),
      row: testChannel({ id: channelId("rh-1"), games: games(at.items ?? [starts]) }),
      ledger: { accounts: [], sold: [], soldInShow: [], last: [], prices: [], sales: [] },
      fromMs,
      by: "tom",
      source,
      pace: at.pace ?? 1,
      chat: at.chat ?? false,
    },
  );
  open.push(rehearsal);
  const reaches = async (minute: number): Promise<void> => {
    for (let i = 0; i < 1_000 && rehearsal.standing().nowMs < fromMs + minute * 60_000 && !rehearsal.isOver; i += 1) await pause(20);
  };
  return { rehearsal, bus, told, real, said, errors, reaches };
}
const boss = (r: Rehearsal) => r.runner.view.forOperators().find((g) => g.id === "jug")?.view;

describe("a rehearsal's time", () => {
  test("runs at its pace, stands when paused, and what the rundown starts by itself starts at its own minute", async () => {
    const { rehearsal, real, reaches } = room(quiet, { pace: 20 });
    await rehearsal.begin();
    real.ms += 2_000.37;
    await reaches(0.6);
    expect(boss(rehearsal)?.["on"]).toBe(false);
    rehearsal.steer({ do: "pause" });
    const { nowMs: stood } = rehearsal.standing();
    rehearsal.steer({ do: "jump", minutes: 1 });
    for (let i = 0; i < 200 && rehearsal.standing().state === "jumps"; i += 1) await pause(10);
    // Whoever looks ahead while it stands finds it standing there.
    expect(rehearsal.standing()).toMatchObject({ state: "paused", nowMs: stood + 60_000 });
    const { nowMs } = rehearsal.standing();
    // Pages take whole milliseconds, and nothing else.
    expect(Number.isInteger(nowMs)).toBe(true);
    real.ms += 60_000;
    await pause(150);
    expect(rehearsal.standing().nowMs).toBe(nowMs);
    rehearsal.steer({ do: "go-on" });
    real.ms += 3_000;
    await reaches(1.1);
    expect(boss(rehearsal)?.["on"]).toBe(true);
    // To the millisecond, however fast it went by.
    expect(rehearsal.observer.marks.find((m) => JSON.stringify(m).includes("jug"))?.atMs).toBe(fromMs + 60_000);
  });
  test("a jump plays all that lies between", async () => {
    const { rehearsal, reaches } = room(follows(600));
    await rehearsal.begin();
    rehearsal.steer({ do: "jump", minutes: 30 });
    await reaches(30);
    expect(rehearsal.standing()).toMatchObject({ state: "runs", nowMs: fromMs + 30 * 60_000 });
    expect(rehearsal.observer.watch.signals.get("follow")).toBeGreaterThan(200);
  });
});

describe("what is done in a rehearsal", () => {
  test("what is only drawn is drawn while it runs, and left out of a jump", async () => {
    const { rehearsal, told, real, reaches } = room(follows(2_000), { pace: 20 });
    await rehearsal.begin();
    await rehearsal.runner.requests.command("jug", "tom", "command-drawn", { do: "switch", on: true });
    const drawn = () => told.filter((p) => p.kind === "effects").length;
    for (let i = 0; i < 200 && drawn() === 0; i += 1) {
      real.ms += 500;
      await pause(20);
    }
    expect(drawn()).toBeGreaterThan(0);
    rehearsal.steer({ do: "jump", minutes: 20 });
    await pause(5);
    const [before, hits] = [drawn(), rehearsal.observer.fights.of("jug", 0, Infinity).points.length];
    await reaches(20);
    expect(rehearsal.observer.fights.of("jug", 0, Infinity).points.length).toBeGreaterThan(hits);
    expect(drawn()).toBe(before);
  });
  test("hands work as in the booth; chat hears nothing unless it is wanted", async () => {
    const { rehearsal, said } = room(quiet);
    await rehearsal.begin();
    const done = await rehearsal.runner.requests.command("jug", "tom", "command-12345", { do: "switch", on: true });
    expect([done.ok, boss(rehearsal)?.["on"]]).toEqual([true, true]);
    rehearsal.runner.say("hello");
    expect(said).toEqual([]);
    rehearsal.steer({ do: "chat", on: true });
    rehearsal.runner.say("hello");
    expect(said).toEqual(["hello"]);
  });
  test("a signal by hand, as any viewer, hits; one without a name is refused", async () => {
    const { rehearsal, reaches } = room(quiet, { pace: 20 });
    await rehearsal.begin();
    await rehearsal.runner.requests.command("jug", "tom", "command-12345", { do: "switch", on: true });
    expect(await rehearsal.one({ kind: "tip", as: "Oatcake Ada", amount: 500, text: "" })).toEqual({ ok: true, value: null });
    expect(Number(boss(rehearsal)?.["health"])).toBeLessThan(200);
    expect(await rehearsal.one({ kind: "tip", as: " ", amount: 500, text: "" })).toMatchObject({ refusal: { code: "input/invalid" } });
    await reaches(0);
  });
  test("a past show's log is played at its own times, from any minute, page by page, and ends the rehearsal", async () => {
    const row = (seq: number, min: number, part: Partial<LogRow>): LogRow => ({
      seq,
      atMs: 1_000_000 + min * 60_000,
      kind: "follow",
      source: "event",
      id: null,
      viewer: { id: "ada", name: "ada", roles: [] },
      body: {},
      ...part,
    });
    const rows = [
      row(1, 1, {}),
      row(2, 5, {
        kind: "command",
        source: "operator",
        viewer: null,
        body: { gameId: "jug", by: "mo", command: { do: "switch", on: true } },
      }),
      row(3, 6, { kind: "follow" }),
      row(4, 6, { kind: "happened", source: "game", body: { what: "boss/fell", gameId: "jug" } }),
      row(5, 7, { kind: "message", source: "chat", body: { text: "hello" } }),
      row(6, 8, {
        kind: "command",
        source: "operator",
        viewer: null,
        body: { gameId: "show", by: "mo", command: { do: "show", what: "end" } },
      }),
    ];
    const log = {
      from: "log" as const,
      fromMs: 1_000_000,
      toMs: 2_000_000,
      beginMs: 1_000_000 + 4 * 60_000,
      name: "the first",
      hands: true,
    };
    const { rehearsal, reaches } = room(log, { rows });
    await rehearsal.begin();
    rehearsal.steer({ do: "jump", minutes: 60 });
    await reaches(60);
    for (let i = 0; i < 50 && !rehearsal.isOver; i += 1) await pause(20);
    expect(rehearsal.standing()).toMatchObject({ state: "over", why: { code: "rehearsal/played" } });
    const { signals } = rehearsal.observer.watch;
    expect([signals.get("follow"), signals.get("message"), signals.get("happened")]).toEqual([1, 1, undefined]);
    expect(rehearsal.observer.marks.map((m) => m.atMs)).toContain(fromMs + 60_000);
  });
  test("another crowd takes over, and nobody at all is one of them", async () => {
    const { rehearsal, reaches } = room(follows(6_000));
    await rehearsal.begin();
    rehearsal.steer({ do: "jump", minutes: 1 });
    await reaches(1);
    rehearsal.steer({ do: "crowd", room: "nobody" });
    const before = rehearsal.standing().signals;
    rehearsal.steer({ do: "jump", minutes: 5 });
    await reaches(6);
    expect(rehearsal.standing()).toMatchObject({ signals: before, crowdIs: "nobody", state: "runs" });
    rehearsal.steer({ do: "crowd", room: "busy" });
    rehearsal.steer({ do: "jump", minutes: 1 });
    await reaches(7);
    expect(rehearsal.observer.watch.signals.get("message")).toBeGreaterThan(300);
  });
});

describe("what it taught", () => {
  test("what fell early, what never answered, what was refused and what nobody could reach, each with where to set it right", async () => {
    const { rehearsal, reaches } = room(follows(60_000));
    await rehearsal.begin();
    rehearsal.steer({ do: "jump", minutes: 12 });
    await reaches(12);
    rehearsal.steer({ do: "end" });
    expect(rehearsal.steer({ do: "pause" })).toMatchObject({ refusal: { code: "rehearsal/over" } });
    const words = (id: string) => rehearsal.report?.find((p) => p.id === id)?.lines.map((l) => l.words) ?? [];
    expect(words("came").join()).toMatch(/jug: a boss falls .*first at 0:0[12]:\d\d, within the first quarter of the 0:12:00 rehearsed/);
    expect(words("never")).toContain("The rule “Late rule” never answered.");
    expect(words("reach").join()).toMatch(/^“Gold rim” costs 9,000,000; nobody had more than [1-9][\d,]+\.$/);
    expect(words("points")[0]).toMatch(/^[1-9][\d,]+ clay were made and 0 taken\.$/);
    const fell = rehearsal.report?.[0]?.lines.find((l) => l.tone === "look");
    expect(fell?.links.map((l) => l.href)).toEqual(["/prepare/games/jug", "/rehearse/lab?about=jug"]);
  });
});

describe("the rehearsals of a channel", () => {
  async function house(row: ChannelRow = testChannel({ games: games() })) {
    const bus = inProcessBus();
    const store: MemoryStore = memoryEngineStore();
    store.put(row);
    const clock = { now: () => fromMs };
    const live = new Runner({ store, clock, bus }, row, 0);
    const lent: unknown[] = [];
    const parts: RehearsalsParts = {
      bus,
      clock,
      store,
      runners: new Map([[live.id, live]]),
      absent: () => refused("engine/starting"),
      say: () => true,
      speech: undefined,
      lookUp: async () => null,
      watchers: () => 1,
      lend: (channel, to) => lent.push([channel, to === null ? null : "rehearsal"]),
      beat: () => undefined,
      frames: () => [],
      gone: () => undefined,
      tell: () => undefined,
      onError: () => undefined,
    };
    const all = new Rehearsals(parts);
    open.push(all, live);
    const begin = (part: Partial<Parameters<Rehearsals["begin"]>[1]> = {}) =>
      all.begin(live.id, { source: quiet, pace: 1, chat: false, overlays: false, by: "tom", ...part });
    return { all, live, store, begin, lent };
  }
  test("two people rehearse each for themselves; a fourth is refused, and pages are lent once", async () => {
    const { all, live, begin } = await house();
    const [a, b] = [await begin({ overlays: true }), await begin()];
    if (!a.ok || !b.ok) throw new Error("not begun");
    expect(await begin({ overlays: true, by: "mo" })).toMatchObject({ refusal: { code: "rehearsal/overlays-lent", facts: { by: "tom" } } });
    const hit = async (id: string) =>
      all.of(live.id, id)?.runner.requests.command("jug", "tom", `command-${id}`, { do: "switch", on: true });
    await hit(a.value.id);
    const on = (id: string) => all.of(live.id, id)?.runner.view.forOperators()[0]?.view["on"];
    expect([on(a.value.id), on(b.value.id), live.view.forOperators()[0]?.view["on"]]).toEqual([true, false, false]);
    expect(all.of(channelId("other"), a.value.id)).toBeNull();
    expect(all.of(live.id, "__proto__")).toBeNull();
    expect((await begin()).ok).toBe(true);
    expect(await begin()).toMatchObject({ refusal: { code: "rehearsal/too-many" } });
  });
  test("when the show begins each is over, says so, and gives back what it borrowed; while it runs none begins", async () => {
    const { all, live, begin, lent } = await house();
    const a = await begin({ overlays: true });
    if (!a.ok) throw new Error("not begun");
    await live.requests.command("show", "tom", "command-on-air", { do: "show", what: "on-air" });
    expect(all.of(live.id, a.value.id)?.standing()).toMatchObject({ state: "over", why: { code: "rehearsal/gave-way" } });
    expect(lent.at(-1)).toEqual([live.id, null]);
    expect(await begin()).toMatchObject({ refusal: { code: "rehearsal/show-runs" } });
  });
  test("what is published meanwhile is taken up, and how it stands stays", async () => {
    const { all, live, begin } = await house();
    const a = await begin();
    if (!a.ok) throw new Error("not begun");
    const copy = all.of(live.id, a.value.id)?.runner;
    await copy?.requests.command("jug", "tom", "command-on", { do: "switch", on: true });
    await copy?.requests.command("jug", "tom", "command-hit", { do: "damage", amount: 30 });
    const jugNow = () => copy?.view.forOperators().find((g) => g.id === "jug")?.view;
    expect(jugNow()).toMatchObject({ on: true, health: 170 });
    const row = live.row;
    const renamed = row.games.map((g) =>
      g.id === "jug"
        ? {
            ...g,
            version: 2,
            settings: { ...jug, hits: { ...jug.hits, follow: { ...jug.hits.follow, rate: { give: 50, per: 1 } } } },
            name: "Anew",
          }
        : g,
    );
    live.reload({ ...row, revision: row.revision + 1, games: renamed });
    expect(copy?.row.games.find((g) => g.id === "jug")).toMatchObject({ name: "Anew", version: 2 });
    expect(copy?.id).toBe(a.value.id);
    expect(copy?.row.chat).toBeNull();
    expect(jugNow()).toMatchObject({ on: true, health: 170 });
    expect(await all.one(live.id, a.value.id, { kind: "follow", as: "mo", amount: 1, text: "" })).toMatchObject({ ok: true });
    expect(jugNow()).toMatchObject({ health: 120 });
  });
  test("nothing of it is stored, and the channel stands as it did", async () => {
    const { all, live, store, begin } = await house();
    // What the channel itself has to do at its start is done by then.
    await pause(60);
    const before = JSON.stringify([await store.channel(live.id), store.log(live.id), live.view.forOperators()]);
    const a = await begin({ source: follows(60_000) });
    if (!a.ok) throw new Error("not begun");
    all.steer(live.id, a.value.id, { do: "jump", minutes: 5 });
    for (let i = 0; i < 100 && (all.standing(channelId(a.value.id))?.nowMs ?? 0) < fromMs + 300_000; i += 1) await pause(20);
    expect(all.of(live.id, a.value.id)?.observer.watch.signals.get("follow")).toBeGreaterThan(1_000);
    all.steer(live.id, a.value.id, { do: "end" });
    expect(JSON.stringify([await store.channel(live.id), store.log(live.id), live.view.forOperators()])).toBe(before);
  });
});
