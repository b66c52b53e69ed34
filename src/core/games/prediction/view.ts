import type { Row } from "../../module/game";
import type { Audience } from "../../module/module";
import { apportion } from "../../kernel/apportion";
import { keyOf, type PredictionDurable, type PredictionSettings, type Round, type Stakes } from "./settings";
import { letterOf } from "./letters";
import { oddsInWords, potOf } from "./words";

const shownTop = 3;

const tops = new WeakMap<Stakes, readonly string[][]>();

/** Who staked most on each outcome, most first. */
function topOf(backers: Stakes, outcomes: number): readonly string[][] {
  let found = tops.get(backers);
  if (found === undefined) {
    const lists: { name: string; stake: number; order: number }[][] = Array.from({ length: outcomes }, () => []);
    for (const s of backers.values()) {
      const list = lists[s.outcome];
      const last = list?.[shownTop - 1];
      if (list === undefined || (last !== undefined && s.stake <= last.stake)) continue;
      list.push(s);
      list.sort((a, b) => b.stake - a.stake || a.order - b.order);
      if (list.length > shownTop) list.pop();
    }
    tops.set(backers, (found = lists.map((l) => l.map((s) => s.name))));
  }
  return found;
}

/** Whole per cent that sum to 100; all 0 where nothing is there yet. */
const shares = (weights: readonly number[]): readonly number[] =>
  weights.every((w) => w === 0) ? weights.map(() => 0) : apportion(100, weights);

function outcomesOf(round: Round, backers: Stakes, top: boolean): readonly Row[] {
  const share = shares(round.totals.map((t) => (round.stakes ? t.stakes : t.people)));
  const names = top && round.stakes ? topOf(backers, round.outcomes.length) : [];
  return round.outcomes.map((label, i) => ({
    label,
    stakes: round.totals[i]?.stakes ?? 0,
    people: round.totals[i]?.people ?? 0,
    share: share[i] ?? 0,
    odds: round.stakes ? oddsInWords(round, i) : "",
    top: names[i] ?? [],
  }));
}

/** What each may see: names and sums to all; of a rehearsal viewers hear nothing. */
export function predictionView(settings: PredictionSettings, durable: PredictionDurable, audience: Audience): Row {
  const { on, foreign, results } = durable;
  const round = durable.round?.rehearsal === true && audience === "viewer" ? null : durable.round;
  const common = {
    on,
    phase: round?.phase ?? "",
    title: round?.title ?? "",
    stakes: round?.stakes ?? settings.stakes,
    outcomes: round === null ? [] : outcomesOf(round, durable.backers, settings.looks.top),
    pot: round === null ? 0 : potOf(round),
    people: round?.people ?? 0,
    openedMs: round?.openedMs ?? 0,
    locksMs: round?.locksMs ?? 0,
    endedMs: round?.endedMs ?? 0,
    result: round?.result ?? null,
    paid: round?.paid ?? null,
    word: settings.word,
    foreign:
      foreign === null
        ? null
        : {
            ...foreign,
            id: undefined,
            outcomes: foreign.outcomes.map((o, i) => ({ ...o, share: shares(foreign.outcomes.map((x) => x.stakes || x.people))[i] ?? 0 })),
          },
  };
  // In a preview it stands there before anybody opened it.
  if (audience === "overlay") return { ...common, looks: settings.looks, next: { title: settings.title, outcomes: settings.outcomes } };
  const shown = {
    ...common,
    least: round?.least ?? settings.least,
    most: round?.most ?? settings.most,
    results: results
      .filter((r) => audience === "operator" || !r.rehearsal)
      .slice(0, 8)
      .map(({ n, title, label, atMs, people, pot }) => ({ n, title, label, atMs, people, pot })),
  };
  if (audience === "viewer") return shown;
  const busy = round !== null && round.phase !== "done" && round.phase !== "cancelled";
  return {
    ...shown,
    canOpen: on && !busy,
    late: round?.late ?? false,
    lockedMs: round?.lockedMs ?? 0,
    round: round?.id ?? "",
    through: round?.through ?? 0,
    templates: settings.templates,
    set: { title: settings.title, outcomes: settings.outcomes, openMs: settings.openMs },
  };
}

/** What is one viewer's own in the prediction that runs, and their streak. */
export function predictionMine(_: PredictionSettings, durable: PredictionDurable, viewer: string): Row | null {
  const { round } = durable;
  const own = round === null || round.rehearsal ? undefined : durable.backers.get(keyOf(viewer));
  const streak = durable.streaks.get(keyOf(viewer)) ?? 0;
  if (own === undefined && streak === 0) return null;
  return { outcome: own?.outcome ?? null, letter: own === undefined ? "" : letterOf(own.outcome), stake: own?.stake ?? 0, streak };
}

/** Points that lie in it; while parts are paid nobody can say. */
export function predictionPool({ round }: PredictionDurable): number | null {
  if (round === null || round.phase === "done" || round.phase === "cancelled") return 0;
  return (round.phase === "open" || round.phase === "locked") && !round.rehearsal ? potOf(round) : null;
}
