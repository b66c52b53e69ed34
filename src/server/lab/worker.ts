import type { Logger } from "pino";
import { inputOf, type LabAsk, labAskSchema, type LabResult, questionOf, settingsInstead } from "../../core/lab/ask";
import { ratesOfRoom, type EveningRates } from "../../core/lab/rates";
import { summaryOf } from "../../core/lab/statistics";
import { ok, refused, type Refusal, refusal, type Result } from "../../core/kernel/refusal";
import type { LabQuestion } from "../../core/module/lab";
import { readSettings } from "../../core/modules";
import type { Clock } from "../ports/clock";
import type { ChannelRow, LedgerRows } from "../ports/engine-store";
import type { LabRow, LabStore } from "../ports/lab-store";
import type { LabJob, LabPart, LabPlayed } from "./job";
import { markOf } from "./mark";

const leaseMs = 15_000;
const idleMs = 400;
const awayMs = 2_000;
const beatMs = 500;
/** So many evenings a part, so that progress is told and a stop is heard soon. */
const partOf = { first: 4, usual: 40, aimMs: 250 };

export type Playing = Readonly<{ size: number; play: (thread: number, part: LabPart) => Promise<LabPlayed>; end: () => Promise<void> }>;
export type LabDeps = Readonly<{
  lab: LabStore;
  channel: (row: LabRow) => Promise<Readonly<{ row: ChannelRow; ledger: LedgerRows }> | null>;
  threads: (job: LabJob) => Playing;
  clock: Clock;
  log: Logger;
  owner: string;
}>;
type Ready = Readonly<{ job: LabJob; question: LabQuestion; mark: string }>;

/** Answers questions, one after another, in a process of its own: each is a row, so a kill at any moment loses but the work. */
export class LabWorker {
  private stopping = false;
  private running: Promise<void> = Promise.resolve();

  constructor(private readonly deps: LabDeps) {}

  start(): void {
    this.running = this.run();
  }
  async stop(): Promise<void> {
    this.stopping = true;
    await this.running;
  }

  private async run(): Promise<void> {
    const { lab, clock, log, owner } = this.deps;
    while (!this.stopping) {
      let waitMs = idleMs;
      try {
        const row = await lab.claim(owner, clock.now(), leaseMs);
        if (row !== null) {
          await this.work(row);
          waitMs = 0;
        }
      } catch (error) {
        log.warn({ err: String(error) }, "the odds lab waits: the database does not answer");
        waitMs = awayMs;
      }
      if (waitMs > 0) await new Promise((resolve) => setTimeout(resolve, waitMs));
    }
  }

  private async work(row: LabRow): Promise<void> {
    const { lab, clock, log, owner } = this.deps;
    const ready = await this.ready(row);
    if (!ready.ok) return lab.end(row.id, owner, { why: ready.refusal }, clock.now());
    let end: Awaited<ReturnType<LabWorker["played"]>>;
    try {
      end = await this.played(row, ready.value);
    } catch (error) {
      log.error({ err: error instanceof Error ? error.stack : String(error), question: row.id }, "an evening of the lab failed");
      end = { why: refusal("lab/broken") };
    }
    // Whoever stops Izzam gives it to the next one: it is begun again.
    if (end !== null) await lab.end(row.id, owner, end, clock.now());
  }

