import { commitmentOf, settingsHash } from "../core/chance/scheme";
import type { Proof2 } from "../core/chance/proof";
import type { ChanceRules, Happening } from "../core/chance/record";
import { entered, forged, linksIn, ranRound, rechained } from "./rounds";

const five = entered("ada", "quietferry", "tin_lantern", "loamy", "eelgrass");
const shakes = [
  { id: "ada", text: "shake!" },
  { id: "quietferry", text: "🔥" },
];
const numbers = ["ada", "bo", "cy", "__proto__"].map((id, i) => ({ seq: i + 1, atMs: 100 + i, id, weight: 1, guess: i * 3 - 2 }));
const shaking = { who: "anyone", most: 3, withinMs: 20_000 } as const;

/** Rounds that hold, by name. */
export const good: readonly (readonly [string, Proof2])[] = [
  ["a spin", ranRound(five)],
  ["a shaken draw with two winners", ranRound(five, { chance: { winners: 2, shake: shaking }, shakes })],
  ["shaken by as many as may", ranRound(five, { chance: { shake: { ...shaking, most: 2 } }, shakes })],
  ["shaken by nobody", ranRound(five, { chance: { shake: shaking } })],
  ["nobody was in", ranRound([], { chance: { shake: shaking }, after: [] })],
  ["one passed over, one more asked for", ranRound(five, { after: ["draw", { pass: 0 }, "draw", "more", "draw"] })],
  ["locked by time", ranRound(five, { chance: { lockAfterMs: 900 }, by: "time" })],
  ["locked before its time by an operator", ranRound(five, { chance: { lockAfterMs: 90_000 } })],
  ["drawn viewers stay in", ranRound(five, { chance: { winners: 9, staysIn: true } })],
  ["a removed entry", ranRound([...five, { seq: 6, atMs: 700, id: "ada", weight: 0 }])],
  ["the nearest number", ranRound(numbers, { chance: { number: { from: -3, to: 12 }, winners: 2 } })],
  ["closed with nobody drawn", ranRound(five, { after: [] })],
];
const named = (name: string): Proof2 => {
  const found = good.find(([n]) => n === name);
  if (found === undefined) throw new Error(`no round is called ${name}`);
  return found[1];
};

type Bad = Readonly<{ name: string; of: string; reason: string; proof: unknown; seen?: readonly string[] }>;
const draw = "a shaken draw with two winners";
const [spin, two, range] = [named("a spin"), named(draw), named("the nearest number")];
const other = "0".repeat(64);
const chanceIn = (p: Proof2): ChanceRules => (p.settings as { chance: ChanceRules }).chance;
/** With other rules, as if they had been announced: the settings' hash fits again. */
const ruled = (p: Proof2, part: Partial<ChanceRules>): Proof2 => {
  const settings = { ...(p.settings as object), chance: { ...chanceIn(p), ...part } };
  return { ...p, settings, settingsHash: settingsHash(settings) };
};
const record = (p: Proof2, change: (r: readonly Happening[]) => readonly Happening[]): Proof2 => ({ ...p, record: [...change(p.record)] });
const each = (p: Proof2, kind: Happening["kind"], part: object): Proof2 =>
  record(p, (r) => r.map((h) => (h.kind === kind ? ({ ...h, ...part } as Happening) : h)));
const without = (p: Proof2, kind: Happening["kind"]): Proof2 => record(p, (r) => r.filter((h) => h.kind !== kind));
const afterLock = (p: Proof2, ...more: Happening[]): Proof2 => record(p, ([lock, ...r]) => [lock as Happening, ...more, ...r]);
const firstDraw = (p: Proof2, part: object): Proof2 => ({ ...p, draws: p.draws.map((d, i) => (i === 0 ? { ...d, ...part } : d)) });
const invented = (id: string, atMs = 1_005): Happening => ({ kind: "shake", atMs, id, text: "let me win" });
const lockMs = 1_000;

