import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../chat/emotes";
import { deepFreeze } from "../kernel/freeze";
import { bareContext } from "../module/module";
import type { Attendance } from "../rewards/ledger-view";
import { emptyLedgerView } from "../rewards/ledger-view";
import type { Signal } from "../signals/signal";
import { showRules } from "./rules";
import { freshShow, showDefaults, type ShowDurable, type ShowTransient } from "./settings";

/** A show as it goes, with what is known of who was here before. */
function evening(state: "on" | "rehearsing" | "off", known: Record<string, Attendance> = {}) {
  const durable: ShowDurable = {
    ...freshShow(),
    state,
    show: state === "off" ? null : { id: "show9", sinceMs: 0, by: "maria", how: "hand" },
  };
  let transient: ShowTransient = showRules.freshDust();
  let seq = 0;
  const give = (signal: object, atMs: number) => {
    seq += 1;
    const attendance = (id: string): Attendance | null => (Object.hasOwn(known, id) ? known[id]! : null);
    const ctx = bareContext(emoteIndex([]), { showId: state === "on" ? "show9" : null, ledgerView: { ...emptyLedgerView, attendance } });
    const outcome = showRules.step(
      deepFreeze({ settings: showDefaults, durable, transient }),
      { seq, atMs, id: `s${seq}`, ...signal } as Signal,
      ctx,
    );
    transient = outcome.transient;
    return outcome;
  };
  const viewer = (id: string) => ({ id, name: id, roles: [] });
  return {
    says: (id: string, atMs = 0) => give({ kind: "message", viewer: viewer(id), text: "hello", marks: [] }, atMs),
    asked: (id: string, atMs = 0) => give({ kind: "arrival", viewer: viewer(id), shows: 0, beforeMs: null }, atMs),
  };
}

describe("who is here for the first time in a show", () => {
  test("is asked after in a turn of its own, once; their message itself changes nothing that must be stored", () => {
    const show = evening("on");
    const first = show.says("ada");
    expect(first.orders).toEqual([{ do: "apart", viewer: { id: "ada", name: "ada", roles: [] }, command: null }]);
    expect([first.booking, first.kept]).toEqual([undefined, undefined]);
    expect(show.says("ada", 500).orders ?? []).toEqual([]);
    expect(show.says("__proto__", 500).orders).toHaveLength(1);
    expect(show.says("constructor", 500).orders).toHaveLength(1);
  });
  test("who could not be written down is asked after again, not with every word", () => {
    const show = evening("on");
    show.says("ada", 0);
    expect(show.says("ada", 9_000).orders ?? []).toEqual([]);
    expect(show.says("ada", 10_001).orders).toHaveLength(1);
  });
  test("is counted in, and the others hear how often they were here and when last", () => {
    const week = 7 * 86_400_000;
    const show = evening("on", { ada: { shows: 4, firstMs: 5, lastMs: 70, showId: "show8" } });
    const met = show.asked("ada", week);
    expect(met.booking?.met).toEqual([{ id: "ada", name: "ada", atMs: week }]);
    expect(met.orders).toMatchObject([{ do: "arrived", shows: 5, beforeMs: 70 }]);
    expect(show.asked("bo").orders).toMatchObject([{ do: "arrived", shows: 1, beforeMs: null }]);
  });
  test("who was counted in this show is not counted again, whatever asks", () => {
    const show = evening("on", { ada: { shows: 5, firstMs: 5, lastMs: 70, showId: "show9" } });
    expect(show.says("ada").orders ?? []).toEqual([]);
    const again = show.asked("ada");
    expect([again.booking, again.orders]).toEqual([undefined, undefined]);
  });
  test("a rehearsal knows each once, and off air nobody is asked after", () => {
    const rehearsal = evening("rehearsing", { ada: { shows: 4, firstMs: 5, lastMs: 70, showId: "show8" } });
    expect(rehearsal.says("ada", 0).orders).toHaveLength(1);
    expect(rehearsal.says("ada", 60_000).orders ?? []).toEqual([]);
    expect(rehearsal.asked("ada").orders).toMatchObject([{ do: "arrived", shows: 5 }]);
    const off = evening("off");
    expect(off.says("ada").orders ?? []).toEqual([]);
    expect(off.asked("ada").orders).toBeUndefined();
  });
});

describe("whose picture is not shown", () => {
  const step = (durable: ShowDurable, command: object, viewer: string | null = null) =>
    showRules.step(
      { settings: showDefaults, durable, transient: showRules.freshDust() },
      {
        kind: "command",
        seq: 1,
        atMs: 5,
        id: "c",
        gameId: "show",
        by: viewer ?? "maria",
        viewer: viewer === null ? null : { id: viewer, name: viewer, roles: [] },
        command,
      } as Signal,
      bareContext(emoteIndex([])),
    );
  const codes = (o: ReturnType<typeof step>): string[] => o.notes.map((n) => n.refusal?.code ?? n.did ?? "");
  const names = (durable: ShowDurable) => showRules.provides!(showDefaults, durable).noFaces;

  test("by an operator and back; each change is a new mark, so that pages ask anew", () => {
    const hidden = step(freshShow(), { do: "face", id: "__proto__", name: "__proto__", on: false });
    expect(names(hidden.durable)).toEqual({ mark: 1, names: ["__proto__"] });
    expect(codes(step(hidden.durable, { do: "face", id: "__proto__", name: "__proto__", on: false }))).toEqual([
      "show/face-hidden-already",
    ]);
    expect(names(step(hidden.durable, { do: "face", id: "__proto__", name: "__proto__", on: true }).durable)).toEqual({
      mark: 2,
      names: [],
    });
  });
  test("by whose it is, and back by them; what an operator hid they can't show", () => {
    const own = step(freshShow(), { do: "my-face", be: "hidden" }, "ada");
    expect([codes(own), showRules.mine!(showDefaults, own.durable, "ada")]).toEqual([["show/face-hidden"], { face: false }]);
    expect(codes(step(own.durable, { do: "my-face", be: "shown" }, "ada"))).toEqual(["show/face-shown"]);
    // A page that is behind still says "hide": that must not show it.
    expect(codes(step(own.durable, { do: "my-face", be: "hidden" }, "ada"))).toEqual(["show/face-hidden-already"]);
    const by = step(freshShow(), { do: "face", id: "ada", name: "ada", on: false });
    expect(codes(step(by.durable, { do: "my-face", be: "shown" }, "ada"))).toEqual(["show/face-forbidden"]);
    expect(codes(step(freshShow(), { do: "my-face", be: "hidden" }))).toEqual(["show/nobody"]);
  });
  test("a show that was stored before there were faces is read", () => {
    const { noFaces: _, ...old } = freshShow();
    expect(showRules.durable.parse(JSON.parse(JSON.stringify(old))).noFaces).toEqual({ mark: 0, list: [] });
  });
});
