import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../chat/emotes";
import { deepFreeze } from "../kernel/freeze";
import { bareContext } from "../module/module";
import type { Command, Signal } from "../signals/signal";
import type { Role } from "../signals/names";
import { newPlanItem, planSchema, type PlanItem } from "./plan";
import { showRules } from "./rules";
import {
  freshShow,
  type ModeratorWord,
  showDefaults,
  type ShowDurable,
  type ShowTransient,
  type ShowSettings,
  showSettingsSchema,
} from "./settings";
import { showNoteInWords } from "./notes";

const minute = 60_000;
const ctx = bareContext(emoteIndex([]));
const item = (id: string, atMin: number, part: Partial<PlanItem> = {}): PlanItem => ({ ...newPlanItem(id, id, atMin), ...part });
const command = (word: string, does: ModeratorWord["does"], part: Partial<ModeratorWord> = {}): ModeratorWord => ({
  id: word,
  word,
  does,
  game: "",
  act: "",
  roles: ["moderator", "streamer"],
  ...part,
});

/** A show as it goes: each call is one signal; what it came to is kept for the next. */
function evening(settings: Partial<ShowSettings> = {}, start: Partial<ShowDurable> = {}) {
  let durable: ShowDurable = { ...freshShow(), ...start };
  let transient: ShowTransient = showRules.freshDust();
  let seq = 0;
  const own = showSettingsSchema.parse({ ...showDefaults, ...settings });
  const give = (signal: Record<string, unknown>, atMs: number) => {
    seq += 1;
    const outcome = showRules.step(
      deepFreeze({ settings: own, durable, transient }),
      { seq, atMs, id: `s${seq}`, viewer: null, ...signal } as Signal,
      ctx,
    );
    // What is durable survives being written down.
    durable = showRules.durable.parse(JSON.parse(JSON.stringify(outcome.durable)));
    transient = outcome.transient;
    return outcome;
  };
  return {
    command: (command: Command, atMs = 0, by = "maria") => give({ kind: "command", gameId: "show", by, command }, atMs),
    platform: (kind: "live" | "ended", atMs = 0) => give({ kind }, atMs),
    says: (text: string, roles: Role[] = ["moderator"], atMs = 0) =>
      give({ kind: "message", text, marks: [], viewer: { id: "mo", name: "Mo", roles } }, atMs),
    tick: (atMs: number) => give({ kind: "timer", moduleId: "show" }, atMs),
    due: () => showRules.dueMs!(own, durable),
    restart: () => void (transient = showRules.freshDust()),
    get now() {
      return durable;
    },
  };
}
const codes = (o: { notes: readonly { refusal?: { code: string }; did?: string }[] }): string[] =>
  o.notes.map((n) => n.refusal?.code ?? n.did ?? "");

