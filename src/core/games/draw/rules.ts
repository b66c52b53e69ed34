import { bytesToHex } from "@noble/hashes/utils.js";
import { Map as Entries } from "immutable";
import { commitmentOf, drawTicket, Drum, firstLink, listHash, listOf, settingsHash, shakeHash } from "../../chance/scheme";
import type { Proof } from "../../chance/proof";
import { fold } from "../../kernel/fold";
import { refusal } from "../../kernel/refusal";
import type { Kept, Note, StepContext, StepOutcome } from "../../module/module";
import type { Order } from "../../module/order";
import { done, type Entry } from "../../points/ledger";
import type { CommandSignal, MessageSignal, Role, Signal, Viewer } from "../../signals/signal";
import type { DrawCommand } from "./actions";
import { askOf, entry, held, returned, settingsAnnounced, withEntrant } from "./entering";
import { type DrawDurable, type DrawSettings, type DrawWinner, type Entrant, freshDraw, keyOf, type Round } from "./settings";
import { closedTold, lockedTold, openedTold, rulesTold, winnerTold } from "./words";

/** When who wrote last: for draws in which only who was there lately may enter. */
export type DrawTransient = Readonly<{ chatted: Entries<`v:${string}`, number> }>;
type At = Readonly<{ settings: DrawSettings; durable: DrawDurable; transient: DrawTransient }>;
export type Outcome = StepOutcome<DrawDurable, DrawTransient, never>;
/** So many get their points back in one part: others are served between two parts. */
export const returnedAtOnce = 250;
/** A message that came just too late is told so; later ones mean something else. */
const lateMs = 60_000;
const mostResults = 20;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: at.transient, effects: [], notes });
const no = (at: At, code: string, facts: Record<string, string | number> = {}): Outcome =>
  still(at, [{ refusal: refusal(code, facts), count: 1 }]);
const put = (at: At, durable: DrawDurable): At => ({ ...at, durable });
const booked = (entries: readonly Entry[], names: readonly Readonly<{ id: string; name: string }>[]) => ({
  entries,
  sales: [],
  names,
  prices: [],
});

/** One signal through the rules of section 7. */
export function drawStep(given: At, signal: Signal, ctx: StepContext): Outcome {
  switch (signal.kind) {
    case "message":
      return onMessage(given, signal, ctx);
    case "command":
      return onCommand(given, signal, ctx);
    case "timer":
      return onTimer(given, signal, ctx);
    case "live":
      return { ...still(given), durable: { ...given.durable, shows: given.durable.shows + 1 } };
    default:
      return still(given);
  }
}

function onMessage(given: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const { viewer, atMs, text } = signal;
  const chattedMs = given.transient.chatted.get(keyOf(viewer.id)) ?? null;
  const at: At = { ...given, transient: { chatted: given.transient.chatted.set(keyOf(viewer.id), atMs) } };
  const { durable, settings } = at;
  const { round } = durable;
  const claimed = round === null ? null : claim(at, round, viewer, atMs);
  if (claimed !== null) return claimed;
  if (round?.phase === "shaking") return shaken(at, round, signal);
  const word = (round?.settings ?? settings).word;
  const [first = "", ...rest] = text.trim().split(/\s+/);
  if (fold(first) !== fold(word)) return still(at);
  if (!durable.on) return still(at);
  const answer = (outcome: Outcome, refusedIt: boolean): Outcome => {
    const says = round?.settings.answers ?? settings.answers;
    const [note] = outcome.notes;
    if (note === undefined || says === "nothing" || (says === "refusals" && !refusedIt)) return outcome;
    return { ...outcome, orders: [...(outcome.orders ?? []), { do: "answer", to: viewer.name, note }] };
  };
  if (round === null || round.phase !== "open") {
    const lateS = Math.ceil((atMs - (round?.lockedMs ?? durable.closedMs)) / 1000);
    const late = (round?.lockedMs ?? durable.closedMs) > 0 && lateS * 1000 <= lateMs;
    return answer(no(at, late ? "draw/late" : "draw/not-open", late ? { lateS } : {}), true);
  }
  if (round.returning) return answer(no(at, "draw/clearing"), true);
  const came = entry({ round, durable, viewer, ask: askOf(rest.join(" ")), atMs, chattedMs, ctx });
  if ("refusal" in came) return answer(still(at, [{ refusal: came.refusal, count: 1 }]), true);
  return answer(entered(at, round, viewer, came, atMs), false);
}

