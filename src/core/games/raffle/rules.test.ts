import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { Map as Entries } from "immutable";
import { emoteIndex } from "../../chat/emotes";
import { checkProof } from "../../chance/proof";
import { deepFreeze } from "../../kernel/freeze";
import { bareContext, type Kept } from "../../module/module";
import { changesOf, type Entry, isBalanced } from "../../points/ledger";
import { emptyLedgerView } from "../../rewards/ledger-view";
import type { Role } from "../../signals/signal";
import { raffleNoteInWords } from "./notes";
import { raffleRows } from "./rows";
import { returnedAtOnce } from "./entrants";
import { raffleDue, raffleStep } from "./rules";
import {
  type RaffleDurable,
  raffleDefaults,
  raffleDurableSchema,
  type RaffleSettings,
  raffleSettingsSchema,
  freshRaffle,
} from "./settings";

const settingsOf = (part: Partial<RaffleSettings> = {}): RaffleSettings =>
  raffleSettingsSchema.parse({ ...raffleDefaults, shake: false, claimMs: 0, ...part });

/** An evening with a draw, and the ledger it moves points in; everybody begins with 1,000. */
function evening(settings: RaffleSettings) {
  let durable: RaffleDurable = freshRaffle();
  let transient = { chatted: Entries<`v:${string}`, number>() };
  let seq = 0;
  const entries: Entry[] = [];
  const rows: Kept[] = [];
  const balance = (id: string): number => {
    const moved = changesOf(entries).find((p) => p.account === `v:${id}`)?.amount ?? 0;
    return 1_000 + moved;
  };
  const run = (signal: object, atMs: number) => {
    seq += 1;
    const ctx = bareContext(emoteIndex([]), { ledgerView: { ...emptyLedgerView, balance }, gameName: () => "The draw" });
    const outcome = raffleStep(deepFreeze({ settings, durable, transient }), { seq, atMs, id: `s${seq}`, ...signal } as never, ctx);
    ({ durable, transient } = outcome);
    entries.push(...(outcome.booking?.entries ?? []));
    rows.push(...(outcome.kept ?? []));
    return {
      ...outcome,
      codes: outcome.notes.map((n) => n.refusal?.code ?? n.did),
      words: outcome.notes.map(raffleNoteInWords),
      says: (outcome.orders ?? []).flatMap((o) => (o.do === "say" ? [o.text] : [])),
      told: (outcome.orders ?? []).flatMap((o) => (o.do === "emit" ? [o.what] : [])),
    };
  };
  return {
    balance,
    entries,
    rows,
    at: () => durable,
    say: (who: string, text: string, atMs = 1_000, roles: readonly Role[] = []) =>
      run({ kind: "message", viewer: { id: who, name: who, roles }, text, marks: [] }, atMs),
    command: (command: object, atMs = 1_000) => run({ kind: "command", gameId: "mug", by: "kilnkeeper", viewer: null, command }, atMs),
    timer: (atMs: number) => run({ kind: "timer", moduleId: "mug" }, atMs),
    live: () => run({ kind: "live", viewer: null }, 0),
    due: () => raffleDue(settings, durable),
  };
}
const proofIn = (rows: readonly Kept[]): unknown => (rows.at(-1)?.body as { proof: unknown }).proof;

