import { z } from "zod";
import { count } from "../words/sentence";
import { areNearest, drawsWords, haveHash, isDrawn, listWords, otherResult, promiseWords, sameList, settingsWords } from "./check-parts";
import type { Proof1 } from "./proof-1";
import type { CheckStep } from "./proof-parts";
import {
  canonical,
  commitmentOf,
  type drawTicket,
  drawWinners,
  firstLink,
  guessesOf,
  listHash,
  type ListChange,
  listOf,
  nextLink,
  secretFrom,
  shakeHash,
} from "./scheme";

/** Every step that this format allows. */
export function steps1(proof: Proof1): readonly CheckStep[] {
  const steps: CheckStep[] = [];
  const look = (name: CheckStep["name"], holds: boolean, good: string, bad: string): void =>
    void steps.push({ name, holds, reason: holds ? "" : name, says: holds ? good : bad });
  const secret = secretFrom(proof.secret);
  look("promise", secret !== null && commitmentOf(secret) === proof.commitment, ...promiseWords);
  look("settings", haveHash(proof.settings, proof.settingsHash), ...settingsWords);
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
    listWords,
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
  look("draws", secret !== null && drawsHold(proof, secret), drawsWords(proof), otherResult);
  const missing = "This proof has the first format. It can’t show when each message shook the drum or how many draws were allowed.";
  steps.push({ name: "missing", holds: true, reason: "", says: missing });
  return steps;
}

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
  const { from, to } = number;
  const announced = z.object({ number: z.object({ from: z.int(), to: z.int() }) }).safeParse(settings);
  if (!announced.success || announced.data.number.from !== from || announced.data.number.to !== to) return false;
  return isDrawn(number, number, key) && areNearest(draws, changes, number, number);
}