  /** All that the question needs, looked at before anything is played. */
  private async ready(row: LabRow): Promise<Result<Ready>> {
    const { lab, channel, clock } = this.deps;
    const ask = labAskSchema.safeParse(row.ask);
    if (!ask.success) return refused("lab/unreadable");
    const of = await channel(row);
    const game = of?.row.games.find((g) => g.id === ask.data.module);
    if (of === null || game === undefined) return refused("lab/gone");
    const question = questionOf(game.kind, ask.data.question);
    if (question === null) return refused("lab/unreadable");
    const input = inputOf(question, ask.data.input);
    if (!input.ok) return input;
    const { settings, why } = readSettings(game.kind, game.settings);
    if (why !== null) return refused("lab/gone");
    if (ask.data.instead !== null) {
      const instead = settingsInstead(game.kind, settings, ask.data.instead);
      if (!instead.ok) return instead;
    }
    const rates = question.crowd ? await this.rates(lab, row, ask.data) : ok([]);
    if (!rates.ok) return rates;
    return ok({ job: { ...of, fromMs: clock.now(), ask: ask.data, rates: rates.value }, question, mark: markOf(of.row.games) });
  }
  private async rates(lab: LabStore, { channel }: LabRow, { evening }: LabAsk): Promise<Result<readonly EveningRates[]>> {
    if (evening.like === "room") return ok([ratesOfRoom(evening.room, evening.hours)]);
    if (evening.like === "log") {
      const chat = await lab.ratesOfChat(channel, evening.log);
      return chat === null ? refused("lab/no-chat") : ok([chat]);
    }
    const past = await lab.rates(channel, evening.shows);
    return past.length === 0 ? refused("lab/no-shows") : ok(past);
  }

  private async played(
    row: LabRow,
    { job, question, mark }: Ready,
  ): Promise<Readonly<{ result: LabResult; mark: string }> | Readonly<{ why: Refusal }> | null> {
    const { lab, clock, owner, threads } = this.deps;
    const playing = threads(job);
    const fromMs = performance.now();
    const parts: LabPlayed[] = [];
    let [next, done] = [0, 0];
    let size = partOf.first;
    let word: "go-on" | "stop" | "gone" = "go-on";
    const heard = (): string => word;
    const beat = setInterval(() => {
      void lab
        .beat(row.id, owner, done, clock.now(), leaseMs)
        .then((said) => (word = said))
        .catch(() => undefined);
    }, beatMs);
    const { n } = job.ask;
    const one = async (thread: number): Promise<void> => {
      while (next < n && word === "go-on" && !this.stopping) {
        const part = { from: next, to: Math.min(n, next + size) };
        next = part.to;
        const began = performance.now();
        parts.push(await playing.play(thread, part));
        done += part.to - part.from;
        const took = Math.max(1, performance.now() - began);
        size = Math.max(1, Math.min(partOf.usual * 10, Math.round(((part.to - part.from) * partOf.aimMs) / took)));
      }
    };
    try {
      await Promise.all(Array.from({ length: playing.size }, (_, i) => one(i)));
    } finally {
      clearInterval(beat);
      await playing.end();
    }
    if (heard() === "gone" || (this.stopping && done < n)) return null;
    if (done === 0) return { why: refusal("lab/stopped") };
    return {
      mark,
      result: resultOf(parts, question, {
        ms: performance.now() - fromMs,
        shows: job.ask.evening.like === "last" ? job.rates.length : 0,
        stopped: done < n,
      }),
    };
  }
}

const wholeUnits: ReadonlySet<LabQuestion["unit"]> = new Set(["times", "people", "waiting", "points"]);
export function resultOf(
  given: readonly LabPlayed[],
  { unit }: Pick<LabQuestion, "unit">,
  about: Readonly<{ ms: number; shows: number; stopped: boolean }>,
): LabResult {
  const parts = [...given].sort((a, b) => a.from - b.from);
  const plain = parts.flatMap((p) => p.plain);
  const other = parts.some((p) => p.instead !== null) ? parts.flatMap((p) => p.instead ?? []) : null;
  const whole = wholeUnits.has(unit);
  let [more, less] = [0, 0];
  // What did not come to pass would have come later: it is more than any number.
  for (const [i, value] of (other ?? []).entries()) {
    const [a, b] = [plain[i] ?? Infinity, value ?? Infinity];
    if (b > a) more += 1;
    if (b < a) less += 1;
  }
  return {
    plain: summaryOf(plain, whole),
    instead: other === null ? null : summaryOf(other, whole),
    more,
    less,
    signals: parts.reduce((sum, p) => sum + p.signals, 0),
    ...about,
  };
}