describe("going on air", () => {
  test("by hand: once, told to the other parts, and kept when it ends", () => {
    const show = evening();
    const on = show.command({ do: "show", what: "on-air" }, 1_000);
    expect(show.now).toMatchObject({ state: "on", show: { sinceMs: 1_000, by: "maria", how: "hand" } });
    expect(on.orders).toEqual([{ do: "announce", what: "live" }]);
    expect(codes(show.command({ do: "show", what: "on-air" }, 2_000))).toEqual(["show/on-already"]);
    expect(codes(show.command({ do: "show", what: "rehearse" }, 2_000))).toEqual(["show/on-air"]);
    const off = show.command({ do: "show", what: "end" }, 61_000, "tom");
    expect(off.kept).toMatchObject([
      { kind: "show", fromMs: 1_000, toMs: 61_000, body: { rehearsal: false, endedBy: "tom", ended: "hand" } },
    ]);
    expect(off.orders).toEqual([{ do: "announce", what: "ended" }]);
    expect(codes(show.command({ do: "show", what: "end" }))).toEqual(["show/off"]);
  });
  test("by the platform's word, where that is set; a second word changes nothing", () => {
    const show = evening();
    show.platform("live", 5_000);
    expect(show.now).toMatchObject({ state: "on", show: { sinceMs: 5_000, how: "platform" } });
    expect(show.platform("live", 9_000).orders).toBeUndefined();
    expect(show.now.show?.sinceMs).toBe(5_000);
    expect(show.platform("ended", 10_000).kept).toHaveLength(1);
    expect(show.now.state).toBe("off");
  });
  test("where only hands begin and end a show, the platform's word is a question", () => {
    const show = evening({ begins: "hand" });
    show.platform("live", 5_000);
    show.platform("live", 6_000);
    expect(show.now).toMatchObject({ state: "off", asks: [{ kind: "live", sinceMs: 5_000 }] });
    show.command({ do: "decide", ask: "live", yes: true }, 7_000);
    expect(show.now).toMatchObject({ state: "on", asks: [] });
    show.platform("ended", 8_000);
    expect(codes(show.command({ do: "decide", ask: "ended", yes: false }, 9_000))).toEqual([]);
    expect(show.now).toMatchObject({ state: "on", asks: [] });
    expect(codes(show.command({ do: "decide", ask: "ended", yes: true }, 9_500))).toEqual(["show/decided-already"]);
  });
  test("a rehearsal lays everything aside and puts it back; going on air ends it first", () => {
    const show = evening();
    expect(show.command({ do: "show", what: "rehearse" }, 1_000).orders).toEqual([
      { do: "snapshot", what: "keep" },
      { do: "announce", what: "live" },
    ]);
    const on = show.command({ do: "show", what: "on-air" }, 5_000);
    expect(on.orders).toEqual([
      { do: "announce", what: "ended" },
      { do: "snapshot", what: "bring-back" },
      { do: "announce", what: "live" },
    ]);
    expect(on.kept).toMatchObject([{ kind: "show", body: { rehearsal: true } }]);
    expect(show.now).toMatchObject({ state: "on", show: { sinceMs: 5_000 } });
  });
});

describe("a show that nobody ends", () => {
  test("ends after the silence that was set, counted from the last word", () => {
    const show = evening({ silenceMin: 30 });
    show.command({ do: "show", what: "on-air" }, 0);
    expect(show.due()).toBe(30 * minute);
    show.says("hello", [], 20 * minute);
    show.tick(30 * minute);
    expect(show.now.state).toBe("on");
    expect(show.due()).toBe(50 * minute);
    const over = show.tick(50 * minute);
    expect(show.now.state).toBe("off");
    expect(over.kept).toMatchObject([{ body: { ended: "silence" } }]);
  });
  test("after a restart it is given its time again; one that slept through it ended when it was last looked for", () => {
    const show = evening({ silenceMin: 30 });
    show.command({ do: "show", what: "on-air" }, 0);
    show.restart();
    show.tick(40 * minute);
    expect(show.now.state).toBe("on");
    expect(show.due()).toBe(70 * minute);
    show.restart();
    const over = show.tick(600 * minute);
    expect(show.now.state).toBe("off");
    expect(over.kept?.[0]?.toMs).toBe(70 * minute);
  });
  test("never, when silence ends nothing", () => {
    const show = evening({ silenceMin: 0 });
    show.command({ do: "show", what: "on-air" }, 0);
    expect(show.due()).toBeNull();
  });
});

