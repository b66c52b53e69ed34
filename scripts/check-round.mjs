#!/usr/bin/env node
// Checks the proof of a round: node check-round.mjs round.json [hash …]
// Give any hashes that were public while the round ran, whole or their first digits (12 or more): each must be in it.
// Needs nothing but Node.js 18 or newer. docs/chance.md says in words what is checked here, and what each reason means.
import { createHash, createHmac } from "node:crypto";
import { readFileSync } from "node:fs";
import { argv, exit } from "node:process";
import { fileURLToPath } from "node:url";

// RFC 8785: numbers and texts as JSON writes them, names in the order of their UTF-16 units, nothing between.
const canonical = (v) =>
  v === null || typeof v !== "object"
    ? JSON.stringify(v)
    : Array.isArray(v)
      ? `[${v.map(canonical).join(",")}]`
      : `{${Object.keys(v).sort().map((k) => `${JSON.stringify(k)}:${canonical(v[k])}`).join(",")}}`; // prettier-ignore
const sha = (data) => createHash("sha256").update(data).digest("hex");

// Shapes: what a value must be. An object has these members and no others; a name with "?" may be missing.
const int =
  (least = -Number.MAX_SAFE_INTEGER) =>
  (v) =>
    Number.isSafeInteger(v) && v >= least;
const text =
  (most, least = 0) =>
  (v) =>
    typeof v === "string" && v.length <= most && v.length >= least;
const one =
  (...all) =>
  (v) =>
    all.includes(v);
const hash = (v) => typeof v === "string" && /^[0-9a-f]{64}$/.test(v);
const list = (of) => (v) => Array.isArray(v) && v.every(of);
const any =
  (...shapes) =>
  (v) =>
    shapes.some((s) => s(v));
const object = (members, loose = false) => (v) =>
  v !== null && typeof v === "object" && !Array.isArray(v) &&
  Object.entries(members).every(([k, is]) => (k.endsWith("?") ? v[k.slice(0, -1)] === undefined || is(v[k.slice(0, -1)]) : is(v[k]))) &&
  (loose || Object.keys(v).every((k) => k in members || `${k}?` in members)); // prettier-ignore
const weight = (v) => int(0)(v) && v <= 1e9;
const [id, atMs, index] = [text(80, 1), int(), int(0)];
const common = {
  round: text(60, 1), settings: () => true, settingsHash: hash, commitment: hash, secret: hash, chain: hash, listHash: hash,
  changes: list(object({ seq: int(), atMs, id, weight, "guess?": int() })),
  list: list(any(object({ id, weight }), object({ id, weight, guess: int(), at: int() }))),
  draws: list(object({ index, id, weight, total: int(1), ticket: index, attempts: index })),
}; // prettier-ignore
const first = object({
  ...common, format: one("izzam-round-1"), lock: object({ how: one("time", "operator"), atMs }, true), staysIn: one(true, false),
  shake: any(one(null), object({ messages: list(object({ id, text: text(600) }, true)), hash }, true)),
  "number?": object({ from: int(), to: int(), target: int(), attempts: index }, true),
}, true); // prettier-ignore
const second = object({
  ...common, format: one("izzam-round-2"), openedMs: atMs, "number?": object({ target: int(), attempts: index }),
  record: list(any(
    object({ kind: one("lock"), atMs, by: one("time", "operator"), list: hash }), object({ kind: one("shake"), atMs, id, text: text(600) }),
    object({ kind: one("shaken"), atMs, shake: hash }), object({ kind: one("draw", "pass"), atMs, index }), object({ kind: one("more"), atMs }),
  )),
}); // prettier-ignore
const isRange = ({ from, to }) => to >= from && Number.isSafeInteger(to - from + 1);
const range = (v) => object({ from: int(), to: int() })(v) && isRange(v);
const between = (n, least, most) => Number.isSafeInteger(n) && n >= least && n <= most;
const rules = object({
  winners: (v) => between(v, 1, 1000), staysIn: one(true, false), number: any(one(null), range), lockAfterMs: any(one(null), int(0)),
  shake: any(one(null), object({ who: one("anyone"), most: (v) => between(v, 1, 1000), withinMs: int(1) })),
}); // prettier-ignore

