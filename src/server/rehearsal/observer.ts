import { gameOf } from "../../core/games/registry";
import type { Entry } from "../../core/points/ledger";
import { Fights } from "../../core/rehearsal/fights";
import { type ReportPart, reportOf } from "../../core/rehearsal/report";
import { Watch } from "../../core/rehearsal/watch";
import type { Sale } from "../../core/rewards/ledger-view";
import type { PlanItem } from "../../core/show/plan";
import type { TimelineEvent } from "../../core/show/timeline";
import type { Runner } from "../engine/runner";
import type { Publication } from "../ports/bus";
import type { KeptRow, LedgerRows, LogRow } from "../ports/engine-store";

const mostMarks = 4_000;

/** Sees what a rehearsal would have stored, and what it tells its pages; of that it makes what was learnt. */
export class Observer {
  readonly watch = new Watch();
  readonly marks: TimelineEvent[] = [];
  readonly fights = new Fights();

  constructor(
    private readonly runner: Runner,
    private readonly fromMs: number,
    private readonly nowMs: () => number,
    ledger: LedgerRows,
  ) {
    for (const { account, balance } of ledger.accounts) if (account.startsWith("v:")) this.has(balance);
  }
  private has(balance: number): void {
    this.watch.richest = Math.max(this.watch.richest, balance);
  }

  rows(rows: readonly LogRow[]): void {
    for (const { kind, atMs, body } of rows) {
      const told = (body ?? {}) as Readonly<{ gameId?: string; what?: string; cueId?: string }>;
      if (kind === "cue" && told.cueId !== undefined) this.watch.cue(told.cueId, atMs - this.fromMs);
      if (kind === "happened" && told.gameId !== undefined && told.what !== undefined)
        this.watch.happened(told.gameId, told.what, atMs - this.fromMs);
    }
  }
  kept(rows: readonly KeptRow[]): void {
    for (const row of rows) this.fights.add(row.gameId, row);
  }
  booked(entries: readonly Entry[], sales: readonly Sale[]): void {
    this.watch.booked(entries, sales);
    for (const { postings } of entries)
      for (const { account } of postings) if (account.startsWith("v:")) this.has(this.runner.ledgerView.balance(account.slice(2)));
  }
  heard(publication: Publication): void {
    if (publication.kind === "talk") this.watch.signal(publication.of, publication.notes, publication.atMs - this.fromMs);
    if (publication.kind === "state") this.gauge(publication.game);
    if (publication.kind !== "mark") return;
    this.marks.push(publication.mark);
    if (this.marks.length > mostMarks * 2) this.marks.splice(0, mostMarks);
  }
  /** A game stands otherwise: how full it is now, and whether it was on at all. */
  private gauge(id: string): void {
    const module = this.runner.modules.byId(id);
    const gauge = module === undefined ? undefined : gameOf(module.kind)?.gauge;
    if (module === undefined || (gauge === undefined && this.watch.ran.has(id))) return;
    const view = module.rules.view(module.settings, module.durable, "operator", module.transient);
    if (view["on"] === true) this.watch.ran.add(id);
    const told = gauge?.(view) ?? null;
    if (told !== null) this.watch.gauge(id, told.share, told.ends, this.nowMs() - this.fromMs);
  }
  /** As it begins: from then on games tell when they stand otherwise. */
  begins(): void {
    for (const { id } of this.runner.modules.list) this.gauge(id);
  }
  /** Every now and then: what nobody tells of. */
  look(): void {
    for (const { id, waiting, full } of this.runner.queues()) this.watch.queue(id, waiting, full);
  }
  /** How overlay pages that take part draw. */
  pages(pages: readonly Readonly<{ framesPerSecond: number; late: number }>[]): void {
    for (const { framesPerSecond, late } of pages) {
      const { frames } = this.watch;
      this.watch.frames = {
        pages: Math.max(frames.pages, pages.length),
        late: Math.max(frames.late, late),
        least: framesPerSecond > 0 ? Math.min(frames.least ?? Infinity, framesPerSecond) : frames.least,
      };
    }
  }

  learnt(): readonly ReportPart[] {
    const { modules } = this.runner;
    const show = modules.list.find((m) => m.rules.snapshot !== undefined);
    // The show's own view, as operators see it: its plan, and what of it was done.
    const view = (show === undefined ? {} : show.rules.view(show.settings, show.durable, "operator", show.transient)) as {
      plan?: { items: readonly PlanItem[] };
      done?: readonly { item: string }[];
      skipped?: readonly string[];
    };
    return reportOf(this.watch, {
      ms: this.nowMs() - this.fromMs,
      modules: modules.list,
      plan: view.plan?.items ?? [],
      done: (view.done ?? []).map((d) => d.item),
      skipped: view.skipped ?? [],
      points: modules.provided().pointsName ?? "points",
    });
  }
}