function entered(
  at: At,
  round: Round,
  viewer: Viewer,
  came: Readonly<{ entrant: Entrant; cost: number; more: number }>,
  atMs: number,
): Outcome {
  const { durable } = at;
  const next = withEntrant(round, durable, viewer.id, came.entrant, atMs);
  const seq = next.changes.size;
  const { most, by } = round.settings;
  const facts = { tickets: came.entrant.tickets, most, guess: came.entrant.guess, people: next.round.people };
  return {
    ...still(at, [{ did: by === "number" ? "draw/guessed" : "draw/entered", count: came.more, subject: viewer.name, facts }]),
    durable: { ...durable, round: next.round, entrants: next.entrants, changes: next.changes },
    kept: [next.kept],
    orders: [{ do: "emit", what: "draw/entered", viewer, amount: came.entrant.tickets, text: round.settings.title }],
    ...(came.cost === 0 ? {} : { booking: booked([held(round, viewer.id, came.cost, seq, atMs)], [{ id: viewer.id, name: viewer.name }]) }),
  };
}

/** The first messages after the lock, one of each of several viewers: what nobody knew when the secret was made. */
function shaken(at: At, round: Round, signal: MessageSignal): Outcome {
  if (round.shake.some((s) => s.id === signal.viewer.id)) return still(at);
  const shake = [...round.shake, { id: signal.viewer.id, text: signal.text.slice(0, 500) }];
  const next: Round = { ...round, shake };
  const outcome = still(at, [{ did: "draw/shook", count: shake.length, subject: signal.viewer.name }]);
  return shake.length >= round.settings.shakers ? stopShaking(at, next, outcome) : { ...outcome, durable: { ...at.durable, round: next } };
}
const stopShaking = (at: At, round: Round, outcome: Outcome): Outcome => ({
  ...outcome,
  durable: { ...at.durable, round: { ...round, phase: "locked", shakeHash: shakeHash(round.shake) } },
});

/** A winner who writes in time has claimed it. */
function claim(at: At, round: Round, viewer: Viewer, atMs: number): Outcome | null {
  const place = round.winners.findIndex((w) => w.state === "waits" && w.id === viewer.id && atMs <= w.untilMs);
  if (place < 0) return null;
  const winners = round.winners.map((w, i): DrawWinner => (i === place ? { ...w, state: "claimed" } : w));
  return {
    ...still(at, [{ did: "draw/claimed", count: 1, subject: viewer.name, facts: { prize: round.winners[place]?.prize ?? "" } }]),
    durable: { ...at.durable, round: { ...round, winners } },
    orders: [{ do: "emit", what: "draw/claimed", viewer, amount: place + 1, text: round.winners[place]?.prize ?? "" }],
  };
}

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { durable, settings } = at;
  const { round } = durable;
  const { atMs, gameId } = signal;
  // The engine has read it by the schemas of the actions.
  const command = signal.command as DrawCommand;
  switch (command.do) {
    case "switch":
      if (durable.on === command.on) return no(at, command.on ? "draw/already-on" : "draw/already-off");
      return {
        ...still(at, [{ did: command.on ? "draw/switched-on" : "draw/switched-off", count: 1 }]),
        durable: { ...durable, on: command.on },
      };
    case "open":
      if (!durable.on) return no(at, "draw/off");
      return round === null ? opened(at, gameId, signal, ctx) : no(at, "draw/open-already");
    case "lock":
      return round?.phase === "open" && !round.returning
        ? locked(at, round, "operator", atMs)
        : no(at, round === null ? "draw/none" : "draw/locked-already");
    case "draw":
      return round === null ? no(at, "draw/none") : drawn(at, round, atMs, ctx);
    case "close":
      return round === null ? no(at, "draw/none") : closed(at, round, atMs, ctx);
    case "cancel":
      if (round === null || round.phase === "cancelled") return no(at, "draw/none");
      return {
        ...still(at, [{ did: "draw/cancelled", count: round.people }]),
        durable: { ...durable, round: { ...round, phase: "cancelled", returning: true } },
        orders: [{ do: "emit", what: "draw/cancelled", viewer: null, amount: round.people, text: round.settings.title }],
      };
    case "clear":
      if (round?.phase !== "open") return no(at, "draw/locked-already");
      if (round.people === 0) return no(at, "draw/nobody");
      return {
        ...still(at, [{ did: "draw/cleared", count: round.people }]),
        durable: { ...durable, round: { ...round, returning: true } },
      };
    case "remove":
      return round?.phase === "open" ? removed(at, round, command.viewer, atMs) : no(at, "draw/locked-already");
    case "add":
      return round?.phase === "open" && !round.returning ? added(at, round, command.viewers, atMs) : no(at, "draw/not-open");
    case "tell-rules":
      return { ...still(at, [{ did: "draw/rules-told", count: 1 }]), orders: [{ do: "say", text: rulesTold(settings, ctx.pointsName) }] };
  }
}