/** The reasons why a proof does not hold, each with its words; empty where it holds. */
export function check(p, seen = []) {
  const faults = [];
  const fault = (reason, words) => void faults.push(`${reason}: ${words}`);
  const must = (reason, holds, words) => void (holds || fault(reason, words));
  if (!first(p) && !second(p)) return ["shape: this is no proof of a round"];
  const old = p.format === "izzam-round-1";
  const secret = Buffer.from(p.secret, "hex");
  must("promise", sha(secret) === p.commitment, "the secret is another than the promised one");
  must("settings", sha(canonical(p.settings)) === p.settingsHash, "the settings are not the announced ones");
  const announced = old ? oldRules(p) : p.settings?.chance;
  if (!old && !rules(announced)) return [...faults, "chance: the settings do not say how the draw is made"];

  const opening = { round: p.round, commitment: p.commitment, settings: p.settingsHash };
  const links = [sha(canonical(old ? opening : { ...opening, atMs: p.openedMs }))];
  for (const happening of [...p.changes, ...(p.record ?? [])]) links.push(sha(canonical([links.at(-1), happening])));
  must("chain", links.at(-1) === p.chain, "the chain of entries and record ends with another link");
  const now = new Map();
  let before = old ? -Infinity : p.openedMs;
  for (const [i, { seq, atMs: at, id: who, weight: has, guess }] of p.changes.entries()) {
    must("order", (old ? i === 0 || seq > p.changes[i - 1].seq : seq === i + 1) && at >= before, `entry ${i + 1} is out of its order`);
    const { number } = announced;
    if (!old) {
      must("guess", (guess !== undefined) === (number !== null && has > 0), `entry ${i + 1} names no number, or one too many`);
      if (number && guess !== undefined) must("guess", between(guess, number.from, number.to) && has === 1, `entry ${i + 1} is outside the range`);
    }
    const known = now.get(who);
    if (has === 0) now.delete(who);
    else now.set(who, number ? { id: who, weight: has, guess: guess ?? 0, at: known && known.guess === (guess ?? 0) ? known.at : seq } : { id: who, weight: has });
    before = at;
  } // prettier-ignore
  const all = [...now.values()].sort((a, b) => (a.id < b.id ? -1 : 1));
  must("list", canonical(all) === canonical(p.list) && sha(canonical(all)) === p.listHash, "the entries lead to another list");

  const shook = old ? oldShake(p, all, must) : record(p, announced, all, before, must);
  const ticket = (i, total) => {
    const fair = (2n ** 64n / BigInt(total)) * BigInt(total);
    const x = (a) => createHmac("sha256", secret).update(`${p.round}:${p.listHash}:${shook}:${i}:${a}`).digest().readBigUInt64BE(); // prettier-ignore
    for (let a = 0; ; a += 1) if (x(a) < fair) return { ticket: Number(x(a) % BigInt(total)), attempts: a };
  };
  const left = [...all];
  if (announced.number && p.number) {
    const { from, to } = announced.number;
    const told = ticket(0, to - from + 1);
    must("number", from + told.ticket === p.number.target && told.attempts === p.number.attempts, "the secret leads to another number");
    left.sort((a, b) => Math.abs(a.guess - p.number.target) - Math.abs(b.guess - p.number.target) || a.at - b.at);
    p.draws.forEach((d, i) => must("draws", canonical(d) === canonical({ index: i, id: left[i]?.id ?? "", weight: 1, total: to - from + 1, ...told }), `draw ${i} is another`)); // prettier-ignore
  } else {
    must("number", !p.number && !(announced.number && p.draws.length > 0), "a number is missing, or was not announced");
    for (const [i, told] of p.draws.entries()) {
      const total = left.reduce((sum, t) => sum + t.weight, 0);
      if (total === 0) fault("draws", `draw ${i} has nobody left`);
      if (total === 0) break;
      const drawn = ticket(i, total);
      let rest = drawn.ticket;
      const at = left.findIndex((t) => (rest -= t.weight) < 0);
      must("draws", canonical(told) === canonical({ index: i, id: left[at].id, weight: left[at].weight, total, ...drawn }), `draw ${i} is another`);
      if (!announced.staysIn) left.splice(at, 1);
    }
  } // prettier-ignore
  const own = [p.commitment, p.settingsHash, p.listHash, ...(old ? [p.chain] : links)];
  for (const s of seen) must("seen", s.length >= 12 && own.some((h) => h.startsWith(s.toLowerCase())), `${s} was public, and is not in it`);
  return faults;
}

