import { z } from "zod";
import { count } from "../words/sentence";
import {
  byNearness,
  canonical,
  commitmentOf,
  drawTicket,
  drawWinners,
  firstLink,
  type Guess,
  guessesOf,
  listHash,
  type ListChange,
  listOf,
  nextLink,
  secretFrom,
  settingsHash,
  shakeHash,
  type Ticket,
} from "./scheme";

/** All that is needed to follow a round from its promise to its result: one JSON file, for anybody's program. */
export const proofFormat = "izzam-round-1";
const hash = z.string().regex(/^[0-9a-f]{64}$/);
const id = z.string().min(1).max(80);
const weight = z.int().min(0).max(1_000_000_000);
export const proofSchema = z.object({
  format: z.literal(proofFormat),
  round: z.string().min(1).max(60),
  /** What the round was to be, as it was promised; anything that JSON can hold. */
  settings: z.unknown(),
  settingsHash: hash,
  commitment: hash,
  secret: hash,
  lock: z.object({ how: z.enum(["time", "operator"]), atMs: z.int() }),
  changes: z.array(z.object({ seq: z.int(), atMs: z.int(), id, weight, guess: z.int().optional() })),
  /** The newest value of the chain when it was closed. */
  chain: hash,
  list: z.array(z.union([z.object({ id, weight, guess: z.int(), at: z.int() }), z.object({ id, weight })])),
  listHash: hash,
  shake: z.object({ messages: z.array(z.object({ id, text: z.string().max(600) })), hash }).nullable(),
  /** Where numbers were named: between which, and the one that was drawn; `settings.number` says the same. Draws are then who was nearest. */
  number: z.object({ from: z.int(), to: z.int(), target: z.int(), attempts: z.int().min(0) }).optional(),
  /** Whether who was drawn could be drawn again. */
  staysIn: z.boolean(),
  draws: z.array(z.object({ index: z.int().min(0), id, weight, total: z.int().min(1), ticket: z.int().min(0), attempts: z.int().min(0) })),
});
export type Proof = z.infer<typeof proofSchema>;

/** The shape of a proof for other programs. */
export const proofJsonSchema = (): unknown => z.toJSONSchema(proofSchema);

/** One thing that is looked at: whether it holds, and in words for who looks. */
export type CheckStep = Readonly<{ name: "promise" | "settings" | "chain" | "list" | "shake" | "draws"; holds: boolean; says: string }>;

/** Follows a round step by step; what does not hold says where it goes wrong. Never throws. */
export function checkProof(given: unknown): Readonly<{ holds: boolean; steps: readonly CheckStep[] }> {
  const read = proofSchema.safeParse(given);
  if (!read.success) {
    const says = `This is no proof of a round: ${read.error.issues[0]?.path.join(".") || "all of it"} is not as described.`;
    return { holds: false, steps: [{ name: "promise", holds: false, says }] };
  }
  const steps = stepsOf(read.data);
  return { holds: steps.every((s) => s.holds), steps };
}