describe("entering", () => {
  test("by the chat word, so many tickets and no more; each is answered in words", () => {
    const e = evening(settingsOf({ most: 5 }));
    expect(e.say("ada", "!in").words).toEqual(["nothing is open to enter"]);
    expect(e.command({ do: "open" }).says[0]).toMatch(
      /^Last week’s mug is open: write !in and how many, up to 5 tickets\. Promised by [0-9a-f]{20}\.$/,
    );
    expect(e.say("ada", "!in").words).toEqual(["ticket 1 of 5"]);
    expect(e.say("ada", "!IN 3").words).toEqual(["ticket 4 of 5"]);
    expect(e.say("ada", "!in 9").words).toEqual(["ticket 5 of 5"]);
    expect(e.say("ada", "!in").words).toEqual(["you hold all 5 tickets"]);
    for (const text of ["!in 0", "!in -1", "!in 5000"]) expect(e.say("bo", text).codes).toEqual(["raffle/how-many"]);
    expect(e.say("bo", "i am in").codes).toEqual([]);
    expect(e.at().round).toMatchObject({ people: 1, tickets: 5 });
  });
  test("what somebody writes after the lock is told how late it was, for a minute", () => {
    const e = evening(settingsOf());
    e.command({ do: "open" });
    e.say("ada", "!in", 5_000);
    // At the very instant of the lock the order of arrival decides.
    expect(e.say("bo", "!in", 6_000).codes).toEqual(["raffle/entered"]);
    e.command({ do: "lock" }, 6_000);
    expect(e.say("cy", "!in", 6_000).codes).toEqual(["raffle/late"]);
    expect(e.say("cy", "!in", 9_000).words).toEqual(["it was locked 3 s before your message"]);
    expect(e.say("cy", "!in", 90_000).words).toEqual(["nothing is open to enter"]);
    expect(e.at().round?.people).toBe(2);
  });
  test("who may not: by role, barred, won lately, not there lately", () => {
    const e = evening(settingsOf({ roles: ["member"], barred: ["troll"], chattedMin: 5, restShows: 2 }));
    e.live();
    e.command({ do: "open" }, 1_000_000);
    expect(e.say("ada", "!in", 1_000_000).codes).toEqual(["raffle/role"]);
    expect(e.say("troll", "!in", 1_000_000, ["member"]).codes).toEqual(["raffle/barred"]);
    expect(e.say("bo", "!in", 1_000_000, ["member"]).words).toEqual(["only who wrote within the last 5 minutes can enter"]);
    expect(e.say("bo", "!in", 1_060_000, ["member"]).codes).toEqual(["raffle/entered"]);
    for (const act of ["lock", "draw", "close", "open"]) e.command({ do: act }, 1_100_000);
    expect(e.say("bo", "!in", 1_101_000, ["member"]).words).toEqual(["you won lately: again in 2 shows"]);
  });
  test("tickets cost points, which are held until the end and go back to who is taken out", () => {
    const e = evening(settingsOf({ price: 300, most: 10 }));
    e.command({ do: "open" });
    expect(e.say("ada", "!in all").words).toEqual(["ticket 3 of 10"]);
    expect(e.balance("ada")).toBe(100);
    expect(e.say("ada", "!in").words).toEqual(["that costs 300 points, and you have 100"]);
    expect(e.command({ do: "remove", viewer: "ada" }).words).toEqual(["ada was taken out; 900 went back"]);
    expect(e.balance("ada")).toBe(1_000);
    // In and out again: nothing is paid twice, and no key stands twice.
    e.say("ada", "!in 2");
    e.command({ do: "remove", viewer: "ada" });
    expect(e.balance("ada")).toBe(1_000);
    expect(new Set(e.entries.map((x) => x.key)).size).toBe(e.entries.length);
  });
  test("names that look like something else are names", () => {
    const e = evening(settingsOf());
    e.command({ do: "open" });
    for (const who of ["__proto__", "constructor", "ａｄａ", "ada"]) expect(e.say(who, "!in").codes).toEqual(["raffle/entered"]);
    expect(e.at().round?.people).toBe(4);
    for (const act of ["lock", "draw", "close"]) e.command({ do: act });
    expect(checkProof(JSON.parse(JSON.stringify(proofIn(e.rows)))).holds).toBe(true);
  });
  test("a list by hand costs nothing, and nobody gets more than they may have", () => {
    const e = evening(settingsOf({ most: 3, price: 50, barred: ["troll"] }));
    e.command({ do: "open" });
    const viewers = [
      { id: "ada", name: "Ada", tickets: 9 },
      { id: "troll", name: "Troll", tickets: 1 },
      { id: "ada", name: "Ada", tickets: 1 },
    ];
    expect(e.command({ do: "add", viewers }).words).toEqual(["1 viewer was added; 2 left out"]);
    expect([e.at().round?.tickets, e.balance("ada")]).toEqual([3, 1_000]);
  });
});