function opened(at: At, game: string, signal: Signal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const { atMs, seq } = signal;
  const n = durable.n + 1;
  const id = `${game}.${n}.${atMs.toString(36)}${ctx.rehearsing ? ".rehearsal" : ""}`;
  const { commitment, sealed } = ctx.vault.promise(id);
  const hash = settingsHash(settingsAnnounced(settings));
  const round: Round = {
    n,
    id,
    phase: "open",
    returning: false,
    rehearsal: ctx.rehearsing,
    settings,
    settingsHash: hash,
    commitment,
    sealed,
    chain: firstLink({ round: id, commitment, settings: hash }),
    openedMs: atMs,
    locksMs: settings.locks === "time" ? atMs + settings.openMs : null,
    lockedMs: null,
    lockedBy: null,
    since: { seq, atMs },
    people: 0,
    tickets: 0,
    held: 0,
    listHash: "",
    shakenMs: 0,
    shake: [],
    shakeHash: "",
    target: null,
    winners: [],
  };
  const fresh = freshDraw();
  return {
    ...still(at, [{ did: "draw/opened", count: 1, subject: settings.title }]),
    durable: { ...durable, n, round, entrants: fresh.entrants, changes: fresh.changes },
    orders: [
      { do: "say", text: openedTold(settings, commitment, ctx.pointsName) },
      { do: "emit", what: "draw/opened", viewer: null, amount: n, text: settings.title },
    ],
  };
}

/** Tickets times what roles bring, as the roles are now, become part of the chain; then the list is what it is. */
function locked(at: At, open: Round, by: "time" | "operator", atMs: number): Outcome {
  let { entrants, changes } = at.durable;
  let round = open;
  const kept: Kept[] = [];
  for (const e of at.durable.entrants.values()) {
    const times = timesOf(open.settings, e.roles as readonly Role[]);
    if (times === 1 || open.settings.by === "number") continue;
    const next = withEntrant(round, { ...at.durable, entrants, changes }, e.id, { ...e, tickets: e.tickets * times }, atMs);
    ({ round, entrants, changes } = next);
    kept.push(next.kept);
  }
  const list = listOf(changes.toArray());
  const { shake, shakeMs, title } = open.settings;
  const shut: Round = {
    ...round,
    phase: shake && list.length > 0 ? "shaking" : "locked",
    lockedMs: atMs,
    lockedBy: by,
    listHash: listHash(list),
    shakenMs: shake ? atMs + shakeMs : atMs,
  };
  const orders: Order[] = [
    { do: "say", text: lockedTold(shut) },
    { do: "emit", what: "draw/locked", viewer: null, amount: round.people, text: title },
  ];
  return {
    ...still(at, [{ did: "draw/locked", count: round.people, facts: { tickets: round.tickets } }]),
    durable: { ...at.durable, round: shut, entrants, changes },
    kept,
    orders,
  };
}
const timesOf = ({ times }: DrawSettings, roles: readonly Role[]): number =>
  times.reduce((most, t) => (roles.includes(t.role) ? Math.max(most, t.times) : most), 1);

