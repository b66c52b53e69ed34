import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../../chat/emotes";
import { deepFreeze } from "../../kernel/freeze";
import { readCommand } from "../../module/command";
import { bareContext } from "../../module/module";
import { type Attendance, emptyLedgerView } from "../../rewards/ledger-view";
import type { Command, Signal } from "../../signals/signal";
import type { Role } from "../../signals/names";
import { greeting } from "./definition";
import { greetingRows } from "./rules";
import { greetingSamples } from "./samples";
import { freshGreeting, greetingDefaults, type GreetingDurable, type GreetingSettings, greetingSettingsSchema } from "./settings";

const dayMs = 86_400_000;
const settings = (part: Partial<GreetingSettings>): GreetingSettings => greetingSettingsSchema.parse({ ...greetingDefaults, ...part });
const plain = settings({
  lines: { ...greetingDefaults.lines, everybody: ["comes in"], fresh: ["is new"], away: ["was away {days} days"] },
});
const viewer = (id: string, roles: readonly Role[] = []) => ({ id, name: id, roles });

/** An evening of greetings; each call is one signal. */
function evening(own: GreetingSettings = plain, known: Record<string, Attendance> = {}, gone: readonly string[] = []) {
  let durable: GreetingDurable = freshGreeting();
  let seq = 0;
  const rows: { viewer: { id: string }; seq: number }[] = [];
  const ctx = bareContext(emoteIndex([]), {
    has: (_, id) => !gone.includes(id),
    hiddenWords: ["crackpot"],
    ledgerView: {
      ...emptyLedgerView,
      attendance: (id) => (Object.hasOwn(known, id) ? known[id]! : null),
      named: (name) => (name === "nobody" ? null : { id: name, name }),
    },
  });
  const give = (signal: object, atMs: number) => {
    seq += 1;
    const outcome = greeting.step(
      deepFreeze({ settings: own, durable, transient: null }),
      { seq, atMs, id: `s${seq}`, ...signal } as Signal,
      ctx,
    );
    durable = outcome.durable;
    for (const k of outcome.kept ?? []) if (k.viewer !== null) rows.push({ viewer: k.viewer, seq });
    return outcome;
  };
  const play = {
    give,
    live: (atMs = 0) => give({ kind: "live", viewer: null }, atMs),
    comes: (id: string, atMs: number, part: { shows?: number; beforeMs?: number | null; roles?: Role[] } = {}) =>
      give(
        {
          kind: "arrival",
          viewer: viewer(id, part.roles),
          shows: part.shows ?? 7,
          beforeMs: part.beforeMs === undefined ? atMs - dayMs : part.beforeMs,
        },
        atMs,
      ),
    writes: (id: string, atMs: number) => give({ kind: "message", viewer: viewer(id), text: "hello", marks: [] }, atMs),
    raid: (name: string, atMs: number) => give({ kind: "raid", viewer: viewer(name), viewers: 40 }, atMs),
    command: (command: Command, atMs: number, by: string | null = null) => {
      const read = readCommand(greeting, command);
      if (!read.ok) throw new Error(JSON.stringify(read.refusal));
      return give({ kind: "command", gameId: "g", by: "maria", viewer: by === null ? null : viewer(by), command: read.value }, atMs);
    },
    /** Lets time pass as the engine does: a timer whenever one is due. */
    until: (atMs: number): void => {
      for (let due = greeting.dueMs!(own, durable); due !== null && due <= atMs; due = greeting.dueMs!(own, durable))
        give({ kind: "timer", moduleId: "g" }, due);
    },
    restart: (): void => {
      const stored = greeting.durable.parse(JSON.parse(JSON.stringify(greetingRows.stored(durable))));
      const since = greetingRows.since(stored);
      durable = greetingRows.recall(
        stored,
        rows.filter((r) => since !== null && r.seq >= since.seq),
      );
    },
    get now() {
      return durable;
    },
    get card() {
      return durable.now?.card ?? null;
    },
  };
  play.live();
  return play;
}
const codes = (o: { notes: readonly { refusal?: { code: string }; did?: string }[] }): string[] =>
  o.notes.map((n) => n.refusal?.code ?? n.did ?? "");