const on = (
  of: string,
  p: Proof2,
  list: readonly (readonly [string, string, (p: Proof2) => unknown, (readonly string[])?])[],
): readonly Bad[] =>
  list.map(([name, reason, change, seen]) => ({ name, of, reason, proof: change(p), ...(seen === undefined ? {} : { seen }) }));
/** Proofs that were tampered with, each with the reason that both checkers give, and the hashes that viewers saw. */
export const bad: readonly Bad[] = [
  ...on("a spin", spin, [
    ["another secret", "promise", (p) => ({ ...p, secret: "5b".repeat(32) })],
    ["another promise", "promise", (p) => ({ ...p, commitment: other })],
    ["another format", "shape", (p) => ({ ...p, format: "izzam-round-3" })],
    ["a surplus member", "shape", (p) => ({ ...p, by: "friend" })],
    ["a missing member", "shape", (p) => ({ ...p, openedMs: undefined })],
    ["a surplus member of a draw", "shape", (p) => firstDraw(p, { by: "friend" })],
    ["a weight that is no whole number", "shape", (p) => firstDraw(p, { weight: 1.5 })],
    ["a happening that nobody knows", "shape", (p) => ({ ...p, record: [...p.record, { kind: "nudge", atMs: 9_000 }] })],
    ["another title", "settings", (p) => ({ ...p, settings: { ...(p.settings as object), title: "Another mug" } })],
    [
      "drawn viewers may stay in",
      "settings",
      (p) => ({ ...p, settings: { ...(p.settings as object), chance: { ...chanceIn(p), staysIn: true } } }),
    ],
    ["settings without rules", "chance", (p) => ({ ...p, settings: {}, settingsHash: settingsHash({}) })],
    ["rules with a surplus member", "chance", (p) => ruled(p, { luck: 3 } as never)],
    ["another round", "chain", (p) => ({ ...p, round: "plate.4.x" })],
    ["another opening", "chain", (p) => ({ ...p, openedMs: 50 })],
    ["another end of the chain", "chain", (p) => ({ ...p, chain: other })],
    ["more tickets for one", "chain", (p) => ({ ...p, changes: p.changes.map((c, i) => (i === 0 ? { ...c, weight: 99 } : c)) })],
    ["an entry at another time", "chain", (p) => ({ ...p, changes: p.changes.map((c, i) => (i === 4 ? { ...c, atMs: 501 } : c)) })],
    ["an entry left out", "order", (p) => ({ ...p, changes: p.changes.slice(1) })],
    ["two entries in another order", "order", (p) => ({ ...p, changes: [p.changes[1], p.changes[0], ...p.changes.slice(2)] })],
    [
      "an entry after the lock",
      "lock",
      (p) => forged({ ...p, changes: [...p.changes, { seq: 6, atMs: lockMs + 1, id: "friend", weight: 9 }] }),
    ],
    ["an entry before the opening", "order", (p) => forged({ ...p, changes: p.changes.map((c, i) => (i === 0 ? { ...c, atMs: 1 } : c)) })],
    [
      "a guess where none was asked for",
      "guess",
      (p) => forged({ ...p, changes: p.changes.map((c, i) => (i === 0 ? { ...c, guess: 3 } : c)) }),
    ],
    ["no lock", "lock", (p) => rechained(without(p, "lock"))],
    ["two locks", "lock", (p) => rechained(record(p, ([lock, ...r]) => [lock as Happening, lock as Happening, ...r]))],
    ["the lock of another list", "lock", (p) => rechained(each(p, "lock", { list: other }))],
    ["locked by a time that was not announced", "lock", (p) => rechained(each(p, "lock", { by: "time" }))],
    ["another list", "list", (p) => ({ ...p, list: p.list.slice(1) })],
    ["another hash of the list", "list", (p) => ({ ...p, listHash: other })],
    ["another winner", "draws", (p) => firstDraw(p, { id: p.list.find((t) => t.id !== p.draws[0]?.id)?.id })],
    ["another ticket", "draws", (p) => firstDraw(p, { ticket: 1_000 })],
    ["another weight of the winner", "draws", (p) => firstDraw(p, { weight: 77 })],
    ["another total", "draws", (p) => firstDraw(p, { total: 77 })],
    ["another number of tries", "draws", (p) => firstDraw(p, { attempts: 7 })],
    ["another index", "draws", (p) => firstDraw(p, { index: 1 })],
    ["a surplus draw", "record", (p) => forged(record(p, (r) => [...r, { kind: "draw", atMs: 9_000, index: 1 }]))],
    ["a result without a draw", "record", (p) => rechained(without(p, "draw"))],
    ["a draw without a result", "record", (p) => ({ ...p, draws: [] })],
    [
      "a winner passed over who was not drawn",
      "record",
      (p) => rechained(record(p, (r) => [...r, { kind: "pass", atMs: 9_000, index: 4 }])),
    ],
    ["a draw before the lock", "lock", (p) => rechained(record(p, ([lock, d]) => [d as Happening, lock as Happening]))],
    ["a draw at a time before the lock", "order", (p) => rechained(each(p, "draw", { atMs: 900 }))],
    ["a number that was not announced", "number", (p) => ({ ...p, number: { target: 3, attempts: 0 } })],
    [
      "shaken where nobody announced it",
      "shake",
      (p) => rechained(afterLock(p, invented("friend"), { kind: "shaken", atMs: 1_005, shake: other })),
    ],
    [
      "a secret chosen afterwards",
      "seen",
      (p) => forged({ ...p, commitment: commitmentOf(Buffer.alloc(32, 7)) }, "07".repeat(32)),
      [spin.commitment],
    ],
    [
      "an entry slipped in, all computed again",
      "seen",
      (p) => forged({ ...p, changes: [...p.changes, { seq: 6, atMs: 700, id: "friend", weight: 9 }] }),
      linksIn(spin).slice(0, 7),
    ],
    ["an entry less, all computed again", "seen", (p) => forged({ ...p, changes: p.changes.slice(0, 4) }), linksIn(spin).slice(5, 6)],
    ["locked earlier, all computed again", "seen", (p) => forged(each(p, "lock", { atMs: 900 })), linksIn(spin).slice(6, 7)],
    ["other rules, all computed again", "seen", (p) => forged(ruled(p, { winners: 3 })), [spin.settingsHash.slice(0, 20)]],
    ["a hash that is too short to say anything", "seen", (p) => p, [spin.commitment.slice(0, 8)]],
  ]),
  ...on(draw, two, [
    ["a message changed", "shake", (p) => rechained(each(p, "shake", { text: "shake?" }))],
    ["a message dropped", "shake", (p) => rechained(record(p, (r) => r.filter((h) => h.kind !== "shake" || h.id !== "ada")))],
    [
      "messages in another order",
      "shake",
      (p) =>
        rechained(
          record(p, ([lock, a, b, ...r]) => [
            lock as Happening,
            { ...(b as Happening), atMs: (a as Happening).atMs },
            { ...(a as Happening), atMs: (b as Happening).atMs },
            ...r,
          ]),
        ),
    ],
    ["the shaking left out", "shake", (p) => rechained(without(without(p, "shake"), "shaken"))],
    ["one who shook twice", "shake", (p) => forged(afterLock(p, invented("ada")))],
    ["more than may shake", "shake", (p) => forged(afterLock(p, invented("friend"), invented("friend_2")))],
    ["the last place filled, and the shaking goes on", "shake", (p) => forged(afterLock(p, invented("friend")))],
    [
      "a message after the time",
      "shake",
      (p) =>
        forged(
          record(p, ([lock, a, b, ...r]) => [
            lock as Happening,
            a as Happening,
            { ...(b as Happening), atMs: lockMs + 20_001 },
            ...r.map((h) => ({ ...h, atMs: h.atMs + 5_000 })),
          ]),
        ),
    ],
    ["the shaking ended too early", "shake", (p) => rechained(each(p, "shaken", { atMs: 1_030 }))],
    [
      "a message after the end",
      "shake",
      (p) => forged(record(p, (r) => [...r.slice(0, 4), { kind: "shake", atMs: 21_000, id: "friend", text: "now" }, ...r.slice(4)])),
    ],
    [
      "drawn before it was shaken",
      "record",
      (p) =>
        forged(
          record(p, ([lock, ...r]) => [
            lock as Happening,
            ...r.filter((h) => h.kind === "draw").map((h) => ({ ...h, atMs: 1_001 })),
            ...r.filter((h) => h.kind !== "draw"),
          ]),
        ),
    ],
    ["a third winner", "record", (p) => forged(record(p, (r) => [...r, { kind: "draw", atMs: 90_000, index: 2 }]))],
    ["winners the other way round", "draws", (p) => ({ ...p, draws: [...p.draws].reverse() })],
    [
      "an invented message, all computed again",
      "seen",
      (p) => forged(record(p, (r) => r.map((h) => (h.kind === "shake" && h.id === "ada" ? { ...h, text: "another" } : h)))),
      linksIn(two).slice(-4),
    ],
    [
      "a dropped message, all computed again",
      "seen",
      (p) => forged(record(p, (r) => r.filter((h) => h.kind !== "shake" || h.id !== "ada"))),
      linksIn(two).slice(-4),
    ],
  ]),
  ...on("the nearest number", range, [
    ["another number", "number", (p) => ({ ...p, number: { target: (p.number?.target ?? 0) + 1, attempts: p.number?.attempts } })],
    ["another number of tries for the number", "number", (p) => ({ ...p, number: { target: p.number?.target, attempts: 5 } })],
    ["the number left out", "number", (p) => ({ ...p, number: undefined })],
    [
      "a wider range",
      "settings",
      (p) => ({ ...p, settings: { ...(p.settings as object), chance: { ...chanceIn(p), number: { from: -3, to: 99 } } } }),
    ],
    ["a range in which no number is", "chance", (p) => ruled(p, { number: { from: 5, to: 4 } })],
    [
      "a guess outside the range",
      "guess",
      (p) => rechained({ ...p, changes: p.changes.map((c, i) => (i === 3 ? { ...c, guess: 50 } : c)) }),
    ],
    [
      "an entry without a number",
      "guess",
      (p) => rechained({ ...p, changes: p.changes.map(({ guess: _, ...c }, i) => (i === 3 ? c : { ...c, guess: _ ?? 0 })) }),
    ],
    ["the second nearest won", "draws", (p) => ({ ...p, draws: p.draws.map((d, i) => ({ ...d, id: p.draws[1 - i]?.id ?? "" })) })],
  ]),
];

/** Both as one file for other people's checkers: tampering as JSON Patch (RFC 6902) of a round that holds. */
export function vectors(): unknown {
  const rounds = new Map(good);
  return {
    good: good.map(([name, proof]) => ({ name, proof })),
    bad: bad.map(({ name, of, reason, proof, seen }) => {
      const before = (rounds.get(of) ?? {}) as unknown as Record<string, unknown>;
      const after = proof as Record<string, unknown>;
      const patch = [...new Set([...Object.keys(before), ...Object.keys(after)])]
        .filter((k) => JSON.stringify(before[k]) !== JSON.stringify(after[k]))
        .map((k) =>
          after[k] === undefined
            ? { op: "remove", path: `/${k}` }
            : { op: k in before ? "replace" : "add", path: `/${k}`, value: after[k] },
        );
      return { name, of, reason, ...(seen === undefined ? {} : { seen }), patch };
    }),
  };
}