/** The next winner: by the next ticket out of the drum, or the next nearest to the number that was drawn. */
function drawn(at: At, round: Round, atMs: number, ctx: StepContext): Outcome {
  if (round.phase === "open") return no(at, "draw/not-locked");
  if (round.phase === "shaking") return no(at, "draw/shaking");
  if (round.phase === "cancelled") return no(at, "draw/none");
  const standing = round.winners.filter((w) => w.state !== "passed").length;
  if (standing >= round.settings.winners) return no(at, "draw/all-drawn");
  const secret = ctx.vault.open(round.id, round.sealed);
  if (secret === null) return no(at, "draw/secret-lost");
  const key = { secret, round: round.id, list: round.listHash, shake: round.shakeHash };
  const index = round.winners.length;
  const next = round.settings.by === "number" ? nearest(at, round, key) : fromDrum(at, round, key, index);
  if (next === null) return no(at, "draw/nobody");
  const e = at.durable.entrants.get(keyOf(next.id));
  const prize = prizeAt(round.settings, standing);
  const { claimMs } = round.settings;
  const winner: DrawWinner = {
    index,
    id: next.id,
    name: e?.name ?? next.id,
    prize,
    guess: e?.guess ?? null,
    ticket: next.ticket,
    attempts: next.attempts,
    weight: next.weight,
    total: next.total,
    state: claimMs > 0 ? "waits" : "drawn",
    untilMs: claimMs > 0 ? atMs + claimMs : 0,
  };
  const viewer: Viewer = { id: winner.id, name: winner.name, roles: [...(e?.roles ?? [])] as Role[] };
  return {
    ...still(at, [{ did: "draw/drawn", count: index + 1, subject: winner.name, facts: { prize } }]),
    durable: { ...at.durable, round: { ...round, target: next.target ?? round.target, winners: [...round.winners, winner] } },
    orders: [
      { do: "say", text: winnerTold(round.settings, winner) },
      { do: "emit", what: "draw/drawn", viewer, amount: index + 1, text: winner.name },
    ],
  };
}
type Key = Parameters<typeof drawTicket>[0];
type Next = Readonly<{ id: string; ticket: number; attempts: number; weight: number; total: number; target?: Round["target"] }>;
function fromDrum({ durable }: At, round: Round, key: Key, index: number): Next | null {
  const list = listOf(durable.changes.toArray());
  const drum = new Drum(list.map((t) => t.weight));
  const placeOf = new Map(list.map((t, i) => [t.id, i]));
  // Without replacement: whoever was drawn before has left, passed over or not.
  for (const w of round.winners) drum.takeOut(placeOf.get(w.id) ?? 0);
  const { total } = drum;
  const ticket = drawTicket(key, index, total);
  if (!ticket.ok) return null;
  const place = drum.at(ticket.value.ticket);
  return { id: list[place]?.id ?? "", ...ticket.value, weight: drum.weight(place), total };
}
/** The number is drawn once; then whoever is nearest, the earlier one where two are as near. */
function nearest({ durable }: At, round: Round, key: Key): Next | null {
  const { from, to } = round.settings.number;
  const span = to - from + 1;
  const ticket = round.target === null ? drawTicket(key, 0, span) : null;
  if (ticket?.ok === false) return null;
  const target = round.target ?? { number: from + (ticket?.value.ticket ?? 0), attempts: ticket?.value.attempts ?? 0 };
  const gone = new Set(round.winners.map((w) => w.id));
  let best: Entrant | null = null;
  for (const e of durable.entrants.values()) {
    if (gone.has(e.id) || e.guess === null) continue;
    const away = Math.abs(e.guess - target.number);
    const bestAway = best === null ? Infinity : Math.abs((best.guess ?? 0) - target.number);
    if (away < bestAway || (away === bestAway && e.at < (best?.at ?? Infinity))) best = e;
  }
  return best === null ? null : { id: best.id, ticket: target.number - from, attempts: target.attempts, weight: 1, total: span, target };
}
/** Prizes go out in their order, each as often as there are. */
function prizeAt({ prizes }: DrawSettings, at: number): string {
  let left = at;
  for (const { name, count } of prizes) {
    if (left < count) return name;
    left -= count;
  }
  return "";
}

