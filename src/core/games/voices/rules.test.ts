import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../../chat/emotes";
import { readCommand } from "../../module/command";
import { bareContext } from "../../module/module";
import { emptyLedgerView } from "../../rewards/ledger-view";
import type { Command, Signal } from "../../signals/signal";
import type { Role } from "../../signals/names";
import { voices } from "./definition";
import { freshDust } from "./rules";
import { freshVoices, voicesDefaults, type VoicesDurable, type VoicesSettings, voicesSettingsSchema } from "./settings";

const viewer = (id: string, roles: readonly Role[] = []) => ({ id, name: id, roles });
/** An evening of voices, with an engine that takes `speechMs`; each call is one signal. */
function evening(part: Partial<VoicesSettings> = {}, engine: { speechMs: number | null } = { speechMs: 2_000 }) {
  const settings = voicesSettingsSchema.parse({ ...voicesDefaults, ownRestMs: 0, gapMs: 500, ...part });
  let durable: VoicesDurable = freshVoices();
  let transient = freshDust();
  let hushed = false;
  let seq = 0;
  const answers: string[] = [];
  const heard: string[] = [];
  const ended: string[] = [];
  const ctx = () =>
    bareContext(emoteIndex([{ id: "w", word: "wobblePot" }]), {
      hiddenWords: ["crackpot"],
      hushed,
      isWord: (w) => w === "roar",
      ledgerView: { ...emptyLedgerView, named: (name) => (name === "nobody" ? null : { id: name, name }) },
    });
  type Outcome = ReturnType<typeof voices.step>;
  const give = (signal: object, atMs: number): Outcome => {
    seq += 1;
    const outcome = voices.step({ settings, durable, transient }, { seq, atMs, id: `s${seq}`, ...signal } as Signal, ctx());
    durable = voices.durable.parse(JSON.parse(JSON.stringify(outcome.durable)));
    transient = outcome.transient;
    for (const order of outcome.orders ?? []) {
      if (order.do === "answer") answers.push(order.note.refusal?.code ?? "");
      if (order.do === "show" && order.alert.speech !== undefined) heard.push(order.alert.speech.text);
      if (order.do === "end-alert") ended.push(order.id);
      // As the engine does it: in a turn of its own, and when the sound is made.
      if (order.do === "apart" && order.command !== null) play.command(order.command, atMs, order.viewer);
      if (order.do === "speak" && !order.ahead && engine.speechMs !== null)
        play.command({ do: "made", n: order.n, url: `/speech/${"a".repeat(64)}`, ms: engine.speechMs }, atMs);
    }
    return outcome;
  };
  const play = {
    says: (id: string, text: string, atMs = 0, roles: readonly Role[] = []) =>
      give({ kind: "message", viewer: viewer(id, roles), text, marks: [] }, atMs),
    tip: (id: string, text: string, homeMinor: number, atMs = 0) =>
      give({ kind: "tip", viewer: viewer(id), amountMinor: homeMinor, currency: "EUR", homeMinor, text }, atMs),
    command: (command: Command, atMs = 0, by: ReturnType<typeof viewer> | null = null): Outcome => {
      const read = readCommand(voices, command);
      if (!read.ok) throw new Error(JSON.stringify(read.refusal));
      return give({ kind: "command", gameId: "v", by: by?.name ?? "maria", viewer: by, command: read.value }, atMs);
    },
    until: (atMs: number): void => {
      for (
        let due = voices.dueMs!(settings, durable), n = 0;
        due !== null && due <= atMs && n < 500;
        due = voices.dueMs!(settings, durable), n += 1
      )
        give({ kind: "timer", moduleId: "v" }, due);
    },
    hush: (on: boolean) => void (hushed = on),
    answers,
    heard,
    ended,
    get now() {
      return durable;
    },
  };
  return play;
}
const codes = (o: { notes: readonly { refusal?: { code: string }; did?: string }[] }): string[] =>
  o.notes.map((n) => n.refusal?.code ?? n.did ?? "");

