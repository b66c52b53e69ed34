import { fold } from "../../core/kernel/fold";
import { gameOf } from "../../core/games/registry";
import { chanceFrom } from "../../core/kernel/chance";
import { arrivals, peopleFor } from "../../core/lab/arrivals";
import type { EveningRates } from "../../core/lab/rates";
import type { GivenSignal } from "../../core/module/game";
import type { Source } from "../../core/rehearsal/plan";
import type { Command } from "../../core/signals/signal";
import type { Viewer } from "../../core/signals/names";
import { viewerId } from "../../core/kernel/text";
import type { Sprite } from "../../core/wire/messages";
import type { LogRow } from "../ports/engine-store";

/** What comes next in a rehearsal, `afterMs` after it began. */
export type Coming = Readonly<
  { afterMs: number } & (
    { signal: GivenSignal } | { game: string; by: string; command: Command; viewer: Viewer | null } | { cue: string; by: string }
  )
>;
export type CrowdParts = Readonly<{
  people: readonly Viewer[];
  emotes: readonly string[];
  rewards: () => readonly string[];
  homeCurrency: string;
  sprites: readonly Sprite[];
  /** Games that run now, as their samples want them. */
  games: () => readonly Readonly<{ kind: string; settings: unknown; durable: unknown }>[];
  nowMs: () => number;
}>;
/** So many of a crowd's words are what one of the games would be told by its viewers. */
const sampleShare = 0.12;
/** What a crowd sends by itself; all else is a hand's. */
const byViewers: ReadonlySet<string> = new Set(["message", "follow", "membership", "gift", "tip", "reaction", "raid", "host"]);
/** The same, and what is bought on the platform itself. */
const byPlatform: ReadonlySet<string> = new Set([...byViewers, "purchase"]);

/** A crowd by its rates, and among it what viewers say to the games that run. Endless: the evening begins anew when it is over. */
export function* crowdOf(seed: number, rates: EveningRates, parts: CrowdParts): Generator<Coming, void> {
  const chance = chanceFrom(seed ^ 0x3a7c);
  const people = peopleFor(parts.people, rates.chatters);
  let times = 0;
  for (let evening = 0; ; evening += 1) {
    const beforeMs = evening * rates.hours * 3_600_000;
    let any = false;
    const { emotes, homeCurrency } = parts;
    for (const { afterMs, signal } of arrivals(seed + evening, rates, {
      people,
      emotes,
      lines: [],
      rewards: parts.rewards(),
      homeCurrency,
    })) {
      any = true;
      const { seq: _seq, atMs: _at, id: _id, ...given } = signal;
      yield { afterMs: beforeMs + afterMs, signal: given as GivenSignal };
      if (signal.kind !== "message" || chance() >= sampleShare) continue;
      for (const said of sampled(parts, (times += 1), chance)) yield { afterMs: beforeMs + afterMs, signal: as(said, signal.viewer) };
    }
    if (!any) return;
  }
}
/** The same by another: a sample's own viewers are made up. */
const as = (signal: GivenSignal, viewer: Viewer): GivenSignal =>
  "viewer" in signal && signal.viewer !== null ? ({ ...signal, viewer } as GivenSignal) : signal;

function sampled(parts: CrowdParts, times: number, chance: () => number): readonly GivenSignal[] {
  const able = parts
    .games()
    .flatMap(({ kind, settings, durable }) =>
      (gameOf(kind)?.samples ?? []).filter((s) => s.weight > 0).map((sample) => ({ sample, settings, durable })),
    );
  const total = able.reduce((sum, a) => sum + a.sample.weight, 0);
  let r = chance() * total;
  const chosen = able.find(({ sample }) => (r -= sample.weight) < 0);
  if (chosen === undefined) return [];
  const { sample, settings, durable } = chosen;
  const made = sample.make({
    settings,
    durable,
    sprites: parts.sprites,
    amount: 1 + Math.floor(chance() * 8),
    times,
    nowMs: parts.nowMs(),
    chance,
  });
  return made.signals.map((s) => s.signal).filter((s) => byViewers.has(s.kind));
}

/** Chat that was brought in from outside, line by line. */
export function* linesOf(lines: Extract<Source, { from: "lines" }>["lines"]): Generator<Coming, void> {
  for (const { afterMs, name, text } of lines)
    yield {
      afterMs,
      signal: { kind: "message", viewer: { id: viewerId(fold(name)) || "somebody", name, roles: ["viewer"] }, text, marks: [] },
    };
}

/** What of a row of the log can be played again; null for what came of something else, or was none of the crowd's. */
export function replayed(row: LogRow, beginMs: number, hands: boolean): Coming | null {
  const afterMs = Math.max(0, row.atMs - beginMs);
  const body = (row.body ?? {}) as Readonly<Record<string, unknown>>;
  if (row.kind === "message")
    return row.viewer === null
      ? null
      : { afterMs, signal: { kind: "message", viewer: row.viewer, text: typeof body["text"] === "string" ? body["text"] : "", marks: [] } };
  // Made-up shows are from the platform’s own hand, as the lab plays them.
  if ((row.source === "event" || row.source === "platform") && byPlatform.has(row.kind)) {
    const { notes: _, ...rest } = body;
    return { afterMs, signal: { ...rest, kind: row.kind, viewer: row.viewer } as unknown as GivenSignal };
  }
  if (row.kind === "purchase-request" && row.source === "page" && row.viewer !== null && typeof body["rewardId"] === "string")
    return {
      afterMs,
      signal: {
        kind: "purchase-request",
        viewer: row.viewer,
        rewardId: body["rewardId"],
        text: typeof body["text"] === "string" ? body["text"] : "",
        // As if the page had shown the price of now.
        shownPrice: Infinity,
      },
    };
  const own = row.source === "page" && row.viewer !== null;
  if (!own && (!hands || row.source !== "operator")) return null;
  const by = typeof body["by"] === "string" ? body["by"] : "somebody";
  if (row.kind === "cue") return typeof body["cueId"] === "string" ? { afterMs, cue: body["cueId"], by } : null;
  const { command, gameId } = body;
  if (row.kind !== "command" || typeof gameId !== "string" || typeof command !== "object" || command === null) return null;
  return { afterMs, game: gameId, by, command: command as Command, viewer: own ? row.viewer : null };
}
