import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { checkProof } from "./check";
import { type Proof1 as Proof, proof1Schema as proofSchema } from "./proof-1";
import { proofOf } from "./round";
import {
  commitmentOf,
  drawWinners,
  firstLink,
  type ListChange,
  listHash,
  listOf,
  nextLink,
  secretFrom,
  settingsHash,
  shakeHash,
} from "./scheme";

/** A round as the game would run it. */
function round(changes: readonly ListChange[], { shaken = true, draws = 2, staysIn = false, digits = "5a" } = {}): Proof {
  const secret = secretFrom(digits.repeat(32))!;
  const settings = { title: "Last week’s mug", winners: draws };
  const opening = { round: "mug-7", commitment: commitmentOf(secret), settings: settingsHash(settings) };
  const list = listOf(changes);
  const messages = shaken
    ? [
        { id: "ada", text: "shake!" },
        { id: "quietferry", text: "🔥" },
      ]
    : null;
  const shake = shakeHash(messages);
  const won = drawWinners({ secret, round: opening.round, list: listHash(list), shake }, list, {
    count: staysIn ? draws : Math.min(draws, list.length),
    staysIn,
  });
  return {
    format: "izzam-round-1",
    ...opening,
    settings,
    settingsHash: opening.settings,
    secret: digits.repeat(32),
    lock: { how: "operator", atMs: 9_000 },
    changes: [...changes],
    chain: changes.reduce((link, change) => nextLink(link, change), firstLink(opening)),
    list: [...list],
    listHash: listHash(list),
    shake: messages === null ? null : { messages, hash: shake },
    staysIn,
    draws: won.ok ? [...won.value] : [],
  };
}
const entered = (...ids: string[]): ListChange[] => ids.map((id, i) => ({ seq: i + 1, atMs: i * 100, id, weight: 1 + (i % 3) }));
const five = entered("ada", "quietferry", "tin_lantern", "loamy", "eelgrass");
/** What was written into the file and read again, as anybody would. */
const sent = (proof: Proof): Proof => proofSchema.parse(JSON.parse(JSON.stringify(proof)));
/** It stands alone, for other people's hands. */
const script = (): Promise<{ check: (proof: unknown) => string[] }> => import("../../../scripts/check-round.mjs" as string);

describe("a round can be followed", () => {
  test("step by step, each in plain words; and by the script that stands alone", async () => {
    const proof = sent(round(five));
    const { holds, steps } = checkProof(proof);
    expect(holds).toBe(true);
    expect(steps.map((s) => s.name)).toEqual(["promise", "settings", "chain", "list", "shake", "draws", "missing"]);
    expect(steps.map((s) => s.says).join(" ")).toMatch(/promised before the first entry.* All 5 entries .* exactly those 5 who were in/);
    expect((await script()).check(proof)).toEqual([]);
  });
  test("with nobody in it, with one, not shaken, drawn from again and again", async () => {
    const { check } = await script();
    for (const proof of [round([]), round(entered("ada")), round(five, { shaken: false }), round(five, { staysIn: true, draws: 9 })]) {
      expect(checkProof(sent(proof)).holds).toBe(true);
      expect(check(sent(proof))).toEqual([]);
    }
  });
  test("whatever is entered and removed", async () => {
    const { check } = await script();
    const change = fc.record({ id: fc.constantFrom("ada", "ADA", "__proto__", "🔥", "áda", "z"), weight: fc.nat(4) });
    fc.assert(
      fc.property(fc.array(change, { maxLength: 12 }), fc.boolean(), fc.nat(4), (list, staysIn, draws) => {
        const changes = list.map((c, i) => ({ ...c, seq: i + 1, atMs: i }));
        fc.pre(!staysIn || listOf(changes).length > 0);
        const proof = sent(round(changes, { staysIn, draws }));
        expect(checkProof(proof).steps.filter((s) => !s.holds)).toEqual([]);
        expect(check(proof)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});

describe("whatever is tampered with is found, by both", () => {
  const proof = sent(round(five));
  const other = "0".repeat(64);
  test.each<[string, Partial<Proof>, string]>([
    ["another secret", { secret: "5b".repeat(32) }, "promise"],
    ["another promise", { commitment: other }, "promise"],
    ["another title", { settings: { title: "Another mug", winners: 2 } }, "settings"],
    ["another round", { round: "mug-8" }, "chain"],
    ["an entry slipped in", { changes: [...five, { seq: 6, atMs: 600, id: "friend", weight: 9 }] }, "chain"],
    ["an entry left out", { changes: five.slice(1) }, "chain"],
    ["more tickets for one", { changes: five.map((c, i) => (i === 0 ? { ...c, weight: 99 } : c)) }, "chain"],
    ["two in another order", { changes: [five[1]!, five[0]!, ...five.slice(2)] }, "chain"],
    ["a later time", { changes: five.map((c, i) => (i === 4 ? { ...c, atMs: 401 } : c)) }, "chain"],
    ["another list", { list: proof.list.slice(1) }, "list"],
    ["another hash of the list", { listHash: other }, "list"],
    ["a message changed", { shake: { ...proof.shake!, messages: [{ id: "ada", text: "shake?" }] } }, "shake"],
    ["nobody shook", { shake: null }, "draws"],
    ["an entry after the lock", { lock: { how: "operator", atMs: 300 } }, "chain"],
    ["another winner", { draws: proof.draws.map((d, i) => (i === 0 ? { ...d, id: "friend" } : d)) }, "draws"],
    ["winners the other way round", { draws: [...proof.draws].reverse() }, "draws"],
    ["who won may win again", { staysIn: true }, "draws"],
  ])("%s", async (_, part, step) => {
    const tampered = { ...proof, ...part };
    const { holds, steps } = checkProof(tampered);
    expect([holds, steps.filter((s) => !s.holds).map((s) => s.name)]).toEqual([false, expect.arrayContaining([step])]);
    expect((await script()).check(tampered)).not.toEqual([]);
  });
  test("a whole chain made anew around another entry needs another promise, which was public", () => {
    const forged = round(entered("friend", "ada"));
    expect(checkProof(forged).holds).toBe(true);
    expect(forged.chain).not.toBe(proof.chain);
    expect(checkProof({ ...forged, chain: proof.chain }).holds).toBe(false);
  });
  test("what is no proof is said to be none, and never thrown", () => {
    for (const odd of [null, 3, "x", [], {}, { format: "izzam-round-1" }, { ...proof, secret: "x" }, { ...proof, draws: [{}] }])
      expect(checkProof(odd)).toMatchObject({ holds: false });
    fc.assert(fc.property(fc.jsonValue(), (settings) => void checkProof({ ...proof, settings })));
  });
});

test("a round that was opened before records ends with a proof of this format, as it was announced", async () => {
  const before = round(five, { draws: 1 });
  const { round: name, commitment, settingsHash: hash, chain, settings, secret, lock, changes, shake, draws } = before;
  const promise = { round: name, commitment, settingsHash: hash, chain };
  const proof = proofOf({ promise, openedMs: 0, settings, secret, changes, record: null, lock, shake, draws });
  expect(proof).toEqual(before);
  expect((await script()).check(sent(proof as Proof))).toEqual([]);
});
