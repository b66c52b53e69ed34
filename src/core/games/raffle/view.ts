import type { Audience } from "../../module/module";
import { counted } from "../../words/sentence";
import { type RaffleDurable, type RaffleSettings, keyOf } from "./settings";

/** The newest who came in, newest first: as many as hang on a rack, or stand in a list. */
const newest = (
  { entrants, changes }: RaffleDurable,
  most: number,
): readonly Readonly<{ name: string; tickets: number; guess: number | null; key: string }>[] => {
  const seen = new Set<string>();
  const found: { name: string; tickets: number; guess: number | null; key: string }[] = [];
  for (const { id } of changes.takeLast(most * 4).reverse()) {
    if (seen.has(id) || found.length >= most) continue;
    seen.add(id);
    const e = entrants.get(keyOf(id));
    if (e !== undefined) found.push({ name: e.name, tickets: e.tickets, guess: e.guess, key: id });
  }
  return found;
};
const onRack = 48;
const inBooth = 30;

/** What each may see: names and counts to all, ids to operators alone, secrets to nobody. */
export function raffleView(settings: RaffleSettings, durable: RaffleDurable, audience: Audience): Readonly<Record<string, unknown>> {
  const { on, round, results } = durable;
  const s = round?.settings ?? settings;
  const standing = round?.winners.filter((w) => w.state !== "passed").length ?? 0;
  const common = {
    on,
    phase: round?.phase ?? "",
    title: s.title,
    subtitle: s.subtitle,
    by: s.by,
    word: s.word,
    price: s.price,
    most: s.most,
    people: round?.people ?? 0,
    tickets: round?.tickets ?? 0,
    openedMs: round?.openedMs ?? 0,
    locksMs: round?.locksMs ?? 0,
    shaken: round?.shake.length ?? 0,
    shakers: s.shakers,
    target: round?.target?.number ?? null,
    winners: (round?.winners ?? []).map(({ name, prize, state, guess, untilMs }) => ({ name, prize, state, guess, untilMs })),
  };
  if (audience === "overlay") return { ...common, names: newest(durable, onRack).map((e) => e.name) };
  const fair = {
    promise: round === null || (round.rehearsal && audience === "viewer") ? "" : round.commitment,
    round: round === null || (round.rehearsal && audience === "viewer") ? "" : round.id,
    chain: round?.chain ?? "",
    results: results.slice(0, 8).map(({ n, round: id, title, atMs, people, tickets, winners }) => ({
      n,
      round: id,
      title,
      atMs,
      people,
      tickets,
      winners: winners.slice(0, 5),
    })),
  };
  if (audience === "viewer") return { ...common, ...fair };
  return {
    ...common,
    ...fair,
    held: round?.held ?? 0,
    returning: round?.returning ?? false,
    recent: newest(durable, inBooth),
    canOpen: on && round === null,
    canDraw: round?.phase === "locked" && standing < s.winners && round.people > round.winners.length,
    canClose: round?.phase === "locked",
    /** Closing now would end it with nobody drawn. */
    undrawn: round?.phase === "locked" && standing === 0 && round.people > 0,
    waits: round?.winners.some((w) => w.state === "waits") ?? false,
  };
}

/** How it stands, in words. */
export function raffleStands(view: Readonly<Record<string, unknown>>): string {
  const people = Number(view["people"] ?? 0);
  const many = counted(people, "viewer");
  switch (view["phase"]) {
    case "open":
      return `is open: ${many} in`;
    case "shaking":
      return `is locked: ${many} in, the drum is being shaken`;
    case "locked":
      return `is locked: ${many} in`;
    case "cancelled":
      return "is being cancelled";
    default:
      return "waits to be opened";
  }
}