describe("which line", () => {
  test("the most special list that applies answers: new, then away, then the role, then everybody's", () => {
    const lines = { fresh: ["new"], away: ["away"], moderator: ["mod"], guest: [], member: ["member"], everybody: ["all"] };
    const own = settings({ lines, gapMs: 0, mostWaiting: 50 });
    const show = evening(own);
    const now = 400 * dayMs;
    show.comes("a", now, { shows: 1, beforeMs: null, roles: ["moderator"] });
    show.comes("b", now, { beforeMs: now - 30 * dayMs, roles: ["member"] });
    show.comes("c", now, { beforeMs: now - 29 * dayMs, roles: ["member", "moderator"] });
    show.comes("d", now, { roles: ["member"] });
    show.comes("e", now, { roles: ["guest"] });
    expect([show.card, ...show.now.waiting].map((c) => c?.line)).toEqual(["new", "away", "mod", "member", "all"]);
  });
  test("no line comes again until its list is through, and the last is not the next first", () => {
    const everybody = ["a", "b", "c", "d", "e"];
    const own = settings({ lines: { fresh: [], away: [], moderator: [], guest: [], member: [], everybody }, mostWaiting: 0, gapMs: 0 });
    const show = evening(own);
    const said: string[] = [];
    for (let i = 0; i < 50; i += 1) {
      show.until(i * 10_000);
      show.comes(`v${i}`, i * 10_000);
      said.push(show.card!.line);
    }
    for (let i = 0; i < 50; i += 5) expect([...said.slice(i, i + 5)].sort()).toEqual(everybody);
    for (let i = 1; i < 50; i += 1) expect(said[i]).not.toBe(said[i - 1]);
  });
  test("variables are filled in; what nobody wrote a line for is said, not shown", () => {
    const show = evening();
    show.comes("ada", 100 * dayMs, { beforeMs: 20 * dayMs });
    expect(show.card?.line).toBe("was away 80 days");
    const none = evening(settings({ lines: { ...greetingDefaults.lines, everybody: [] } }));
    expect(codes(none.comes("bo", 5))).toEqual(["greeting/no-line"]);
    expect(none.card).toBeNull();
  });
  test("what is tried tells of the days that are meant, whenever it is tried", () => {
    const nowMs = 20_000 * dayMs;
    const away = greetingSamples.find((s) => s.id === "away")!;
    const at = { settings: null, durable: null, sprites: [], amount: 1, times: 3, nowMs, chance: () => 0 };
    const { signal } = away.make(at).signals[0]!;
    expect(signal).toMatchObject({ kind: "arrival", beforeMs: nowMs - 90 * dayMs });
  });
  test("a line with an unknown variable, or a brace too many, is refused at save", () => {
    for (const line of ["hello {name}", "hello {viewer", ""])
      expect(
        greetingSettingsSchema.safeParse({ ...greetingDefaults, lines: { ...greetingDefaults.lines, everybody: [line] } }).success,
      ).toBe(false);
  });
});

describe("who is greeted", () => {
  test("each once in a show, again in the next; after a restart nobody twice", () => {
    const show = evening();
    for (const id of ["ada", "__proto__", "constructor"]) expect(codes(show.comes(id, 0))).toEqual(["greeting/greeted"]);
    show.restart();
    for (const id of ["ada", "__proto__", "constructor"]) expect(codes(show.comes(id, 1))).toEqual([]);
    show.live(100_000);
    expect(codes(show.comes("ada", 100_001))).toEqual(["greeting/greeted"]);
  });
  test("not those on the list, in whatever case; not the streamer; nobody while it is off", () => {
    const show = evening(settings({ ignored: ["KilnBot"] }));
    expect(codes(show.comes("kilnbot", 0))).toEqual(["greeting/ignored"]);
    expect(codes(show.comes("maria", 0, { roles: ["streamer"] }))).toEqual(["greeting/streamer"]);
    show.command({ do: "switch", on: false }, 0);
    expect(codes(show.comes("ada", 0))).toEqual(["greeting/off"]);
    expect(codes(show.command({ do: "switch", on: false }, 0))).toEqual(["greeting/already-off"]);
  });
  test("one who was forgotten is greeted with their next word; all are when all were, after a restart too", () => {
    const show = evening();
    show.comes("ada", 0);
    show.comes("bo", 0);
    expect(codes(show.command({ do: "forget", name: "nobody" }, 1))).toEqual(["greeting/not-greeted"]);
    show.command({ do: "forget", name: "ada" }, 1);
    show.restart();
    expect(codes(show.writes("bo", 2))).toEqual([]);
    expect(codes(show.writes("ada", 2))).toEqual(["greeting/greeted"]);
    expect(codes(show.writes("ada", 3))).toEqual([]);
    show.command({ do: "forget", name: "" }, 4);
    show.restart();
    expect(codes(show.writes("bo", 5))).toEqual(["greeting/greeted"]);
    show.restart();
    expect(codes(show.writes("bo", 6))).toEqual([]);
  });
  test("names fit for the picture: hidden words covered, nothing unseen", () => {
    const show = evening();
    show.comes("the crackpot\u202e", 0);
    expect(show.card?.name).toBe("the ••••••••");
  });
});