/** What was held is spent, the secret is told, and the round is kept with its proof. */
function closed(at: At, round: Round, atMs: number, ctx: StepContext): Outcome {
  if (round.phase === "cancelled") return no(at, "draw/none");
  if (round.phase !== "locked") return no(at, round.phase === "open" ? "draw/not-locked" : "draw/shaking");
  const { durable } = at;
  const winners = round.winners.filter((w) => w.state !== "passed");
  const secret = ctx.vault.open(round.id, round.sealed);
  const entries =
    round.held === 0 ? [] : [done({ key: `${round.id}.close`, atMs, about: `tickets: ${round.settings.title}`, by: "" }, round.held)];
  const names = winners.map((w) => w.name);
  const result = {
    n: round.n,
    round: round.id,
    title: round.settings.title,
    atMs,
    people: round.people,
    tickets: round.tickets,
    winners: names,
  };
  const fresh = freshDraw();
  return {
    ...still(at, [{ did: "draw/closed", count: names.length, subject: round.settings.title }]),
    durable: {
      ...durable,
      round: null,
      entrants: fresh.entrants,
      changes: fresh.changes,
      closedMs: atMs,
      won: [
        ...durable.won.filter(([id]) => !winners.some((w) => w.id === id)),
        ...winners.map((w): [string, number] => [w.id, durable.shows]),
      ].slice(-1_000),
      results: [result, ...durable.results].slice(0, mostResults),
    },
    kept: [
      {
        kind: "round",
        viewer: null,
        fromMs: round.openedMs,
        toMs: atMs,
        body: {
          round: round.id,
          n: round.n,
          label: names.length === 0 ? "Nobody was drawn" : names.join(", "),
          title: round.settings.title,
          people: round.people,
          tickets: round.tickets,
          winners: round.winners,
          proof: secret === null || round.settings.by === "number" ? null : proofOf(at, round, bytesToHex(secret)),
          ...(secret !== null && round.settings.by === "number" ? { secret: bytesToHex(secret), commitment: commitmentOf(secret) } : {}),
        },
      },
    ],
    orders: [
      ...(names.length === 0 ? [] : [{ do: "say" as const, text: closedTold(round) }]),
      { do: "emit", what: "draw/closed", viewer: null, amount: names.length, text: round.settings.title },
    ],
    ...(entries.length === 0 ? {} : { booking: booked(entries, []) }),
  };
}
function proofOf({ durable }: At, round: Round, secret: string): Proof {
  const list = listOf(durable.changes.toArray());
  return {
    format: "izzam-round-1",
    round: round.id,
    settings: settingsAnnounced(round.settings),
    settingsHash: round.settingsHash,
    commitment: round.commitment,
    secret,
    lock: { how: round.lockedBy ?? "operator", atMs: round.lockedMs ?? 0 },
    changes: durable.changes.toArray().map((c) => ({ ...c })),
    chain: round.chain,
    list: list.map((t) => ({ ...t })),
    listHash: round.listHash,
    shake: round.settings.shake && round.shakeHash !== "" ? { messages: round.shake.map((s) => ({ ...s })), hash: round.shakeHash } : null,
    staysIn: false,
    draws: round.winners.map(({ index, id, weight, total, ticket, attempts }) => ({ index, id, weight, total, ticket, attempts })),
  };
}

function removed(at: At, round: Round, viewer: string, atMs: number): Outcome {
  const e = at.durable.entrants.get(keyOf(viewer));
  if (e === undefined) return no(at, "draw/not-in", { viewer });
  const next = withEntrant(round, at.durable, viewer, null, atMs);
  const entries = e.paid === 0 ? [] : [returned(round, viewer, e.paid, atMs, `out.${next.changes.size}`)];
  return {
    ...still(at, [{ did: "draw/removed", count: e.tickets, subject: e.name, facts: { paid: e.paid } }]),
    durable: { ...at.durable, round: next.round, entrants: next.entrants, changes: next.changes },
    kept: [next.kept],
    ...(entries.length === 0 ? {} : { booking: booked(entries, [{ id: viewer, name: e.name }]) }),
  };
}

/** By hand, from a list, from who reigned or is there: without a price; whoever is in already gets no more than they may have. */
function added(at: At, open: Round, viewers: readonly Readonly<{ id: string; name: string; tickets: number }>[], atMs: number): Outcome {
  let { entrants, changes } = at.durable;
  let round = open;
  const kept: Kept[] = [];
  let full = 0;
  for (const { id, name, tickets } of viewers) {
    const before = entrants.get(keyOf(id));
    const most = Math.min(open.settings.most, (before?.tickets ?? 0) + tickets);
    if (open.settings.by === "number" || open.settings.barred.includes(id) || most <= (before?.tickets ?? 0)) {
      full += 1;
      continue;
    }
    const e: Entrant = { id, name, roles: before?.roles ?? [], tickets: most, paid: before?.paid ?? 0, guess: null, at: 0, tries: 0 };
    const next = withEntrant(round, { ...at.durable, entrants, changes }, id, e, atMs);
    ({ round, entrants, changes } = next);
    kept.push(next.kept);
  }
  if (kept.length === 0) return no(at, "draw/nobody-added", { left: full });
  return {
    ...still(at, [{ did: "draw/added", count: kept.length, facts: { left: full } }]),
    durable: { ...at.durable, round, entrants, changes },
    kept,
  };
}