describe("what is spoken", () => {
  test("what begins with the word, without it, by name; other messages are not", () => {
    const v = evening();
    v.says("mossy_teapot", "!SAY the rim is fine");
    expect(v.heard).toEqual(["the rim is fine"]);
    expect(v.now.now?.text.spoken).toBe("mossy, teapot says: the rim is fine");
    v.says("ada", "just talking");
    expect(v.now.waiting).toEqual([]);
  });
  test("every message, but those that are words of something else", () => {
    const v = evening({ every: true, words: [] });
    for (const text of ["hello", "!roar", "roar"]) v.says("ada", text);
    expect([v.now.now?.text.shown, v.now.waiting.length]).toEqual(["hello", 0]);
  });
  test("a tip of enough; what a rule or a cue orders", () => {
    const v = evening({ tipLeast: 500, words: [] });
    v.tip("ada", "too little", 499);
    v.tip("ada", "", 900);
    expect(v.now.now).toBeNull();
    v.tip("ada", "for the kiln", 500);
    v.command({ do: "say", text: "last round", how: "spoken", voice: "Bright" });
    expect([v.now.now?.text.shown, v.now.waiting[0]]).toMatchObject(["for the kiln", { spoken: "last round", shown: "", voice: "bright" }]);
  });
  test("an address in a tip is never spoken, whatever becomes of it elsewhere", () => {
    const v = evening({ tipLeast: 500, words: [{ word: "!say", voice: "" }], links: "word", ownRestMs: 0 });
    v.tip("ada", "look at https://clips.invalid/a#t=7 my pot", 500);
    v.says("bo", "!say look at https://clips.invalid/a my pot");
    expect([v.now.now?.text.spoken, v.now.waiting[0]?.spoken]).toEqual(["ada says: look at my pot", "bo says: look at a link my pot"]);
    const only = evening({ tipLeast: 500, how: "spoken" });
    only.tip("ada", "https://clips.invalid/a", 500);
    expect(only.now.now).toBeNull();
  });
  test("the checks in their order; only who used a word hears why not", () => {
    const v = evening({ roles: ["member"], mostLetters: 10, tooLong: "refused", ownRestMs: 30_000, sharedRestMs: 10_000, mostWaiting: 0 });
    v.says("ada", "!say hello");
    v.says("ada", "!say crackpot", 0, ["member"]);
    v.says("ada", "!say !!!", 0, ["member"]);
    v.says("ada", "!say hi", 0, ["member"]);
    v.says("ada", "!say hi", 5_000, ["member"]);
    v.says("bo", "!say hi", 5_000, ["member"]);
    v.says("bo", "!say far too long a text", 40_000, ["member"]);
    expect(v.answers).toEqual(["voices/role", "voices/hidden", "voices/empty", "voices/own-rest", "voices/shared-rest", "voices/too-long"]);
    const silent = evening({ every: true, words: [], roles: ["member"] });
    expect([codes(silent.says("ada", "hello")), silent.answers]).toEqual([[], []]);
  });
  test("names from outside are names, whatever they are called", () => {
    const v = evening({ ownRestMs: 30_000 });
    for (const id of ["__proto__", "constructor", "toString"]) v.says(id, "!say hi");
    expect(v.now.made).toBe(3);
    v.says("__proto__", "!say hi", 5);
    expect(v.answers).toEqual(["voices/own-rest"]);
  });
});

