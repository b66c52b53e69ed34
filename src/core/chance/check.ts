import { count } from "../words/sentence";
import { type Proof2, proofSchema } from "./proof";
import { steps1 } from "./check-1";
import { areNearest, drawsWords, haveHash, isDrawn, listWords, otherResult, promiseWords, sameList, settingsWords } from "./check-parts";
import type { CheckStep } from "./proof-parts";
import { chanceIn, type ChanceRules, type Happening, nextHappening, openingLink } from "./record";
import {
  canonical,
  commitmentOf,
  type drawTicket,
  drawWinners,
  type Guess,
  guessesOf,
  listHash,
  listOf,
  nextLink,
  secretFrom,
  shakeHash,
  type Ticket,
} from "./scheme";

export type Checked = Readonly<{ holds: boolean; steps: readonly CheckStep[] }>;
/** Fewer digits of a hash could be met by chance. */
export const leastSeen = 12;

/**
 * Follows a round step by step and says where it goes wrong. `seen` are hashes that were public while the round ran,
 * whole or their first digits: each must be one of this round's. Never throws.
 */
export function checkProof(given: unknown, seen: readonly string[] = []): Checked {
  const read = proofSchema.safeParse(given);
  if (!read.success) {
    const says = `This is no proof of a round: ${read.error.issues[0]?.path.join(".") || "all of it"} is not as described.`;
    return { holds: false, steps: [{ name: "promise", holds: false, reason: "shape", says }] };
  }
  const proof = read.data;
  const steps = proof.format === "izzam-round-2" ? steps2(proof) : steps1(proof);
  const links = proof.format === "izzam-round-2" ? linksOf(proof) : [proof.chain];
  const own = [proof.commitment, proof.settingsHash, proof.listHash, ...links];
  const foreign = seen.filter((s) => s.length < leastSeen || !own.some((h) => h.startsWith(s.toLowerCase())));
  const all = [...steps, ...(seen.length === 0 ? [] : [seenStep(seen.length, foreign)])];
  return { holds: all.every((s) => s.holds), steps: all };
}
const seenStep = (all: number, foreign: readonly string[]): CheckStep => ({
  name: "seen",
  holds: foreign.length === 0,
  reason: foreign.length === 0 ? "" : "seen",
  says:
    foreign.length === 0
      ? all === 1
        ? "The hash that was seen while the round ran is in it."
        : `All ${count(all)} hashes that were seen while the round ran are in it.`
      : `A hash that was seen while the round ran is not in it: ${foreign[0]?.slice(0, 20)}…`,
});

/** Every link of the chain, from the opening to the last. */
function linksOf(proof: Proof2): readonly string[] {
  const { round, commitment, settingsHash: settings, openedMs } = proof;
  const links = [openingLink({ round, commitment, settings, atMs: openedMs })];
  let link = links[0] as string;
  for (const change of proof.changes) links.push((link = nextLink(link, change)));
  for (const happening of proof.record) links.push((link = nextHappening(link, happening)));
  return links;
}

type Of<K extends Happening["kind"]> = Extract<Happening, { kind: K }>;
const isA =
  <K extends Happening["kind"]>(kind: K) =>
  (h: Happening): h is Of<K> =>
    h.kind === kind;

function steps2(proof: Proof2): readonly CheckStep[] {
  const steps: CheckStep[] = [];
  const look = (name: CheckStep["name"], fault: Fault, good: string): void =>
    void steps.push({ name, holds: fault === null, reason: fault?.[0] ?? "", says: fault?.[1] ?? good });
  const secret = secretFrom(proof.secret);
  look("promise", secret !== null && commitmentOf(secret) === proof.commitment ? null : ["promise", promiseWords[1]], promiseWords[0]);
  const chance = chanceIn(proof.settings);
  look(
    "settings",
    !haveHash(proof.settings, proof.settingsHash)
      ? ["settings", settingsWords[1]]
      : chance !== null
        ? null
        : ["chance", "The settings do not say how the draw is made."],
    settingsWords[0],
  );
  if (chance === null) return steps;
  const people = proof.changes.length;
  look(
    "chain",
    outOfOrder(proof, chance) ??
      (linksOf(proof).at(-1) === proof.chain
        ? null
        : ["chain", "Something was added, changed or left out after it was made public: the chain ends with another link."]),
    `All ${count(people)} entries and removals are there, in their order, and so is everything that happened after them.`,
  );
  const list = chance.number === null ? listOf(proof.changes) : guessesOf(proof.changes);
  look("lock", lockFault(proof, chance), "The list was locked once, after the last entry and by its rule.");
  look(
    "list",
    sameList(list, proof.list) && listHash(list) === proof.listHash ? null : ["list", listWords],
    `The list that was drawn from holds exactly those ${count(list.length)} who were in when it was locked.`,
  );
  const shakes = proof.record.filter(isA("shake"));
  const shaken = proof.record.find(isA("shaken"));
  if (chance.shake !== null || shakes.length > 0 || shaken !== undefined)
    look(
      "shake",
      shakeFault(proof, chance, list.length),
      shaken === undefined
        ? "Nobody was in, so the drum was not shaken."
        : `${count(shakes.length)} viewers shook the drum after the list was locked. No more were allowed, and none came too late.`,
    );
  look(
    "draws",
    drawsAllowed(proof, chance) ??
      (secret === null ? ["draws", otherResult] : drawsFault(proof, chance, list, secret, shaken?.shake ?? "")),
    drawsWords(proof),
  );
  return steps;
}
/** A reason, as docs/chance.md lists it, and its words; null where all is well. */
type Fault = readonly [string, string] | null;

