import { nameOfSegment } from "./stands";
import { describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../../chat/emotes";
import { checkProof } from "../../chance/check";
import { openVault } from "../../chance/vault";
import { deepFreeze } from "../../kernel/freeze";
import { bareContext, type StepContext } from "../../module/module";
import type { Viewer } from "../../signals/names";
import { wheel } from "./definition";
import { arcAt, arcsOf } from "./layout";
import { freshWheel } from "./rules";
import { newSegment, type WheelDurable, wheelDurableSchema, type WheelSettings, wheelSettingsSchema } from "./settings";

const ada: Viewer = { id: "ada", name: "Ada", roles: [] };
const settingsOf = (part: Partial<WheelSettings> = {}): WheelSettings => ({
  ...wheel.defaults,
  segments: ["Celadon", "Tenmoku", "Ash"].map((label, i) => newSegment(`s${i}`, label, i)),
  spinMs: 5_000,
  panelMs: 2_000,
  ...part,
});
/** A wheel and its evening: what it is told, when, and what came of each. */
function evening(settings: WheelSettings, { fresh = false, ...part }: Partial<StepContext> & { fresh?: boolean } = {}) {
  let durable: WheelDurable = freshWheel();
  let seq = 0;
  let { vault, rehearsing } = bareContext(emoteIndex([]), part);
  const run = (signal: object, atMs: number, now = settings) => {
    seq += 1;
    const given = { seq, atMs, id: `s${seq}`, ...signal } as never;
    const ctx = bareContext(emoteIndex([]), { ...part, vault, rehearsing, gameName: () => "The plate" });
    const outcome = wheel.step(deepFreeze({ settings: now, durable, transient: null }), given, ctx);
    durable = outcome.durable;
    expect(wheelDurableSchema.safeParse(JSON.parse(JSON.stringify(durable))).success).toBe(true);
    return {
      ...outcome,
      says: (outcome.orders ?? []).flatMap((o) => (o.do === "say" ? [o.text] : [])),
      codes: outcome.notes.map((n) => n.refusal?.code ?? n.did),
    };
  };
  const command = (command: object, atMs: number, viewer: Viewer | null = null, now = settings) =>
    run({ kind: "command", gameId: "plate", by: "kilnkeeper", viewer, command }, atMs, now);
  // Promised before the evening begins, as the engine's timer does it.
  if (!fresh) run({ kind: "timer", moduleId: "plate" }, 0);
  return {
    run,
    spin: (atMs: number, viewer: Viewer | null = null, now = settings) => command({ do: "spin" }, atMs, viewer, now),
    command,
    timer: (atMs: number, now = settings) => run({ kind: "timer", moduleId: "plate" }, atMs, now),
    at: () => durable,
    due: (now = settings) => wheel.dueMs?.(now, durable) ?? null,
    vault: (next: StepContext["vault"]) => (vault = next),
    rehearse: (on: boolean) => (rehearsing = on),
    put: (next: WheelDurable) => (durable = next),
  };
}
/** Spins until the result stands, one after another. */
function results(settings: WheelSettings, times: number): string[] {
  const e = evening(settings);
  for (let i = 0; i < times; i += 1) {
    const from = (e.at().spin?.endsMs ?? i * 10_000) + 10_000;
    e.spin(from);
    e.timer(from + settings.spinMs);
  }
  return [...e.at().results].reverse().map((r) => r.label);
}

describe("a spin", () => {
  test("is promised before it is asked for, decided before it moves, and told when the wheel rests", () => {
    const e = evening(settingsOf(), { fresh: true });
    expect(e.due()).toBe(0);
    e.timer(1_000);
    const promise = e.at().next?.commitment;
    expect(promise).toMatch(/^[0-9a-f]{64}$/);
    expect(e.due()).toBeNull();
    const begun = e.spin(2_000, ada);
    expect(begun.codes).toEqual(["wheel/spun"]);
    expect(begun.says).toEqual([]);
    expect(e.due()).toBe(7_000);
    // Too early it is not over.
    expect(e.timer(6_999).codes).toEqual([]);
    const ended = e.timer(7_000);
    expect(ended.codes).toEqual(["wheel/drawn"]);
    const label = e.at().results[0]?.label ?? "";
    expect(ended.says[0]).toMatch(new RegExp(`^${label}, for Ada: round 1\\. The next is promised by [0-9a-f]{20}\\.$`));
    expect(e.at().next?.commitment).not.toBe(promise);
    const drawn = { do: "emit", what: "wheel/drawn", viewer: ada, amount: 1, text: label, effects: [], touches: { joy: true } };
    expect(ended.orders).toContainEqual(drawn);
    // The wheel stands where the rules said.
    const arc = arcAt(arcsOf(settingsOf(), e.at()), e.at().angle, settingsOf().looks.pointerAt);
    expect(settingsOf().segments[arc?.segment ?? -1]?.label).toBe(label);
  });
  test("comes with a proof that anybody can check, and that shows what was tampered with", () => {
    const e = evening(settingsOf());
    e.spin(2_000);
    const { proof } = e.timer(7_000).kept?.[0]?.body as { proof: Record<string, unknown> };
    expect(checkProof(JSON.parse(JSON.stringify(proof)))).toMatchObject({ holds: true });
    const [draw] = proof["draws"] as { id: string }[];
    const other = ["s0", "s1", "s2"].find((id) => id !== draw?.id);
    expect(checkProof({ ...proof, draws: [{ ...draw, id: other }] }).holds).toBe(false);
    expect(checkProof({ ...proof, settings: { leaves: true } }).holds).toBe(false);
  });
  test("an operator’s second is refused while it turns; viewers’ wait their turn, so many and no more", () => {
    const e = evening(settingsOf({ mostWaiting: 1 }));
    e.spin(1_000);
    expect(e.spin(2_000).codes).toEqual(["wheel/turning"]);
    expect(e.spin(2_000, ada).codes).toEqual(["wheel/waits"]);
    expect(e.spin(2_100, ada).codes).toEqual(["wheel/full"]);
    // The result is looked at, then whoever waits spins by themselves.
    expect(e.timer(6_000).codes).toEqual(["wheel/drawn"]);
    expect(e.due()).toBe(8_000);
    expect(e.timer(8_000).codes).toEqual(["wheel/spun"]);
    expect(e.at().spin?.who.by).toBe("Ada");
    expect(e.command({ do: "drop-waiting" }, 8_100).codes).toEqual(["wheel/none-wait"]);
  });
  test("goes on to its end when the server was away over it, and while the wheel is switched off", () => {
    const e = evening(settingsOf());
    e.spin(1_000);
    expect(e.command({ do: "switch", on: false }, 2_000).codes).toEqual(["wheel/switched-off"]);
    expect(e.timer(900_000).codes).toEqual(["wheel/drawn"]);
    expect(e.spin(900_001).codes).toEqual(["wheel/off"]);
    expect(e.command({ do: "switch", on: false }, 900_002).codes).toEqual(["wheel/already-off"]);
  });
  test("nobody reads the name that an operator signs in by: not in chat, on the picture, on the viewer page or in what is kept", () => {
    const settings = settingsOf();
    const e = evening(settings);
    const begun = e.run(
      { kind: "command", gameId: "plate", by: "kilnkeeper", signedIn: true, viewer: null, command: { do: "spin" } },
      10_000,
    );
    const over = e.timer(10_000 + settings.spinMs);
    const views = (["overlay", "viewer"] as const).map((to) => wheel.view(settings, e.at(), to));
    const said = JSON.stringify([begun.effects, begun.says, over.effects, over.says, over.kept, views]);
    expect(said).not.toContain("kilnkeeper");
    expect(said).toContain("the house");
    // A result that was kept before names were told apart may hold one: only operators read it.
    const old = JSON.parse(JSON.stringify(e.at())) as { results: Record<string, unknown>[] };
    old.results = old.results.map(({ isPublic: _, ...r }) => ({ ...r, by: "kilnkeeper" }));
    const before = wheel.durable.parse(old);
    for (const to of ["overlay", "viewer"] as const) expect(JSON.stringify(wheel.view(settings, before, to))).not.toContain("kilnkeeper");
    expect(wheel.fair?.(wheel.view(settings, before, "viewer"))?.past[0]?.words).toBe(nameOfSegment(String(old.results[0]?.["label"])));
    expect(JSON.stringify(wheel.view(settings, before, "operator"))).toContain("kilnkeeper");
    // A moderator who writes in chat is known there by that name.
    const chat = evening(settings);
    expect(JSON.stringify(chat.spin(10_000).effects)).toContain("kilnkeeper");
  });
  test("what its segment does travels with it, as it was when it was spun", () => {
    const bell = { do: "sound" as const, sound: "bell", volume: 80, queue: "" };
    const settings = settingsOf({ segments: [{ ...newSegment("a", "Bell", 0), effects: [bell] }] });
    const e = evening(settings);
    e.spin(1_000);
    const ended = e.timer(6_000, settingsOf({ segments: [newSegment("b", "Other", 0)] }));
    expect(ended.orders).toContainEqual(expect.objectContaining({ what: "wheel/drawn", text: "Bell", effects: [bell] }));
  });
});

describe("which segments come", () => {
  test("one that leaves does not come again until all are brought back", () => {
    const e = evening(settingsOf({ leaves: true }));
    const came = new Set<string>();
    for (let i = 0; i < 3; i += 1) {
      e.spin((i + 1) * 20_000);
      e.timer((i + 1) * 20_000 + 5_000);
      came.add(e.at().last);
    }
    expect(came.size).toBe(3);
    expect(e.spin(90_000).codes).toEqual(["wheel/empty"]);
    expect(e.spin(90_000, ada).codes).toEqual(["wheel/empty"]);
    expect(e.command({ do: "reset" }, 91_000).notes[0]).toMatchObject({ did: "wheel/reset", count: 3 });
    expect(e.command({ do: "reset" }, 91_500).codes).toEqual(["wheel/all-there"]);
    expect(e.spin(92_000).codes).toEqual(["wheel/spun"]);
  });
  test("what came back after the promise stands in its chain, and the proof holds", () => {
    const e = evening(settingsOf({ leaves: true }));
    e.spin(1_000);
    e.timer(6_000);
    expect(e.at().next?.changes).toHaveLength(2);
    const before = e.at().next?.chain;
    e.command({ do: "reset" }, 7_000);
    expect(e.at().next?.changes.at(-1)).toMatchObject({ seq: 3, weight: 1 });
    expect(e.at().next?.chain).not.toBe(before);
    e.spin(8_000);
    const { proof } = e.timer(13_000).kept?.[0]?.body as { proof: unknown };
    expect(checkProof(proof).holds).toBe(true);
  });
  test("never the same twice running", () => {
    const came = results(settingsOf({ again: false }), 18);
    expect(came.some((label, i) => i > 0 && label === came[i - 1])).toBe(false);
    expect(new Set(came).size).toBe(3);
  });
  test("a stock runs out", () => {
    const settings = settingsOf({
      segments: [{ ...newSegment("a", "Mug", 0), weight: 1_000_000, stock: 2 }, newSegment("b", "Nothing", 1)],
    });
    const came = results(settings, 8);
    expect(came.filter((label) => label === "Mug")).toHaveLength(2);
    expect(came.slice(-3)).toEqual(["Nothing", "Nothing", "Nothing"]);
  });
  test("by their weights: of many spins each comes as often as it should", () => {
    const settings = settingsOf({ segments: [3, 1].map((weight, i) => ({ ...newSegment(`s${i}`, `S${i}`, i), weight })) });
    const e = evening(settings);
    let first = 0;
    for (let i = 0; i < 2_000; i += 1) {
      e.spin((i + 1) * 20_000);
      e.timer((i + 1) * 20_000 + 5_000);
      first += e.at().last === "s0" ? 1 : 0;
    }
    // 1,500 expected; five standard deviations are 97.
    expect(Math.abs(first - 1_500)).toBeLessThan(97);
  });
});

describe("promises", () => {
  test("are made anew when the segments change, and the old one stays visible as abandoned; looks change none", () => {
    const e = evening(settingsOf());
    e.timer(1_000);
    const old = e.at().next?.commitment;
    const looks = settingsOf({ looks: { ...settingsOf().looks, rim: "#000000" } });
    expect(e.due(looks)).toBeNull();
    const other = settingsOf({ segments: [newSegment("a", "One", 0), newSegment("b", "Two", 1)] });
    expect(e.due(other)).toBe(0);
    const kept = e.timer(2_000, other).kept;
    expect(kept).toMatchObject([{ kind: "abandoned", body: { commitment: old, why: "settings" } }]);
    expect(e.at().next?.commitment).not.toBe(old);
  });
  test("nothing is drawn from a promise before it was public for half a second: whoever asks sooner waits", () => {
    const e = evening(settingsOf(), { fresh: true });
    expect(e.spin(1_000).codes).toEqual(["wheel/waits"]);
    // Another operator at the same moment: one of them spins it.
    expect(e.spin(1_000).codes).toEqual(["wheel/turning"]);
    expect(e.due()).toBe(1_500);
    expect(e.timer(1_499).codes).toEqual([]);
    expect(e.timer(1_500).codes).toEqual(["wheel/spun"]);
    // The segments are changed while somebody waits: what they draw from is promised anew first.
    e.spin(2_000, ada);
    e.timer(6_500);
    const other = settingsOf({ segments: [newSegment("a", "One", 0), newSegment("b", "Two", 1)] });
    expect(e.timer(8_600, other).codes).toEqual([]);
    expect(e.due(other)).toBe(9_100);
    expect(e.timer(9_100, other).codes).toEqual(["wheel/spun"]);
  });
  test("where no spin may wait, one may still be had as soon as the wheel rests", () => {
    const e = evening(settingsOf({ mostWaiting: 0 }));
    const open = (): unknown => wheel.view(settingsOf({ mostWaiting: 0 }), e.at(), "operator")["open"];
    expect(open()).toBe(true);
    e.spin(1_000, ada);
    expect([open(), e.spin(2_000, ada).codes]).toEqual([false, ["wheel/full"]]);
    e.timer(6_000);
    expect([open(), e.spin(6_100, ada).codes]).toEqual([true, ["wheel/waits"]]);
    expect([open(), e.spin(6_200, ada).codes]).toEqual([false, ["wheel/full"]]);
  });
  test("what a rehearsal draws tells nothing of the show’s next spin", () => {
    const e = evening(settingsOf());
    e.timer(1_000);
    const real = e.at();
    e.rehearse(true);
    expect(e.spin(2_000).codes).toEqual(["wheel/waits"]);
    e.timer(2_500);
    expect(e.at().spin?.promise.round).toMatch(/\.rehearsal$/);
    expect(e.at().spin?.promise.commitment).not.toBe(real.next?.commitment);
    // Afterwards all stands as before: the same promise, unopened.
    e.rehearse(false);
    e.put(real);
    e.spin(9_000);
    expect(e.at().spin?.promise.commitment).toBe(real.next?.commitment);
  });
  test("viewers hear nothing of a rehearsal: neither what it promised nor what came", () => {
    const e = evening(settingsOf());
    e.rehearse(true);
    e.spin(2_000);
    e.timer(2_500);
    e.timer(7_500);
    const seen = (audience: "viewer" | "operator") => wheel.view(settingsOf(), e.at(), audience) as { promise: string; results: object[] };
    expect([seen("viewer").promise, seen("viewer").results]).toEqual(["", []]);
    expect(seen("operator").results).toHaveLength(1);
  });
  test("a rehearsal’s that was left behind is never drawn from in a show", () => {
    const e = evening(settingsOf());
    e.rehearse(true);
    e.timer(1_000);
    const rehearsed = e.at().next?.commitment;
    e.rehearse(false);
    e.spin(2_000);
    e.timer(2_500);
    expect(e.at().spin?.promise.commitment).toMatch(/^[0-9a-f]{64}$/);
    expect(e.at().spin?.promise.commitment).not.toBe(rehearsed);
  });
  test("a secret that can’t be read is said, and another is promised before anything is drawn from it", () => {
    const e = evening(settingsOf());
    e.timer(1_000);
    e.vault(openVault("another installation"));
    const lost = e.spin(2_000);
    expect(lost.codes).toEqual(["wheel/secret-lost"]);
    expect(lost.kept).toMatchObject([{ kind: "abandoned", body: { why: "lost" } }]);
    expect(e.spin(3_000).codes).toEqual(["wheel/spun"]);
  });
  test("nobody’s view holds a secret, or where a spin will end before it is there", () => {
    const e = evening(settingsOf());
    e.spin(1_000);
    const { sealed } = e.at().spin!.promise;
    for (const audience of ["viewer", "operator", "overlay"] as const) {
      const seen = JSON.stringify(wheel.view(settingsOf(), e.at(), audience));
      expect(seen).not.toContain(sealed);
      expect(seen).not.toMatch(/"result":\{|"results":\[\{/);
    }
  });
});

test("the chances are told in chat: exact, the likeliest first, and no longer than a line", () => {
  const many = settingsOf({ segments: Array.from({ length: 400 }, (_, i) => newSegment(`s${i}`, `A rather long label number ${i}`, i)) });
  expect(evening(many).command({ do: "tell-rules" }, 1_000).says[0]?.length).toBeLessThan(400);
  const [told] = evening(settingsOf()).command({ do: "tell-rules" }, 1_000).says;
  expect(told).toBe("The plate, next spin: Celadon 33.34 %, Tenmoku 33.33 %, Ash 33.33 %.");
});

test("settings that can’t be are refused in words", () => {
  const why = (part: Partial<WheelSettings>): string => wheelSettingsSchema.safeParse(settingsOf(part)).error?.issues[0]?.message ?? "fits";
  const one = newSegment("a", "A", 0);
  expect(why({})).toBe("fits");
  expect(why({ segments: [] })).toBe("A wheel needs at least one segment.");
  expect(why({ segments: [one, one] })).toBe("Two segments have one id.");
  expect(why({ segments: [{ ...one, label: "  " }] })).toBe("A segment needs a label, or a picture.");
  expect(why({ segments: [{ ...one, label: "", picture: "own:pot" }] })).toBe("fits");
  expect(why({ segments: Array.from({ length: 501 }, (_, i) => newSegment(`s${i}`, "x", i)) })).toMatch(/at most 500/);
  for (const weight of [0, -1, 1.5, 1_000_001]) expect(why({ segments: [{ ...one, weight }] })).not.toBe("fits");
});