function stepsOf(proof: Proof): readonly CheckStep[] {
  const steps: CheckStep[] = [];
  const look = (name: CheckStep["name"], holds: boolean, good: string, bad: string): void =>
    void steps.push({ name, holds, says: holds ? good : bad });
  const secret = secretFrom(proof.secret);
  look(
    "promise",
    secret !== null && commitmentOf(secret) === proof.commitment,
    "The secret is the one that was promised before the first entry.",
    "The secret is not the one that was promised: its hash is another.",
  );
  look(
    "settings",
    hashes(() => settingsHash(proof.settings)) === proof.settingsHash,
    "The round was run as it was announced.",
    "The round’s settings are not the ones that were announced.",
  );
  const broken = orderIn(proof.changes);
  const chain = proof.changes.reduce(
    (link, change) => nextLink(link, change),
    firstLink({ round: proof.round, commitment: proof.commitment, settings: proof.settingsHash }),
  );
  look(
    "chain",
    broken === null && chain === proof.chain,
    `All ${count(proof.changes.length)} entries and removals are there, in their order, and none came in later.`,
    broken ?? "An entry or a removal was added, changed or left out after it was made public.",
  );
  const list = proof.number === undefined ? listOf(proof.changes) : guessesOf(proof.changes);
  look(
    "list",
    sameList(list, proof.list) && listHash(list) === proof.listHash,
    `The list that was drawn from holds exactly those ${count(list.length)} who were in when it was closed.`,
    "The list that was drawn from is not the one that the entries lead to.",
  );
  if (proof.shake !== null)
    look(
      "shake",
      new Set(proof.shake.messages.map((m) => m.id)).size === proof.shake.messages.length &&
        shakeHash(proof.shake.messages) === proof.shake.hash,
      `${count(proof.shake.messages.length)} viewers shook the drum with what they wrote after the list was closed.`,
      "What viewers wrote to shake the drum was changed.",
    );
  look(
    "draws",
    secret !== null && drawsHold(proof, secret),
    drawsWords(proof),
    "The secret and the list lead to another result than the one that was told.",
  );
  return steps;
}

const sameList = (a: readonly (Ticket | Guess)[], b: readonly (Ticket | Guess)[]): boolean =>
  a.length === b.length && a.every((t, i) => t.id === b[i]?.id && t.weight === b[i]?.weight && guessIn(t) === guessIn(b[i]));
const guessIn = (t: Ticket | Guess | undefined): string => (t !== undefined && "guess" in t ? `${t.guess} ${t.at}` : "");

/** Numbers and times never go back: what came later is not put before. */
function orderIn(changes: readonly ListChange[]): string | null {
  const at = changes.findIndex((c, i) => i > 0 && (c.seq <= (changes[i - 1]?.seq ?? 0) || c.atMs < (changes[i - 1]?.atMs ?? 0)));
  return at < 0 ? null : `Entry ${count(at + 1)} is out of its order.`;
}

function drawsHold(proof: Proof, secret: Uint8Array): boolean {
  const key = { secret, round: proof.round, list: proof.listHash, shake: proof.shake?.hash ?? "" };
  if (proof.number !== undefined) return numberHolds(proof, proof.number, key);
  const done = drawWinners(key, proof.list, { count: proof.draws.length, staysIn: proof.staysIn });
  return done.ok && canonical(done.value) === canonical(proof.draws);
}
/** The number follows from the secret and the range that was announced; then whoever is nearest wins, the earlier of two. */
function numberHolds(
  { settings, changes, draws }: Proof,
  number: NonNullable<Proof["number"]>,
  key: Parameters<typeof drawTicket>[0],
): boolean {
  const { from, to, target, attempts } = number;
  const announced = z.object({ number: z.object({ from: z.int(), to: z.int() }) }).safeParse(settings);
  if (!announced.success || announced.data.number.from !== from || announced.data.number.to !== to) return false;
  const total = to - from + 1;
  const drawn = drawTicket(key, 0, total);
  if (!drawn.ok || from + drawn.value.ticket !== target || drawn.value.attempts !== attempts) return false;
  const order = byNearness(guessesOf(changes), target);
  return draws.every(
    (d, i) => canonical(d) === canonical({ index: i, id: order[i]?.id ?? "", weight: 1, total, ticket: target - from, attempts }),
  );
}
const drawsWords = ({ draws, number }: Proof): string =>
  draws.length === 0
    ? "Nobody was drawn."
    : number !== undefined
      ? `Secret and list lead to exactly the number ${count(number.target)}, and whoever named the nearest won.`
      : `Secret and list lead to exactly ${draws.length === 1 ? "this result" : `these ${count(draws.length)} results`}.`;

/** Null for what can't be hashed: settings that are no JSON. */
function hashes(make: () => string): string | null {
  try {
    return make();
  } catch {
    return null;
  }
}