describe("the lane", () => {
  test("one after another, with the pause between; so many may wait, the next is refused", () => {
    const v = evening({ mostWaiting: 2 });
    for (const id of ["a", "b", "c", "d"]) v.says(id, `!say ${id}`);
    expect(v.answers).toEqual(["voices/full"]);
    expect(v.heard).toEqual(["a"]);
    v.until(2_249);
    expect(v.heard).toEqual(["a"]);
    v.until(2_750);
    expect(v.heard).toEqual(["a", "b"]);
    v.until(60_000);
    expect([v.heard, v.now.now]).toEqual([["a", "b", "c"], null]);
  });
  test("each waits its time first, and somebody's yes where that is set", () => {
    const v = evening({ delayMs: 3_000, approve: true });
    v.says("ada", "!say hello");
    v.until(10_000);
    expect(v.heard).toEqual([]);
    const asks = voices.asks!(voices.view(voicesDefaults, v.now, "operator"));
    expect(asks[0]).toMatchObject({ about: "ada", main: { command: { do: "approve", n: 1 } } });
    v.command(asks[0]!.main.command, 10_000);
    expect(v.heard).toEqual(["hello"]);
    expect(codes(v.command({ do: "approve", n: 1 }, 10_001))).toEqual(["voices/decided-already"]);
  });
  test("one that still waits for a yes lets those behind it go by", () => {
    const v = evening({ approve: true });
    v.says("a", "!say one");
    v.says("b", "!say two");
    v.command({ do: "approve", n: 2 }, 10);
    expect(v.heard).toEqual(["two"]);
    v.until(60_000);
    v.command({ do: "approve", n: 1 }, 60_000);
    expect(v.heard).toEqual(["two", "one"]);
  });
  test("skipped it stops on every page and the next begins; dropped, held and let go on", () => {
    const v = evening();
    for (const id of ["a", "b", "c"]) v.says(id, `!say ${id}`);
    v.command({ do: "skip" }, 100);
    expect(v.ended).toEqual(["voice.1.0"]);
    v.command({ do: "hold" }, 200);
    v.until(30_000);
    expect(v.heard).toEqual(["a"]);
    v.command({ do: "drop", n: 2 }, 30_000);
    v.command({ do: "go-on" }, 30_000);
    expect(v.heard).toEqual(["a", "c"]);
    expect(codes(v.command({ do: "clear" }, 30_001))).toEqual(["voices/nothing-waits"]);
  });
  test("an engine that never answers is given up: the text is skipped, said, and the next begins", () => {
    const engine: { speechMs: number | null } = { speechMs: null };
    const v = evening({ how: "spoken" }, engine);
    v.says("a", "!say one");
    v.says("b", "!say two");
    v.until(7_999);
    expect(v.now.now?.phase).toBe("making");
    engine.speechMs = 1_000;
    v.until(9_000);
    expect(v.heard).toEqual(["b says: two"]);
    expect(codes(v.command({ do: "made", n: 1, url: `/speech/${"b".repeat(64)}`, ms: 900 }, 9_001))).toEqual([]);
  });
  test("one that can't speak: what is shown too can still be read", () => {
    const v = evening({ how: "both" }, { speechMs: null });
    v.says("a", "!say one");
    expect(codes(v.command({ do: "not-made", n: 1 }, 50))).toEqual(["voices/engine"]);
    expect(voices.view(voicesDefaults, v.now, "overlay")["now"]).toMatchObject({ text: "one" });
  });
  test("under hush nothing begins; after it the next does", () => {
    const v = evening();
    v.hush(true);
    v.says("a", "!say one");
    v.until(5_000);
    expect(v.heard).toEqual([]);
    v.hush(false);
    v.until(7_000);
    expect(v.heard).toEqual(["one"]);
  });
  test("shown only: nothing is made, and it stands as long as it takes to read", () => {
    const v = evening({ how: "shown" }, { speechMs: null });
    v.says("a", "!say a message to read https://a.com");
    expect(voices.view(voicesDefaults, v.now, "overlay")["now"]).toMatchObject({
      name: "a",
      text: "a message to read (link)",
      spoken: false,
    });
    v.until(4_249);
    expect(v.now.now).not.toBeNull();
    v.until(4_250);
    expect(v.now.now).toBeNull();
  });
});

describe("which voice", () => {
  const byRole = [{ role: "member" as const, voice: "bright" }];
  test("the word's, then one's own, then the role's, then the first", () => {
    const v = evening({
      words: [
        { word: "!say", voice: "" },
        { word: "!croak", voice: "harbour" },
      ],
      byRole,
      mostWaiting: 50,
    });
    const last = (): string => (v.now.waiting.at(-1) ?? v.now.now!.text).voice;
    v.says("ada", "!say hi");
    expect(last()).toBe("plain");
    v.says("ada", "!say hi", 0, ["member"]);
    expect(last()).toBe("bright");
    expect(codes(v.command({ do: "voice", name: "ada", voice: "Harbour" }))).toEqual(["voices/given"]);
    v.says("ada", "!say hi", 0, ["member"]);
    expect(last()).toBe("harbour");
    v.says("bo", "!croak hi", 0, ["member"]);
    expect(last()).toBe("harbour");
  });
  test("one that is gone is the usual one; a name nobody has is told", () => {
    const v = evening({ byRole: [{ role: "member", voice: "gone" }] });
    v.says("ada", "!say hi", 0, ["member"]);
    expect(v.now.now?.text.voice).toBe("plain");
    expect(codes(v.command({ do: "voice", name: "ada", voice: "nope" }))).toEqual(["voices/no-voice"]);
    expect(codes(v.command({ do: "voice", name: "nobody", voice: "Plain" }))).toEqual(["voices/unknown"]);
    expect(codes(v.command({ do: "voice", name: "", voice: "Bright" }, 0, viewer("cy")))).toEqual(["voices/given"]);
    expect(voices.mine!(voicesDefaults, v.now, "cy")).toEqual({ voice: "Bright" });
  });
});
