import { bytesToHex } from "@noble/hashes/utils.js";
import type { Proof2 } from "../core/chance/proof";
import { type ChanceRules, type Happening, nextHappening, openingLink } from "../core/chance/record";
import { promiseRound, proofOf, recorded, type RoundPromise } from "../core/chance/round";
import {
  byNearness,
  drawTicket,
  drawWinners,
  guessesOf,
  type ListChange,
  listHash,
  listOf,
  nextLink,
  type Shake,
  shakeHash,
} from "../core/chance/scheme";
import { openVault } from "../core/chance/vault";

export const chanceOf = (part: Partial<ChanceRules> = {}): ChanceRules => ({
  winners: 1,
  staysIn: false,
  shake: null,
  number: null,
  lockAfterMs: null,
  ...part,
});
export const entered = (...ids: string[]): ListChange[] =>
  ids.map((id, i) => ({ seq: i + 1, atMs: 100 + i * 100, id, weight: 1 + (i % 3) }));
type Asked = Readonly<{
  chance?: Partial<ChanceRules>;
  shakes?: readonly Shake[];
  /** What happens after the shaking; as many draws as there may be winners where it is left out. */
  after?: readonly ("draw" | "more" | Readonly<{ pass: number }>)[];
  settings?: object;
  by?: "time" | "operator";
  lockMs?: number;
}>;

/** A round as a game runs it: promised at 60 ms, locked after the last change, shaken, drawn. */
export function ranRound(changes: readonly ListChange[], asked: Asked = {}): Proof2 {
  const vault = openVault("rounds");
  const chance = chanceOf(asked.chance);
  const settings = { title: "Last week’s mug", ...asked.settings, chance };
  const promise = promiseRound(vault, settings, { game: "plate", n: 3, atMs: 60, rehearsing: false });
  const secret = vault.open(promise.round, promise.sealed) as Uint8Array;
  const list = chance.number === null ? listOf(changes) : guessesOf(changes);
  const hash = listHash(list);
  let atMs = asked.lockMs ?? Math.max(1_000, ...changes.map((c) => c.atMs));
  const chain = changes.reduce((link, change) => nextLink(link, change), promise.chain);
  type Open = RoundPromise & Readonly<{ record: readonly Happening[] | null }>;
  let round: Open = recorded({ ...promise, chain, record: [] }, { kind: "lock", atMs, by: asked.by ?? "operator", list: hash });
  let shake = "";
  if (chance.shake !== null && list.length > 0) {
    const { most, withinMs } = chance.shake;
    const messages = (asked.shakes ?? []).slice(0, most);
    const untilMs = atMs + withinMs;
    for (const message of messages) round = recorded(round, { kind: "shake", atMs: (atMs += 10), ...message });
    if (messages.length < most) atMs = untilMs;
    shake = shakeHash(messages);
    round = recorded(round, { kind: "shaken", atMs, shake });
  }
  let drawn = 0;
  for (const what of asked.after ??
    Array.from({ length: Math.min(chance.winners, chance.staysIn ? Infinity : list.length) }, () => "draw" as const)) {
    atMs += 1_000;
    if (what === "draw") round = recorded(round, { kind: "draw", atMs, index: drawn++ });
    else round = recorded(round, what === "more" ? { kind: "more", atMs } : { kind: "pass", atMs, index: what.pass });
  }
  const key = { secret, round: promise.round, list: hash, shake };
  const won = drawWinners(key, list, { count: drawn, staysIn: chance.staysIn });
  return proofOf({
    promise: round,
    openedMs: 60,
    settings,
    secret: bytesToHex(secret),
    changes,
    record: round.record,
    lock: { how: "operator", atMs: 0 },
    ...(chance.number === null ? { draws: won.ok ? won.value : [] } : nearest(chance.number, changes, key, drawn)),
  }) as Proof2;
}
function nearest(
  { from, to }: Readonly<{ from: number; to: number }>,
  changes: readonly ListChange[],
  key: Parameters<typeof drawTicket>[0],
  many: number,
) {
  const total = to - from + 1;
  const drawn = drawTicket(key, 0, total);
  const { ticket, attempts } = drawn.ok ? drawn.value : { ticket: 0, attempts: 0 };
  const order = byNearness(guessesOf(changes), from + ticket).slice(0, many);
  return {
    number: { from, to, target: from + ticket, attempts },
    draws: order.map(({ id }, index) => ({ index, id, weight: 1, total, ticket, attempts })),
  };
}

/** Every link of its chain: what was public while it ran. */
export function linksIn({ round, commitment, settingsHash: settings, openedMs, changes, record }: Proof2): readonly string[] {
  const links = [openingLink({ round, commitment, settings, atMs: openedMs })];
  for (const change of changes) links.push(nextLink(links.at(-1) as string, change));
  for (const happening of record) links.push(nextHappening(links.at(-1) as string, happening));
  return links;
}
/** As somebody forges it who computes the whole chain again. */
export const rechained = (proof: Proof2): Proof2 => ({ ...proof, chain: linksIn(proof).at(-1) as string });
/** As somebody forges it who holds the secret: the list, its hash, the lock, the shaking and the results fit each other again. */
export function forged(proof: Proof2, secret = proof.secret): Proof2 {
  const chance = (proof.settings as { chance: ChanceRules }).chance;
  const list = chance.number === null ? listOf(proof.changes) : guessesOf(proof.changes);
  const hash = listHash(list);
  const shakes = proof.record.filter((h) => h.kind === "shake");
  const shake = chance.shake === null || list.length === 0 ? "" : shakeHash(shakes);
  const record = proof.record.map((h) => (h.kind === "lock" ? { ...h, list: hash } : h.kind === "shaken" ? { ...h, shake } : h));
  const key = { secret: Uint8Array.from(Buffer.from(secret, "hex")), round: proof.round, list: hash, shake };
  const won = drawWinners(key, list, { count: record.filter((h) => h.kind === "draw").length, staysIn: chance.staysIn });
  return rechained({ ...proof, secret, list: [...list], listHash: hash, record, draws: won.ok ? [...won.value] : [] });
}