describe("from lock to result", () => {
  test("roles multiply tickets as they are at the lock; the chain shows it, and the proof holds", () => {
    const e = evening(settingsOf({ most: 2, times: [{ role: "member", times: 3 }] }));
    e.command({ do: "open" });
    e.say("ada", "!in 2", 1_000, ["member"]);
    e.say("bo", "!in 2");
    e.command({ do: "lock" });
    expect(e.at().round).toMatchObject({ tickets: 8, people: 2 });
    e.command({ do: "draw" });
    e.command({ do: "close" });
    expect(checkProof(proofIn(e.rows))).toMatchObject({ holds: true });
  });
  test("viewers shake the drum: each once, so many or so long, and the result hangs on it", () => {
    const e = evening(settingsOf({ shake: true, shakers: 2, shakeMs: 10_000 }));
    e.command({ do: "open" });
    e.say("ada", "!in");
    expect(e.command({ do: "lock" }, 2_000).says[0]).toContain("the first 2 of you shake the drum");
    expect(e.command({ do: "draw" }, 2_500).codes).toEqual(["raffle/shaking"]);
    e.say("bo", "left", 3_000);
    expect(e.say("bo", "right", 3_500).codes).toEqual([]);
    e.say("cy", "up", 4_000);
    expect(e.at().round?.phase).toBe("locked");
    e.command({ do: "draw" });
    e.command({ do: "close" });
    const proof = proofIn(e.rows) as { shake: { messages: object[] } };
    expect(proof.shake.messages).toEqual([
      { id: "bo", text: "left" },
      { id: "cy", text: "up" },
    ]);
    expect(checkProof(proof).holds).toBe(true);
    expect(checkProof({ ...proof, shake: { ...proof.shake, messages: [...proof.shake.messages].reverse() } }).holds).toBe(false);
  });
  test("it locks by itself at its time, even if the server was down then", () => {
    const e = evening(settingsOf({ locks: "time", openMs: 60_000 }));
    e.command({ do: "open" }, 1_000);
    e.say("ada", "!in");
    expect(e.due()).toBe(61_000);
    expect(e.timer(999_000).told).toEqual(["raffle/locked"]);
  });
  test("who does not answer in time is passed over and kept; the next is drawn", () => {
    const e = evening(settingsOf({ claimMs: 30_000, winners: 1 }));
    e.command({ do: "open" });
    for (const who of ["ada", "bo", "cy"]) e.say(who, "!in");
    e.command({ do: "lock" }, 2_000);
    e.command({ do: "draw" }, 3_000);
    const first = e.at().round!.winners[0]!.id;
    expect(e.due()).toBe(33_001);
    expect(e.timer(33_001).told).toEqual(["raffle/drawn"]);
    const [passed, second] = e.at().round!.winners;
    expect([passed?.state, second?.state]).toEqual(["passed", "waits"]);
    expect(second?.id).not.toBe(first);
    expect(e.say(second!.id, "me!", 34_000).words).toEqual([`${second!.id} claimed it`]);
    expect(e.command({ do: "draw" }, 35_000).codes).toEqual(["raffle/all-drawn"]);
    e.command({ do: "close" }, 36_000);
    expect((e.rows.at(-1)?.body as { label: string }).label).toBe(second!.id);
    expect(checkProof(proofIn(e.rows)).holds).toBe(true);
  });
  test("more winners, each once, with the prizes in their order", () => {
    const prizes = [
      { id: "a", name: "Tall vase", count: 1, how: "" },
      { id: "b", name: "Mug", count: 2, how: "" },
    ];
    const e = evening(settingsOf({ winners: 3, prizes }));
    e.command({ do: "open" });
    for (const who of ["ada", "bo", "cy"]) e.say(who, "!in");
    e.command({ do: "lock" });
    for (let i = 0; i < 3; i += 1) e.command({ do: "draw" });
    expect(e.at().round?.winners.map((w) => w.prize)).toEqual(["Tall vase", "Mug", "Mug"]);
    expect(new Set(e.at().round?.winners.map((w) => w.id)).size).toBe(3);
    expect(e.command({ do: "draw" }).codes).toEqual(["raffle/all-drawn"]);
  });
  test("nobody in: nothing can be drawn, and it can still be closed", () => {
    const e = evening(settingsOf({ shake: true }));
    e.command({ do: "open" });
    e.command({ do: "lock" });
    expect(e.command({ do: "draw" }).words).toEqual(["nobody is in"]);
    expect(e.command({ do: "close" }).codes).toEqual(["raffle/closed"]);
  });
  test("the nearest number wins, the earlier where two are as near; a changed guess counts from its change", () => {
    const e = evening(settingsOf({ by: "number", number: { from: 1, to: 10 }, tries: 2 }));
    e.command({ do: "open" });
    expect(e.say("ada", "!in").words).toEqual(["say a number from 1 to 10"]);
    expect(e.say("ada", "!in seven").words).toEqual(["that is no number: say one from 1 to 10"]);
    expect(e.say("ada", "!in 11").words).toEqual(["the numbers go from 1 to 10"]);
    for (let n = 1; n <= 10; n += 1) e.say(`v${n}`, `!in ${n}`);
    e.say("late", "!in 3");
    // Named again the same: it keeps its place; another number begins anew.
    e.say("v3", "!in 4");
    expect(e.say("v3", "!in 5").words).toEqual(["you named 4, and that stands"]);
    e.command({ do: "lock" });
    e.command({ do: "draw" });
    const { target, winners } = e.at().round!;
    const exact = target!.number === 3 ? "late" : target!.number === 4 ? "v4" : `v${target!.number}`;
    expect(winners[0]?.id).toBe(exact);
  });
});

