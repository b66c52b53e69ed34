import { isRehearsed } from "../../chance/round";
import type { Row } from "../../module/game";
import type { Audience } from "../../module/module";
import { chanceInWords, winnersLeft } from "./asked-chance";
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

/** What each may see: names and counts to all, ids to operators alone, secrets to nobody; of a rehearsal viewers hear nothing. */
export function raffleView(settings: RaffleSettings, durable: RaffleDurable, audience: Audience): Readonly<Record<string, unknown>> {
  const { on, results } = durable;
  const round = durable.round?.rehearsal === true && audience === "viewer" ? null : durable.round;
  const s = round?.settings ?? settings;
  const left = round === null ? 0 : winnersLeft(round);
  const common = {
    on,
    phase: round?.phase ?? "",
    title: s.title,
    subtitle: s.subtitle,
    by: s.by,
    word: s.word,
    price: s.price,
    most: s.most,
    number: s.number,
    claimMs: s.claimMs,
    people: round?.people ?? 0,
    tries: round?.tries ?? 1,
    tickets: round?.tickets ?? 0,
    openedMs: round?.openedMs ?? 0,
    locksMs: round?.locksMs ?? 0,
    shaken: round?.shake.length ?? 0,
    shakers: s.shakers,
    target: round?.target?.number ?? null,
    winners: (round?.winners ?? []).map(({ index, name, prize, state, guess, untilMs }) => ({ index, name, prize, state, guess, untilMs })),
  };
  if (audience === "overlay") {
    // A winner's tag is on the rack too, however long ago they came in.
    const names = s.looks.names ? newest(durable, onRack).map((e) => e.name) : [];
    return { ...common, looks: s.looks, names };
  }
  const fair = {
    promise: round === null ? "" : round.commitment,
    round: round === null ? "" : round.id,
    chain: round?.chain ?? "",
    listHash: round?.listHash ?? "",
    results: results
      .filter((r) => audience === "operator" || !isRehearsed(r.round))
      .slice(0, 8)
      .map(({ n, round: id, title, atMs, people, tickets, winners }) => ({
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
    barred: durable.barred,
    owed: durable.owed,
    left,
    canOpen: on && round === null,
    canDraw: round?.phase === "locked" && left > 0 && round.people > round.winners.length,
    canMore: round?.phase === "locked" && left <= 0 && round.people > round.winners.length,
    canClose: round?.phase === "locked",
    /** Closing now would end it with nobody drawn. */
    undrawn: round?.phase === "locked" && round.winners.length === 0 && round.people > 0,
  };
}

/** What is one viewer's own in the draw that runs: what they hold, their chance, whether they won. */
export function raffleMine(_: RaffleSettings, durable: RaffleDurable, viewer: string): Row | null {
  const { round } = durable;
  const own = durable.entrants.get(keyOf(viewer));
  if (round === null || round.rehearsal || own === undefined) return null;
  const won = round.winners.find((w) => w.id === viewer);
  const chance = won === undefined ? chanceInWords(durable, round, { id: viewer }) : null;
  return {
    tickets: own.tickets,
    chance: chance ?? "",
    guess: own.guess,
    paid: own.paid,
    won: won === undefined ? "" : won.state,
    prize: won?.prize ?? "",
  };
}

/** Points that lie in it; while they go back part by part nobody can say. */
export const rafflePool = ({ round }: RaffleDurable): number | null =>
  round === null ? 0 : round.returning || round.rehearsal ? null : round.held;