function outOfOrder({ changes, record, openedMs }: Proof2, { number }: ChanceRules): Fault {
  let before = openedMs;
  for (const [i, c] of changes.entries()) {
    if (c.seq !== i + 1 || c.atMs < before) return ["order", `Entry ${count(i + 1)} is out of its order.`];
    if ((c.guess !== undefined) !== (number !== null && c.weight > 0))
      return ["guess", `Entry ${count(i + 1)} names no number, or one too many.`];
    if (number !== null && c.guess !== undefined && (c.guess < number.from || c.guess > number.to || c.weight !== 1))
      return ["guess", `Entry ${count(i + 1)} names a number outside the range.`];
    before = c.atMs;
  }
  for (const h of record) {
    if (h.atMs < before) return h.kind === "lock" ? ["lock", lockWords] : ["order", "The record is out of its order."];
    before = h.atMs;
  }
  return null;
}
const lockWords = "The list was not locked once, after the last entry and by its rule.";

function lockFault({ record, openedMs, listHash: list }: Proof2, { lockAfterMs }: ChanceRules): Fault {
  const [lock, ...rest] = record;
  if (lock?.kind !== "lock" || rest.some(isA("lock")) || lock.list !== list) return ["lock", lockWords];
  if (lock.by === "time" && (lockAfterMs === null || lock.atMs < openedMs + lockAfterMs)) return ["lock", lockWords];
  return null;
}

function shakeFault({ record }: Proof2, { shake }: ChanceRules, people: number): Fault {
  const no = (says: string): Fault => ["shake", says];
  const lock = record.find(isA("lock"));
  const shakes = record.filter(isA("shake"));
  const ends = record.filter(isA("shaken"));
  if (shake === null) return no("The drum was shaken, and nobody had announced it.");
  if (people === 0) return shakes.length + ends.length === 0 ? null : no("The drum was shaken, and nobody was in it.");
  const [end] = ends;
  if (ends.length !== 1 || end === undefined || lock === undefined) return no("Nothing says when the shaking ended.");
  // First the lock, then the messages, then their end.
  if (record.slice(1, 1 + shakes.length).some((h) => h.kind !== "shake") || record[1 + shakes.length] !== end)
    return no("A message shook the drum before the lock or after the end.");
  if (shakes.length > shake.most) return no("More viewers shook the drum than were allowed.");
  if (new Set(shakes.map((s) => s.id)).size !== shakes.length) return no("A viewer shook the drum twice.");
  if (shakes.some((s) => s.atMs > lock.atMs + shake.withinMs)) return no("A message shook the drum too late.");
  if (shakes.length < shake.most && end.atMs < lock.atMs + shake.withinMs) return no("The shaking ended too early.");
  if (shakes.length === shake.most && end.atMs !== shakes.at(-1)?.atMs) return no("The shaking did not end with its last message.");
  return shakeHash(shakes) === end.shake ? null : no("What viewers wrote to shake the drum was changed.");
}

/** Draws come after the shaking, one after another, and never more than may stand. */
function drawsAllowed({ record, draws }: Proof2, { winners, shake }: ChanceRules): Fault {
  const no = (says: string): Fault => ["record", says];
  let [drawn, more] = [0, 0];
  const passed = new Set<number>();
  let shaking = shake !== null;
  for (const h of record) {
    if (h.kind === "shaken") shaking = false;
    if (h.kind === "more") more += 1;
    if (h.kind === "pass") {
      if (h.index >= drawn || passed.has(h.index)) return no("A winner was passed over who was not drawn, or twice.");
      passed.add(h.index);
    }
    if (h.kind === "draw") {
      if (shaking) return no("A winner was drawn before the drum was shaken.");
      if (h.index !== drawn) return no("The draws are out of their order.");
      if (drawn - passed.size >= winners + more) return no("More winners were drawn than were announced.");
      drawn += 1;
    }
  }
  return drawn === draws.length ? null : no("There are more results than draws, or fewer.");
}

function drawsFault(proof: Proof2, chance: ChanceRules, list: readonly (Ticket | Guess)[], secret: Uint8Array, shake: string): Fault {
  const key = { secret, round: proof.round, list: proof.listHash, shake };
  if (chance.number !== null) return numberFault(proof, chance.number, key);
  if (proof.number !== undefined) return ["number", "A number was drawn, and nobody had announced it."];
  const done = drawWinners(key, list, { count: proof.draws.length, staysIn: chance.staysIn });
  return done.ok && canonical(done.value) === canonical(proof.draws) ? null : ["draws", otherResult];
}
function numberFault(
  { changes, draws, number }: Proof2,
  range: NonNullable<ChanceRules["number"]>,
  key: Parameters<typeof drawTicket>[0],
): Fault {
  if (number === undefined) return draws.length === 0 ? null : ["number", "The number that was drawn is missing."];
  if (!isDrawn(range, number, key)) return ["number", "The secret leads to another number than the published one."];
  return areNearest(draws, changes, range, number) ? null : ["draws", otherResult];
}