describe("points", () => {
  test("closing spends what was held; cancelling gives all of it back, part by part, whatever fails between", () => {
    const e = evening(settingsOf({ price: 100, most: 2 }));
    e.command({ do: "open" });
    const people = Array.from({ length: returnedAtOnce + 20 }, (_, i) => `v${i}`);
    for (const who of people) e.say(who, "!in 2");
    expect(e.at().round?.held).toBe(people.length * 200);
    e.command({ do: "cancel" });
    expect(e.command({ do: "draw" }).codes).toEqual(["raffle/none"]);
    let parts = 0;
    while (e.due() === 0) {
      e.timer(5_000);
      parts += 1;
    }
    expect(parts).toBe(2);
    expect(people.map(e.balance).every((b) => b === 1_000)).toBe(true);
    expect(e.rows.at(-1)).toMatchObject({ kind: "abandoned", body: { why: "cancelled" } });
    expect(e.at().round).toBeNull();
  });
  test("a round that is cleared goes on, empty, and can be entered again", () => {
    const e = evening(settingsOf({ price: 100 }));
    e.command({ do: "open" });
    e.say("ada", "!in");
    e.command({ do: "clear" });
    expect(e.say("bo", "!in").codes).toEqual(["raffle/clearing"]);
    e.timer(2_000);
    expect([e.balance("ada"), e.at().round?.people, e.due()]).toEqual([1_000, 0, null]);
    expect(e.say("ada", "!in").codes).toEqual(["raffle/entered"]);
    e.command({ do: "clear" });
    e.timer(3_000);
    expect(new Set(e.entries.map((x) => x.key)).size).toBe(e.entries.length);
  });
});

const acts = fc.oneof(
  {
    weight: 12,
    arbitrary: fc.tuple(fc.constantFrom("ada", "bo", "cy", "__proto__"), fc.constantFrom("!in", "!in 2", "!in all", "hello", "!in 7")),
  },
  { weight: 3, arbitrary: fc.constantFrom("open", "lock", "draw", "close") },
  { weight: 1, arbitrary: fc.constantFrom("cancel", "clear", "timer", "remove") },
);
test("whatever is done in whatever order: points are never made or lost, what is held is what was paid, rows make the state whole", () =>
  fc.assert(
    fc.property(fc.constantFrom(0, 70), fc.array(acts, { maxLength: 60 }), (price, list) => {
      const e = evening(settingsOf({ price, most: 4, winners: 2 }));
      let roundFrom = 0;
      for (const [i, act] of list.entries()) {
        const atMs = 1_000 + i * 500;
        if (act === "open" && e.at().round === null) roundFrom = e.rows.length;
        if (typeof act !== "string") e.say(act[0], act[1], atMs);
        else if (act === "timer") e.timer(atMs);
        else if (act === "remove") e.command({ do: "remove", viewer: "bo" }, atMs);
        else e.command({ do: act }, atMs);
        const { round, entrants } = e.at();
        const paid = [...entrants.values()].reduce((sum, x) => sum + x.paid, 0);
        expect(round?.held ?? 0).toBe(paid);
        expect(round?.people ?? 0).toBe(entrants.size);
        expect(e.entries.every(isBalanced)).toBe(true);
        expect(changesOf(e.entries).find((p) => p.account === "held")?.amount ?? 0).toBe(round === null ? 0 : paid);
        expect(["ada", "bo", "cy"].every((who) => e.balance(who) >= 0)).toBe(true);
      }
      const stored = JSON.parse(JSON.stringify(raffleRows.stored(e.at()))) as unknown;
      const rows = e.rows.slice(roundFrom).flatMap((r, seq) => (r.kind === "entry" ? [{ ...r, seq }] : []));
      const whole = raffleRows.recall(
        raffleDurableSchema.parse(stored) as RaffleDurable,
        e.at().round === null ? [] : JSON.parse(JSON.stringify(rows)),
      );
      expect(JSON.stringify([...whole.entrants.entries()].sort())).toBe(JSON.stringify([...e.at().entrants.entries()].sort()));
      expect(whole.changes.toArray()).toEqual(e.at().changes.toArray());
    }),
    { numRuns: 150 },
  ));
