import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../chat/emotes";
import { deepFreeze } from "../kernel/freeze";
import { bareContext } from "../module/module";
import { alertLookDefaults } from "../alerts/alert";
import type { RuleEffect } from "../rules/effect";
import type { Signal } from "../signals/signal";
import type { Viewer } from "../signals/names";
import { type CueTransient, cueBook } from "./cues";
import { type Cue, type CueBook, cueBookSchema, type CueBookDurable, newCue } from "./settings";

const ctx = bareContext(emoteIndex([]));
let seq = 0;
const fired = (cueId: string, atMs = 1_000): Signal => ({
  kind: "cue",
  seq: (seq += 1),
  atMs,
  id: `c${seq}`,
  cueId,
  by: "kilnkeeper",
  via: "key",
  viewer: null,
});
const said = (text: string, roles: Viewer["roles"] = ["moderator"], atMs = 1_000): Signal => ({
  kind: "message",
  seq: (seq += 1),
  atMs,
  id: `m${seq}`,
  viewer: { id: "a", name: "Ada", roles },
  text,
  marks: [],
});
const show: RuleEffect = {
  do: "show",
  picture: "cup",
  sound: "bell",
  volume: 80,
  text: "Tea break at {channel}",
  ms: 5_000,
  queue: "",
  look: alertLookDefaults,
};
const cue = (part: Partial<Cue>): Cue => ({ ...newCue("door", "Kiln door"), effects: [{ do: "say", text: "open" }], ...part });
const book = (...cues: Cue[]): CueBook => cueBookSchema.parse({ schema: 3, cues });
type State = { durable: CueBookDurable; transient: CueTransient };
const start = (): State => ({ durable: { on: [], pending: [] }, transient: { fired: {} } });
const run = (settings: CueBook, signal: Signal, at: State = start()) =>
  cueBook.step(deepFreeze({ settings, ...at }), deepFreeze(signal), ctx);

describe("cues", () => {
  test("fire what they are set to, and tell by whom", () => {
    const done = run(book(cue({})), fired("door"));
    expect(done.orders).toEqual([{ do: "say", text: "open" }]);
    expect(done.notes).toEqual([{ did: "cue/fired", count: 1, subject: "Kiln door", facts: { by: "kilnkeeper" } }]);
  });
  test("what they make a game do is done in the name that viewers may read, whatever its operator signs in by", () => {
    const settings = book(cue({ effects: [{ do: "switch", game: "plate", on: true }] }));
    const named = run(settings, { ...fired("door"), house: { name: "Maria", role: "owner" } } as Signal);
    expect(named.orders).toMatchObject([{ do: "command", by: "Maria" }]);
    // Operators still see who it was.
    expect(named.notes[0]?.facts).toEqual({ by: "kilnkeeper" });
    expect(run(settings, said("no word")).orders ?? []).toEqual([]);
  });
  test("rest for their own time", () => {
    const settings = book(cue({ cooldownMs: 3_000 }), cue({ id: "other", name: "Other" }));
    const first = run(settings, fired("door"));
    expect(run(settings, fired("door", 3_500), first).notes[0]?.refusal).toEqual({ code: "cue/cooling", facts: { freeInS: 1 } });
    expect(run(settings, fired("other", 1_001), first).orders).toHaveLength(1);
    expect(run(settings, fired("door", 4_000), first).orders).toHaveLength(1);
  });
  test("by chat word, for roles that may, in any capitals, and only as the whole message", () => {
    const settings = book(cue({ word: "!door", roles: ["moderator"] }));
    expect(run(settings, said("!DOOR")).orders).toHaveLength(1);
    expect(run(settings, said("open the !door")).notes).toEqual([]);
    expect(run(settings, said("!door", [])).notes[0]?.refusal?.code).toBe("cue/role");
    expect(run(settings, said("")).notes).toEqual([]);
  });
  test("one that is not there is refused", () => expect(run(book(), fired("door")).notes[0]?.refusal?.code).toBe("cue/unknown"));
  test("an on/off cue stays on the picture until it is fired again, after a restart too; its sound plays once", () => {
    const settings = book(cue({ kind: "on-off", cooldownMs: 0, effects: [show], offEffects: [{ do: "say", text: "back" }] }));
    const on = run(settings, fired("door"));
    expect(on.orders).toMatchObject([{ do: "show", alert: { picture: "", text: "", sound: "bell" } }]);
    const kept = cueBook.durable.parse(JSON.parse(JSON.stringify(on.durable)));
    expect(cueBook.view(settings, kept, "overlay")).toMatchObject({
      alerts: [{ picture: "prop:cup", text: "Tea break at Saltmarsh Kiln" }],
    });
    expect(cueBook.view(settings, kept, "operator", on.transient)).toMatchObject({
      on: ["door"],
      cues: [{ id: "door", restsUntilMs: expect.any(Number) }],
    });
    expect(cueBook.view(settings, kept, "viewer")).toEqual({});
    const off = run(settings, fired("door", 9_000), { durable: kept, transient: on.transient });
    expect(off.orders).toEqual([{ do: "say", text: "back" }]);
    expect(cueBook.view(settings, off.durable, "overlay")).toEqual({ alerts: [] });
  });
  test("going off drops what a wait still held back", () => {
    const effects: RuleEffect[] = [show, { do: "wait", ms: 60_000 }, { do: "say", text: "still waiting" }];
    const settings = book(cue({ kind: "on-off", cooldownMs: 0, effects }));
    const on = run(settings, fired("door"));
    expect(cueBook.dueMs!(settings, on.durable)).toBe(61_000);
    const off = run(settings, fired("door", 2_000), on);
    expect(cueBook.dueMs!(settings, off.durable)).toBeNull();
  });
  test("what was waited for is done when it is due", () => {
    const settings = book(
      cue({
        effects: [
          { do: "wait", ms: 500 },
          { do: "say", text: "late" },
        ],
      }),
    );
    const first = run(settings, fired("door"));
    expect(first.orders).toEqual([]);
    const due = run(settings, { kind: "timer", seq: 99, atMs: 1_500, id: "t", moduleId: "cues" }, first);
    expect(due.orders).toEqual([{ do: "say", text: "late" }]);
  });
  test("a cue that was removed while on shows nothing any more", () => {
    const on = run(book(cue({ kind: "on-off", effects: [show] })), fired("door"));
    expect(cueBook.view(book(), on.durable, "overlay")).toEqual({ alerts: [] });
  });
  test("two of one key or word, an unknown variable, no name: can't be saved", () => {
    const problem = (...cues: Cue[]): string => {
      const parsed = cueBookSchema.safeParse({ schema: 3, cues });
      return parsed.success ? "" : (parsed.error.issues[0]?.message ?? "");
    };
    expect(problem(cue({ key: "1" }), cue({ id: "b", key: "1" }))).toMatch(/same key/);
    expect(problem(cue({ word: "!Door" }), cue({ id: "b", word: "!dóor" }))).toMatch(/same chat word/);
    expect(problem(cue({ effects: [{ do: "say", text: "{viewer}" }] }))).toMatch(/no variable of a cue/);
    expect(problem(cue({ name: " " }))).toBe("A cue needs a name.");
    expect(problem(cue({ word: "two words" }))).toMatch(/no spaces/);
  });
});
