#!/usr/bin/env node
// Checks the proof of a round: node check-round.mjs round.json. Needs nothing but Node.js 18 or newer; docs/chance.md
// says in words what is done here.
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

export function check(p) {
  const secret = Buffer.from(p.secret, "hex");
  const faults = [];
  const same = (what, found, told) => void (found === told || faults.push(`${what}: ${found}, not ${told}`));
  same("promise", sha(secret), p.commitment);
  same("settings", sha(canonical(p.settings)), p.settingsHash);
  let link = sha(canonical({ round: p.round, commitment: p.commitment, settings: p.settingsHash }));
  const now = new Map();
  for (const { seq, atMs, id, weight, guess } of p.changes) {
    link = sha(canonical([link, guess === undefined ? { seq, atMs, id, weight } : { seq, atMs, id, weight, guess }]));
    const at = now.get(id)?.guess === guess ? now.get(id)?.at : seq;
    if (weight === 0) now.delete(id);
    else now.set(id, p.number ? { id, weight, guess, at: at ?? seq } : { id, weight });
  }
  same("chain", link, p.chain);
  const list = [...now.values()].sort((a, b) => (a.id < b.id ? -1 : 1));
  same("list", canonical(list), canonical(p.list));
  same("hash of the list", sha(canonical(list)), p.listHash);
  if (p.shake !== null) same("shake", sha(canonical(p.shake.messages)), p.shake.hash);
  const ticket = (i, total) => {
    const fair = (2n ** 64n / BigInt(total)) * BigInt(total);
    const x = (a) => createHmac("sha256", secret).update(`${p.round}:${p.listHash}:${p.shake?.hash ?? ""}:${i}:${a}`).digest().readBigUInt64BE(); // prettier-ignore
    for (let a = 0; ; a += 1) if (x(a) < fair) return Number(x(a) % BigInt(total));
  };
  if (p.number) {
    const { from, to, target } = p.number;
    same("range", `${p.settings.number?.from} ${p.settings.number?.to}`, `${from} ${to}`);
    same("number", from + ticket(0, to - from + 1), target);
    list.sort((a, b) => Math.abs(a.guess - target) - Math.abs(b.guess - target) || a.at - b.at);
    for (const [i, told] of p.draws.entries()) same(`winner ${i}`, list[i]?.id, told.id);
    return faults;
  }
  for (const [i, told] of p.draws.entries()) {
    let left = ticket(i, list.reduce((sum, t) => sum + t.weight, 0)); // prettier-ignore
    const at = list.findIndex((t) => (left -= t.weight) < 0);
    same(`draw ${i}`, list[at]?.id, told.id);
    if (!p.staysIn) list.splice(at, 1);
  }
  return faults;
}

if (argv[1] === fileURLToPath(import.meta.url)) {
  const faults = check(JSON.parse(readFileSync(argv[2] ?? 0, "utf8")));
  console.log(faults.length === 0 ? "It holds, step by step." : faults.join("\n"));
  exit(faults.length === 0 ? 0 : 1);
}