function onTimer(at: At, signal: Signal, ctx: StepContext): Outcome {
  const { durable } = at;
  const { round } = durable;
  const { atMs } = signal;
  if (round === null) return still(at);
  if (round.returning) return giveBack(at, round, atMs, ctx);
  if (round.phase === "open" && round.locksMs !== null && round.locksMs <= atMs) return locked(at, round, "time", atMs);
  if (round.phase === "shaking" && round.shakenMs <= atMs)
    return stopShaking(at, round, still(at, [{ did: "draw/shaken", count: round.shake.length }]));
  const late = round.winners.filter((w) => w.state === "waits" && w.untilMs < atMs);
  if (late.length === 0) return still(at);
  const winners = round.winners.map((w): DrawWinner => (late.includes(w) ? { ...w, state: "passed" } : w));
  const passed: Outcome = {
    ...still(
      at,
      late.map((w) => ({ did: "draw/passed", count: 1, subject: w.name })),
    ),
    durable: { ...durable, round: { ...round, winners } },
  };
  // The next is drawn in the place of each who did not answer.
  let next = put(at, passed.durable);
  const all: Outcome[] = [passed];
  for (const _ of late) {
    if (next.durable.round === null) break;
    const more = drawn(next, next.durable.round, atMs, ctx);
    all.push(more);
    next = put(next, more.durable);
  }
  return {
    ...still(next),
    notes: all.flatMap((o) => o.notes),
    orders: all.flatMap((o) => o.orders ?? []),
    kept: all.flatMap((o) => o.kept ?? []),
  };
}

/** Points go back to so many at once; each of them is out then, and kept so, whatever fails in between. */
function giveBack(at: At, round: Round, atMs: number, ctx: StepContext): Outcome {
  const { durable } = at;
  const some = durable.entrants.take(returnedAtOnce);
  let { entrants, changes } = durable;
  let now = round;
  const kept: Kept[] = [];
  const entries: Entry[] = [];
  const names: { id: string; name: string }[] = [];
  for (const e of some.values()) {
    const next = withEntrant(now, { ...durable, entrants, changes }, e.id, null, atMs);
    ({ round: now, entrants, changes } = next);
    kept.push(next.kept);
    if (e.paid === 0) continue;
    entries.push(returned(round, e.id, e.paid, atMs, `back.${changes.size}`));
    names.push({ id: e.id, name: e.name });
  }
  const over = entrants.size === 0;
  const outcome: Outcome = { ...still(at), kept, ...(entries.length === 0 ? {} : { booking: booked(entries, names) }) };
  if (!over) return { ...outcome, durable: { ...durable, round: now, entrants, changes } };
  if (round.phase !== "cancelled") return { ...outcome, durable: { ...durable, round: { ...now, returning: false }, entrants, changes } };
  // The secret is told here too: anybody sees that there was nothing to hide.
  const secret = ctx.vault.open(round.id, round.sealed);
  const fresh = freshDraw();
  return {
    ...outcome,
    durable: { ...durable, round: null, entrants: fresh.entrants, changes: fresh.changes, closedMs: atMs },
    kept: [
      ...kept,
      {
        kind: "abandoned",
        viewer: null,
        fromMs: round.openedMs,
        toMs: atMs,
        body: {
          round: round.id,
          n: round.n,
          commitment: round.commitment,
          why: "cancelled",
          secret: secret === null ? "" : bytesToHex(secret),
        },
      },
    ],
  };
}

/** When it wants to be woken: to lock, to stop shaking, to pass over who did not answer, to give back the next part. */
export function drawDue(_: DrawSettings, { round }: DrawDurable): number | null {
  if (round === null) return null;
  if (round.returning) return 0;
  if (round.phase === "open") return round.locksMs;
  if (round.phase === "shaking") return round.shakenMs;
  const waits = round.winners.filter((w) => w.state === "waits").map((w) => w.untilMs + 1);
  return waits.length === 0 ? null : Math.min(...waits);
}