describe("the rundown", () => {
  const plan = [
    item("raffle", 10, { does: { do: "cue", cue: "door" } }),
    item("boss", 20, { does: { do: "start", game: "spall" }, starts: { how: "time" } }),
    item("rest", 0, { does: { do: "stop", game: "spall" }, starts: { how: "after", item: "boss", delayMin: 5 } }),
  ];
  const planned = () => {
    const show = evening({ silenceMin: 0 });
    show.command({ do: "plan", revision: 1, items: plan });
    show.command({ do: "show", what: "on-air" }, 0);
    return show;
  };
  test("what starts by hand is asked for when it is due; what starts by itself does; what follows it, after its delay", () => {
    const show = planned();
    expect(show.due()).toBe(10 * minute);
    show.tick(10 * minute);
    expect(show.now.asks).toMatchObject([{ id: "due.raffle", kind: "due" }]);
    expect(show.due()).toBe(20 * minute);
    expect(show.tick(20 * minute).orders).toMatchObject([{ do: "command", gameId: "spall", command: { do: "switch", on: true } }]);
    expect(show.due()).toBe(25 * minute);
    expect(show.tick(25 * minute).orders).toMatchObject([{ do: "command", command: { do: "switch", on: false } }]);
    const decided = show.command({ do: "decide", ask: "due.raffle", yes: true }, 26 * minute);
    expect(decided.orders).toEqual([{ do: "cue", cueId: "door", by: "maria" }]);
    expect(show.now).toMatchObject({ asks: [], done: [{ item: "boss" }, { item: "rest" }, { item: "raffle", times: 1 }] });
  });
  test("two hands at once start it once; once more is a request of its own", () => {
    const show = planned();
    expect(show.command({ do: "plan-fire", item: "raffle", times: 0 }, 1_000).orders).toHaveLength(1);
    const second = show.command({ do: "plan-fire", item: "raffle", times: 0 }, 1_001, "tom");
    expect(codes(second)).toEqual(["show/started-already"]);
    expect(second.orders).toBeUndefined();
    expect(show.command({ do: "plan-fire", item: "raffle", times: 1 }, 9_000).orders).toHaveLength(1);
    expect(show.now.done).toMatchObject([{ item: "raffle", times: 2, atMs: 9_000 }]);
  });
  test("skipped, it does not start; taken back, it may", () => {
    const show = planned();
    show.command({ do: "plan-skip", item: "boss" });
    show.tick(30 * minute);
    expect(show.now.done).toEqual([]);
    show.command({ do: "plan-back", item: "boss" }, 30 * minute);
    show.tick(30 * minute + 1);
    // Ten minutes late: it does not start behind anyone's back any more.
    expect(show.now.asks.map((a) => [a.item, a.kind])).toEqual([
      ["raffle", "due"],
      ["boss", "missed"],
    ]);
  });
  test("after a laptop slept, what was missed is asked for and not started", () => {
    const show = planned();
    show.tick(90 * minute);
    expect(show.now.done).toEqual([]);
    expect(show.now.asks.map((a) => a.kind)).toEqual(["due", "missed"]);
  });
  test("nothing starts while no show runs", () => {
    const show = evening();
    show.command({ do: "plan", revision: 1, items: plan });
    expect(show.due()).toBeNull();
    expect(codes(show.command({ do: "plan-fire", item: "raffle", times: 0 }))).toEqual(["show/off"]);
  });
  test("who changes what somebody else changed meanwhile is told, and changes nothing", () => {
    const show = planned();
    expect(codes(show.command({ do: "plan", revision: 1, items: [] }, 0, "tom"))).toEqual(["show/plan-changed"]);
    expect(show.now.plan).toMatchObject({ revision: 2, by: "maria" });
    expect(show.now.plan.items).toHaveLength(3);
  });
  test("moved to another minute, the rest stays as somebody else left it, and it is asked for anew", () => {
    const show = planned();
    show.tick(10 * minute);
    expect(show.now.asks).toHaveLength(1);
    show.command({ do: "plan-move", item: "raffle", atMin: 15 }, 11 * minute, "tom");
    expect(show.now.plan).toMatchObject({ revision: 3, by: "tom" });
    expect(show.now.plan.items.map((i) => i.atMin)).toEqual([15, 20, 0]);
    expect(show.now.asks).toEqual([]);
    expect(show.due()).toBe(15 * minute);
    expect(codes(show.command({ do: "plan-move", item: "gone", atMin: 15 }))).toEqual(["show/no-item"]);
  });
  test("a new show begins with everything open again", () => {
    const show = planned();
    show.command({ do: "plan-fire", item: "raffle", times: 0 }, 1_000);
    show.command({ do: "plan-skip", item: "boss" }, 1_000);
    show.command({ do: "show", what: "end" }, 2_000);
    show.command({ do: "show", what: "on-air" }, 3_000);
    expect(show.now).toMatchObject({ done: [], skipped: [] });
  });
  test("templates are kept by name, used, and removed", () => {
    const show = planned();
    show.command({ do: "template", what: "save", id: "", name: "Friday" });
    show.command({ do: "plan", revision: 2, items: [] });
    show.command({ do: "template", what: "save", id: "", name: "fríday" });
    expect(show.now.templates).toHaveLength(1);
    const { id } = show.now.templates[0]!;
    show.command({ do: "plan", revision: 3, items: plan });
    show.command({ do: "template", what: "use", id, name: "" });
    expect(show.now.plan).toMatchObject({ revision: 5, items: [] });
    show.command({ do: "template", what: "remove", id, name: "" });
    expect(codes(show.command({ do: "template", what: "use", id, name: "" }))).toEqual(["show/no-template"]);
  });
  test("what waits for itself, or for nothing, is refused in words", () => {
    const after = (id: string, on: string): PlanItem => item(id, 0, { starts: { how: "after", item: on, delayMin: 0 } });
    const problem = (items: PlanItem[]): string => planSchema.safeParse(items).error?.issues[0]?.message ?? "";
    expect(problem([after("a", "b"), after("b", "a")])).toMatch(/waits for itself/);
    expect(problem([after("a", "x")])).toMatch(/not in the rundown/);
    expect(problem([item("a", 0), item("a", 1)])).toMatch(/same mark/);
    expect(problem(plan)).toBe("");
  });
});