describe("the lane", () => {
  test("one after another with the pause between; what is too much shares one card", () => {
    const show = evening(settings({ ...plain, showMs: 2_000, gapMs: 500, mostWaiting: 2 }));
    for (let i = 0; i < 200; i += 1) show.comes(`v${i}`, 10);
    expect(show.card?.name).toBe("v0");
    expect(show.now.waiting.map((c) => c.name)).toEqual(["v1", "v2"]);
    expect(show.now.more?.count).toBe(197);
    show.until(2_009);
    expect(show.card?.name).toBe("v0");
    show.until(2_010);
    expect(show.card).toBeNull();
    show.until(2_510);
    expect(show.card?.name).toBe("v1");
    show.until(7_510);
    expect(show.card).toMatchObject({ kind: "more", count: 197, names: ["v3", "v4", "v5", "v6"] });
    show.until(60_000);
    expect([show.card, greeting.dueMs!(plain, show.now)]).toEqual([null, null]);
  });
  test("skipped, the next comes at once; dropped, nobody waits any more", () => {
    const show = evening();
    expect(codes(show.command({ do: "skip" }, 0))).toEqual(["greeting/nothing-shown"]);
    for (const id of ["a", "b", "c"]) show.comes(id, 0);
    show.command({ do: "skip" }, 10);
    expect(show.card?.name).toBe("b");
    show.command({ do: "clear" }, 10);
    expect(show.now.waiting).toEqual([]);
    expect(codes(show.command({ do: "clear" }, 11))).toEqual(["greeting/nobody-waits"]);
  });
  test("who comes with a raid is greeted together when its time is over; another raid begins its own", () => {
    const show = evening();
    show.raid("tin_lantern", 0);
    for (let i = 0; i < 7; i += 1) expect(codes(show.comes(`v${i}`, 100 + i))).toEqual(["greeting/with-raid"]);
    expect(show.card).toBeNull();
    show.until(60_000);
    expect(show.card).toMatchObject({ kind: "together", name: "tin_lantern", count: 7, names: ["v0", "v1", "v2", "v3"] });
    show.raid("loamy", 70_000);
    show.comes("w", 70_001);
    show.raid("eelgrass", 70_002);
    expect(show.card).toMatchObject({ kind: "together", name: "loamy", count: 1 });
    show.until(200_000);
    expect(show.now.raid).toBeNull();
  });
  test("after a restart what was shown is over in its time, never shown late", () => {
    const show = evening();
    show.comes("a", 0);
    show.comes("b", 0);
    show.restart();
    show.until(6_000);
    expect(show.card).toBeNull();
    show.until(6_800);
    expect(show.card?.name).toBe("b");
  });
});

describe("an entrance of one's own", () => {
  const given = (part: object) => ({ do: "entrance", name: "ada", line: "rolls in", picture: "p1", sound: "s1", role: "always", ...part });
  test("is given by name or to who bought it; its words are words, whatever they look like", () => {
    const show = evening();
    expect(codes(show.command(given({ line: "{shows, plural" }), 0))).toEqual(["greeting/entrance-given"]);
    const met = show.comes("ada", 1);
    expect(show.card).toMatchObject({ line: "{shows, plural", picture: "p1", sound: "s1" });
    expect(met.orders).toContainEqual(expect.objectContaining({ do: "show", alert: expect.objectContaining({ sound: "s1" }) as unknown }));
    expect(codes(show.command(given({ name: "" }), 2, "bo"))).toEqual(["greeting/entrance-given"]);
    expect(codes(show.command(given({ name: "" }), 2))).toEqual(["greeting/unknown"]);
    expect(codes(show.command(given({ name: "nobody" }), 2))).toEqual(["greeting/unknown"]);
    expect(codes(show.command(given({ line: "", picture: "", sound: "" }), 2))).toEqual(["greeting/empty-entrance"]);
  });
  test("is kept while a role lasts, if so set", () => {
    const show = evening();
    show.command(given({ role: "member" }), 0);
    show.comes("ada", 1);
    expect(show.card?.line).toBe("comes in");
    show.live(10);
    show.comes("ada", 11, { roles: ["member"] });
    expect(show.card?.line).toBe("rolls in");
  });
  test("what it names and is gone is left out, and can't be given", () => {
    const show = evening(plain, {}, ["p1"]);
    expect(codes(show.command(given({}), 0))).toEqual(["greeting/no-picture"]);
    show.command(given({ picture: "" }), 0);
    show.comes("ada", 1);
    expect(show.card).toMatchObject({ picture: "", sound: "s1" });
  });
  test("is taken away by an operator, and by whose it is", () => {
    const show = evening();
    show.command(given({}), 0);
    expect(greeting.mine!(plain, show.now, "ada")).toEqual({ line: "rolls in", picture: true, sound: true });
    show.command({ do: "drop-mine" }, 1, "ada");
    expect(greeting.mine!(plain, show.now, "ada")).toBeNull();
    expect(codes(show.command({ do: "take-entrance", name: "ada" }, 2))).toEqual(["greeting/no-entrance"]);
  });
});
