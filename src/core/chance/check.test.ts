import { readFileSync, writeFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { linksIn, ranRound } from "../../testing/rounds";
import { bad, good, vectors } from "../../testing/tampering";
import { checkProof } from "./check";
import { listOf } from "./scheme";

type Script = (proof: unknown, seen?: readonly string[]) => string[];
/** It stands alone, for other people's hands. */
const script = async (): Promise<Script> => ((await import("../../../scripts/check-round.mjs" as string)) as { check: Script }).check;
/** What was written into a file and read again, as anybody would. */
const sent = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
/** The reasons that each of the two checkers gives. */
async function reasons(proof: unknown, seen: readonly string[] = []): Promise<readonly [string[], string[]]> {
  const { holds, steps } = checkProof(sent(proof), seen);
  const ours = steps.filter((s) => !s.holds).map((s) => s.reason);
  expect(holds).toBe(ours.length === 0);
  return [ours, (await script())(sent(proof), seen).map((f) => f.split(":")[0] ?? "")];
}

describe("both checkers", () => {
  test.each(good)("follow %s to its end, with every link that was public", async (_, proof) => {
    expect(await reasons(proof)).toEqual([[], []]);
    expect(await reasons(proof, [...linksIn(proof), proof.commitment.slice(0, 20), proof.listHash])).toEqual([[], []]);
  });
  test.each(bad.map((b) => [b.name, b] as const))("refuse %s, with its reason", async (_, { proof, reason, seen }) => {
    const [ours, theirs] = await reasons(proof, seen);
    expect([ours, theirs]).toEqual([expect.arrayContaining([reason]), expect.arrayContaining([reason])]);
    // What only a hash that somebody saw tells apart would hold without it.
    if (reason === "seen") expect(await reasons(proof)).toEqual([[], []]);
  });
  test("refuse more than forty kinds of tampering, each of another name", () => {
    expect(bad.length).toBeGreaterThanOrEqual(40);
    expect(new Set(bad.map((b) => `${b.of}: ${b.name}`)).size).toBe(bad.length);
  });
  test("agree on whatever one number or text of a proof is changed to", async () => {
    const check = await script();
    const all = good.map(([, proof]) => sent(proof) as unknown as Record<string, unknown>);
    const places = (value: unknown, path: readonly (string | number)[] = []): (readonly (string | number)[])[] =>
      typeof value === "object" && value !== null
        ? Object.entries(value).flatMap(([k, v]) => places(v, [...path, Array.isArray(value) ? Number(k) : k]))
        : [path];
    const changed = (value: unknown, [key, ...rest]: readonly (string | number)[], to: unknown): unknown => {
      if (key === undefined) return to;
      const copy: Record<string | number, unknown> = Array.isArray(value) ? ([...(value as unknown[])] as never) : { ...(value as object) };
      copy[key] = changed(copy[key], rest, to);
      return copy;
    };
    fc.assert(
      fc.property(fc.nat(all.length - 1), fc.nat(), fc.oneof(fc.integer(), fc.string(), fc.constant(null), fc.boolean()), (n, at, to) => {
        const paths = places(all[n]);
        const path = paths[at % paths.length] ?? [];
        const before = path.reduce<unknown>((v, k) => (v as Record<string | number, unknown>)[k], all[n]);
        fc.pre(!Object.is(before, to));
        const tampered = sent(changed(all[n], path, to));
        expect([path.join("."), checkProof(tampered).holds, check(tampered).length === 0]).toEqual([path.join("."), false, false]);
      }),
      { numRuns: 400 },
    );
  });
  test("follow whatever is entered and removed, drawn, passed over and asked for", async () => {
    const check = await script();
    const change = fc.record({ id: fc.constantFrom("ada", "ADA", "__proto__", "🔥", "áda", "z"), weight: fc.nat(4) });
    fc.assert(
      fc.property(fc.array(change, { maxLength: 12 }), fc.boolean(), fc.integer({ min: 1, max: 4 }), (list, staysIn, winners) => {
        const changes = list.map((c, i) => ({ ...c, seq: i + 1, atMs: 100 + i }));
        fc.pre(!staysIn || listOf(changes).length > 0);
        const proof = sent(ranRound(changes, { chance: { staysIn, winners, shake: { who: "anyone", most: 2, withinMs: 500 } } }));
        expect(checkProof(proof).steps.filter((s) => !s.holds)).toEqual([]);
        expect(check(proof)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
  test("follow numbers that are named: changed, named again, removed, come back", async () => {
    const check = await script();
    const change = fc.record({
      id: fc.constantFrom("ada", "bo", "__proto__", "cy"),
      weight: fc.nat(1),
      guess: fc.integer({ min: -3, max: 6 }),
    });
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 12 }), (list) => {
        const changes = list.map(({ id, weight, guess }, i) => ({
          id,
          weight,
          seq: i + 1,
          atMs: 100 + i,
          ...(weight === 0 ? {} : { guess }),
        }));
        const many = Math.min(2, new Set(list.map((c) => c.id)).size);
        const standing = [...new Map(changes.map((c) => [c.id, c.weight])).values()].filter((w) => w > 0).length;
        const after = Array.from({ length: Math.min(many, standing) }, () => "draw" as const);
        const proof = sent(ranRound(changes, { chance: { winners: 2, number: { from: -3, to: 6 } }, after }));
        expect(checkProof(proof).steps.filter((s) => !s.holds)).toEqual([]);
        expect(check(proof)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});

test("what is no proof is said to be none, and never thrown", async () => {
  const check = await script();
  const [, proof] = good[1]!;
  for (const odd of [null, 3, "x", [], {}, { format: "izzam-round-2" }, { ...proof, secret: "x" }, { ...proof, draws: [{}] }]) {
    expect(checkProof(odd)).toMatchObject({ holds: false, steps: [{ reason: "shape" }] });
    expect(check(odd)).toEqual([expect.stringMatching(/^shape/)]);
  }
  fc.assert(fc.property(fc.jsonValue(), (settings) => void [checkProof({ ...proof, settings }), check({ ...proof, settings })]));
});

test("the published vectors are these: write them with IZZAM_WRITE=1", () => {
  const path = "docs/chance-vectors.json";
  const now = `${JSON.stringify(vectors(), null, 1)}\n`;
  if (process.env["IZZAM_WRITE"] === "1") writeFileSync(path, now);
  expect(JSON.parse(readFileSync(path, "utf8"))).toEqual(JSON.parse(now));
});