describe("commands of moderators in chat", () => {
  const commands = [
    command("!hit", "act", { game: "spall", act: "damage" }),
    command("!quiet", "hush"),
    command("!next", "next"),
    command("!rules", "act", { game: "spall", act: "tell-rules", roles: ["viewer"] }),
    command("!lost", "start"),
  ];
  test("command the game, in the moderator's name, and answer with what came of it", () => {
    const show = evening({ commands });
    expect(show.says("!HIT 50 please").orders).toEqual([
      { do: "command", gameId: "spall", viewer: null, by: "Mo", answer: true, command: { do: "damage", amount: 50 } },
    ]);
    expect(show.says("!quiet").orders).toEqual([{ do: "hush", on: true }]);
    expect(show.says("!rules", ["viewer"]).orders).toHaveLength(1);
    expect(show.says("what does !hit do").orders).toBeUndefined();
  });
  test.each([
    ["!hit", "command/amount"],
    ["!hit -5", "command/amount"],
    ["!hit 0", "command/amount"],
    ["!hit 99999999999999999999", "command/amount"],
    ["!next", "show/nothing-next"],
    ["!lost", "command/no-game"],
  ])("“%s” is answered in words: %s", (text, code) => {
    const said = evening({ commands }).says(text);
    expect(codes(said)).toEqual([code]);
    expect(said.orders).toMatchObject([{ do: "answer", to: "Mo" }]);
    expect(showNoteInWords(said.notes[0]!)).not.toBe(code);
  });
  test("who may not is told beside the message, and chat hears nothing", () => {
    const said = evening({ commands }).says("!hit 50", ["member"]);
    expect(codes(said)).toEqual(["command/role"]);
    expect(said.orders).toBeUndefined();
  });
  test("the next of the rundown starts by its minute, whatever its place in the list", () => {
    const show = evening({ commands, silenceMin: 0 });
    show.command({ do: "plan", revision: 1, items: [item("late", 30), item("soon", 5)] });
    show.command({ do: "show", what: "on-air" });
    expect(show.says("!next").orders?.slice(0, 1)).toMatchObject([{ command: { do: "plan-fire", item: "soon" } }]);
  });
  test("two commands of one word are refused at save", () => {
    expect(showSettingsSchema.safeParse({ ...showDefaults, commands: [command("!a", "hush"), command("!Á", "release")] }).success).toBe(
      false,
    );
  });
});

describe("who is muted", () => {
  test("is muted once, whatever is pressed, and speaks again", () => {
    const show = evening();
    show.command({ do: "mute", id: "rude", name: "Rude", on: true }, 5);
    show.command({ do: "mute", id: "rude", name: "Rude", on: true }, 6);
    expect(show.now.muted).toEqual([{ id: "rude", name: "Rude", by: "maria", atMs: 6 }]);
    show.command({ do: "mute", id: "rude", name: "Rude", on: false }, 7);
    expect(show.now.muted).toEqual([]);
  });
  test("is in no view but the operator's", () => {
    const durable = { ...freshShow(), muted: [{ id: "rude", name: "Rude", by: "maria", atMs: 1 }] };
    for (const audience of ["overlay", "viewer"] as const)
      expect(JSON.stringify(showRules.view(showDefaults, durable, audience))).not.toMatch(/rude/i);
  });
});
