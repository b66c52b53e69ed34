import { z } from "zod";
import { count } from "../words/sentence";
import { changeSchema, type CheckStep, drawSchema, hashSchema as hash, idSchema as id, listSchema } from "./proof-parts";
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

/**
 * The first format of a proof. No new round has it; old rounds stay checkable. Its chain ends with the last entry, so
 * nothing shows when the list was locked, which messages shook it, or how many draws were allowed.
 */
export const proof1Format = "izzam-round-1";
export const proof1Schema = z.object({
  format: z.literal(proof1Format),
  round: z.string().min(1).max(60),
  /** What the round was to be, as it was promised; anything that JSON can hold. */
  settings: z.unknown(),
  settingsHash: hash,
  commitment: hash,
  secret: hash,
  lock: z.object({ how: z.enum(["time", "operator"]), atMs: z.int() }),
  changes: z.array(changeSchema),
  /** The newest value of the chain when it was closed. */
  chain: hash,
  list: listSchema,
  listHash: hash,
  shake: z.object({ messages: z.array(z.object({ id, text: z.string().max(600) })), hash }).nullable(),
  /** Where numbers were named: between which, and the one that was drawn; `settings.number` says the same. Draws are then who was nearest. */
  number: z.object({ from: z.int(), to: z.int(), target: z.int(), attempts: z.int().min(0) }).optional(),
  /** Whether who was drawn could be drawn again. */
  staysIn: z.boolean(),
  draws: z.array(drawSchema),
});
export type Proof1 = z.infer<typeof proof1Schema>;

/** Every step that this format allows. */
export function steps1(proof: Proof1): readonly CheckStep[] {
  const steps: CheckStep[] = [];
  const look = (name: CheckStep["name"], holds: boolean, good: string, bad: string): void =>
    void steps.push({ name, holds, reason: holds ? "" : name, says: holds ? good : bad });
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
  const late = proof.changes.some((c) => c.atMs > proof.lock.atMs);
  look(
    "chain",
    broken === null && !late && chain === proof.chain,
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
  const announced = announcedIn(proof.settings);
  const wrongly = announced.shake !== undefined && list.length > 0 && announced.shake !== (proof.shake !== null);
  if (proof.shake !== null || wrongly)
    look(
      "shake",
      !wrongly &&
        proof.shake !== null &&
        proof.shake.messages.length <= (announced.shakers ?? Infinity) &&
        new Set(proof.shake.messages.map((m) => m.id)).size === proof.shake.messages.length &&
        shakeHash(proof.shake.messages) === proof.shake.hash,
      `${count(proof.shake?.messages.length ?? 0)} viewers shook the drum with what they wrote after the list was closed.`,
      "What viewers wrote to shake the drum was changed.",
    );
  look(
    "draws",
    secret !== null && drawsHold(proof, secret),
    drawsWords(proof),
    "The secret and the list lead to another result than the one that was told.",
  );
  const missing = "This proof has the first format. It can’t show when each message shook the drum or how many draws were allowed.";
  steps.push({ name: "missing", holds: true, reason: "", says: missing });
  return steps;
}

const sameList = (a: readonly (Ticket | Guess)[], b: readonly (Ticket | Guess)[]): boolean =>
  a.length === b.length && a.every((t, i) => t.id === b[i]?.id && t.weight === b[i]?.weight && guessIn(t) === guessIn(b[i]));
const guessIn = (t: Ticket | Guess | undefined): string => (t !== undefined && "guess" in t ? `${t.guess} ${t.at}` : "");

/** What old rounds announced of their shaking, where they had any. */
const announcedSchema = z.object({ shake: z.boolean().optional(), shakers: z.int().optional() });
const announcedIn = (settings: unknown): z.infer<typeof announcedSchema> => announcedSchema.safeParse(settings).data ?? {};

/** Numbers and times never go back: what came later is not put before. */
function orderIn(changes: readonly ListChange[]): string | null {
  const at = changes.findIndex((c, i) => i > 0 && (c.seq <= (changes[i - 1]?.seq ?? 0) || c.atMs < (changes[i - 1]?.atMs ?? 0)));
  return at < 0 ? null : `Entry ${count(at + 1)} is out of its order.`;
}

function drawsHold(proof: Proof1, secret: Uint8Array): boolean {
  const key = { secret, round: proof.round, list: proof.listHash, shake: proof.shake?.hash ?? "" };
  if (proof.number !== undefined) return numberHolds(proof, proof.number, key);
  const done = drawWinners(key, proof.list, { count: proof.draws.length, staysIn: proof.staysIn });
  return done.ok && canonical(done.value) === canonical(proof.draws);
}
/** The number follows from the secret and the range that was announced; then whoever is nearest wins, the earlier of two. */
function numberHolds(
  { settings, changes, draws }: Proof1,
  number: NonNullable<Proof1["number"]>,
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
const drawsWords = ({ draws, number }: Proof1): string =>
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