/** The record of the second format: one lock, then the shaking, then draws. Returns the hash of the shaking. */
function record({ record: all, openedMs, listHash, draws }, { winners, shake, lockAfterMs }, people, lastMs, must) {
  const [lock, ...rest] = all;
  const locked = lock?.kind === "lock" && !rest.some((h) => h.kind === "lock") && lock.list === listHash && lock.atMs >= lastMs;
  const onTime = lock?.by !== "time" || (lockAfterMs !== null && lock.atMs >= openedMs + lockAfterMs);
  must("lock", locked && onTime, "the list was not locked once, after the last entry and by its rule");
  must(
    "order",
    rest.every((h, i) => h.atMs >= (rest[i - 1] ?? lock).atMs),
    "the record is out of its order",
  );
  const shakes = all.filter((h) => h.kind === "shake");
  const ends = all.filter((h) => h.kind === "shaken");
  if (shake === null || people.length === 0) must("shake", shakes.length + ends.length === 0, "the drum was shaken, and must not be");
  else {
    const [end] = ends;
    const untilMs = lock?.atMs + shake.withinMs;
    const inOrder = ends.length === 1 && rest.slice(0, shakes.length).every((h) => h.kind === "shake") && rest[shakes.length] === end;
    must("shake", inOrder && shakes.length <= shake.most && new Set(shakes.map((s) => s.id)).size === shakes.length, "too many shook, twice, too soon or too late");
    must("shake", shakes.every((s) => s.atMs <= untilMs), "a message shook the drum too late");
    must("shake", shakes.length < shake.most ? end?.atMs >= untilMs : end?.atMs === shakes.at(-1).atMs, "the shaking ended too early or too late");
    must("shake", sha(canonical(shakes.map((s) => ({ id: s.id, text: s.text })))) === end?.shake, "a message was changed");
  } // prettier-ignore
  let [drawn, more, shaking] = [0, 0, shake !== null && people.length > 0];
  const passed = new Set();
  for (const h of all) {
    if (h.kind === "shaken") shaking = false;
    if (h.kind === "more") more += 1;
    if (h.kind === "pass") must("record", h.index < drawn && !passed.has(h.index), "a winner was passed over who was not drawn, or twice");
    if (h.kind === "pass") passed.add(h.index);
    if (h.kind !== "draw") continue;
    must("record", !shaking && h.index === drawn && drawn - passed.size < winners + more, "more were drawn than were announced, or in another order");
    drawn += 1;
  } // prettier-ignore
  must("record", drawn === draws.length, "there are more results than draws, or fewer");
  return ends[0]?.shake ?? "";
}

// The first format ends its chain with the last entry: it can't show when each message shook it, or how many draws were allowed.
const oldRules = (p) => ({ number: p.number && p.settings?.number?.from === p.number.from && p.settings.number.to === p.number.to && isRange(p.number) ? p.number : null, staysIn: p.staysIn }); // prettier-ignore
function oldShake({ shake, settings, changes, lock }, people, must) {
  must(
    "chain",
    changes.every((c) => c.atMs <= lock.atMs),
    "an entry came after the lock",
  );
  if (typeof settings?.shake === "boolean" && people.length > 0) must("shake", settings.shake === (shake !== null), "it was shaken, or not, against its settings"); // prettier-ignore
  if (shake === null) return "";
  const { messages } = shake;
  must("shake", messages.length <= (settings?.shakers ?? Infinity) && new Set(messages.map((m) => m.id)).size === messages.length, "too many shook, or one twice"); // prettier-ignore
  must("shake", sha(canonical(messages)) === shake.hash, "a message was changed");
  return shake.hash;
}

if (argv[1] === fileURLToPath(import.meta.url)) {
  const [file = 0, ...seen] = argv.slice(2);
  const proof = JSON.parse(readFileSync(file, "utf8"));
  const faults = check(proof, seen);
  console.log(faults.length === 0 ? "It holds, step by step." : faults.join("\n"));
  if (proof?.format === "izzam-round-1") console.log("It has the first format, which can’t show when messages shook it or how many draws were allowed.");
  exit(faults.length === 0 ? 0 : 1);
} // prettier-ignore
