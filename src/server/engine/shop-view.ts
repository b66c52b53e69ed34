import { gameOf } from "../../core/games/registry";
import { standsInWords } from "../../core/games/words";
import { wordsForViewers } from "../../core/module/game";
import type { Sale } from "../../core/rewards/ledger-view";
import type { RewardBook } from "../../core/rewards/settings";
import { type Tag, tagsFor } from "../../core/rewards/tags";
import type { Viewer } from "../../core/signals/names";
import type { WaitingSale } from "../../core/wire/messages";
import type { ShopHead } from "../../core/wire/to-viewer";
import type { ChannelRow } from "../ports/engine-store";
import type { ChannelContext } from "./context";
import type { LedgerCache } from "./ledger-cache";
import type { Modules } from "./modules";
import type { AlertBoard } from "./alert-board";

/** Without a show, what was asked for within so long waits in the booth; the rest under Review. */
const eveningMs = 12 * 3_600_000;
const mostListed = 50;

/** What viewers see on their page, and what of it waits for operators. */
export class ShopView {
  private icons = new Map<string, Tag["icon"]>();
  /** Grows with every sale that is made or decided, so that lists of them know when to look again. */
  private changes = 0;

  constructor(
    private readonly modules: Modules,
    private readonly context: ChannelContext,
    private readonly ledgerView: LedgerCache,
    private readonly alerts: AlertBoard,
    private readonly now: () => number,
    private readonly row: () => ChannelRow,
  ) {}

  renew(row: ChannelRow): void {
    this.icons = new Map(
      row.sprites.map((s) => [s.key, { url: s.url, columns: s.columns, rows: Math.max(1, Math.ceil(s.frames / s.columns)) }]),
    );
  }
  salesChanged(): void {
    this.changes += 1;
  }

  /** The shop's own schema has accepted its settings. */
  private book(): RewardBook | undefined {
    return this.modules.named("rewards")?.settings as RewardBook | undefined;
  }

  /** The price tags as one viewer may see them; null for one who is not known. */
  tags(viewer: Viewer | null): readonly Tag[] {
    const book = this.book();
    if (book === undefined) return [];
    const nowMs = this.now();
    return tagsFor(book, this.context.at(nowMs, this.row().hushed), { nowMs, viewer, icon: (key) => this.icons.get(key) ?? null });
  }

  /** What everyone on the viewer page sees beside the price tags. */
  head(order: readonly string[]): ShopHead {
    const show = this.modules.show();
    return {
      channel: this.row().name,
      points: this.context.pointsName,
      onAir: show?.state === "on",
      sinceMs: show?.state === "on" ? show.sinceMs : null,
      hushed: this.row().hushed,
      order: [...order],
      games: this.modules.games().map((m) => {
        const view = m.rules.view(m.settings, m.durable, "viewer", m.transient);
        return {
          id: m.id,
          kind: m.kind,
          name: m.name,
          on: view["on"] !== false,
          stands: standsInWords(m.kind, view),
          fair: gameOf(m.kind)?.fair?.(view) ?? null,
          view: (m.rules.viewerCommands?.length ?? 0) > 0 ? view : null,
        };
      }),
      top: [...this.ledgerView.top(10)],
    };
  }

  /** All that a viewer page shows at first. */
  page(viewer: Viewer | null) {
    const tags = this.tags(viewer);
    return {
      nowMs: this.now(),
      head: this.head(tags.map((t) => t.id)),
      tags,
      viewer: viewer === null ? null : { id: viewer.id, name: viewer.name, balance: this.ledgerView.balance(viewer.id) },
      mine: viewer === null ? [] : this.mine(viewer.id).map(({ id, mine }) => ({ id, mine: { ...mine } })),
      ...this.house(),
    };
  }

  /** What is one viewer's own in games and in the show, of those that have such. */
  mine(viewer: string): readonly Readonly<{ id: string; mine: Readonly<Record<string, unknown>> }>[] {
    return this.modules.list.flatMap((m) => {
      const mine = m.rules.mine?.(m.settings, m.durable, viewer) ?? null;
      return mine === null ? [] : [{ id: m.id, mine }];
    });
  }

  /** The rules of each game as viewers read them, and the words they can write in chat. */
  house(): Readonly<{ games: readonly { id: string; lines: readonly string[] }[]; commands: readonly { word: string; what: string }[] }> {
    const { homeCurrency: home, pointsName } = this.context;
    return {
      games: this.modules.games().flatMap((m) => {
        const game = gameOf(m.kind);
        return game === null ? [] : [{ id: m.id, lines: wordsForViewers(game, m.settings, { home, ownEmotes: 0, points: pointsName }) }];
      }),
      commands: this.modules.list.flatMap((m) => m.rules.wordsForViewers?.(m.settings, pointsName) ?? []).filter((c) => c.word !== ""),
    };
  }

  /** Sales that wait for a yes: one by one those of this evening, of the others how many. */
  waiting(): { count: number; first: WaitingSale[]; older: number; points: string; changes: number; unshown: WaitingSale[] } {
    const all = this.ledgerView.waiting();
    const show = this.modules.show();
    const sinceMs = show === null || show === undefined ? this.now() - eveningMs : show.sinceMs;
    const evening = all.filter((s) => s.atMs >= sinceMs);
    // What waits its turn in a queue, or was held under hush, is on its way still.
    const unshown = this.ledgerView.unshown(this.now()).filter((s) => !this.alerts.has(s.id));
    return {
      count: all.length,
      older: all.length - evening.length,
      first: evening.slice(0, mostListed).map(line),
      unshown: unshown.slice(0, mostListed).map(line),
      points: this.context.pointsName,
      changes: this.changes,
    };
  }
}

const line = (s: Sale): WaitingSale => ({
  id: s.id,
  atMs: s.atMs,
  rewardId: s.rewardId,
  reward: s.rewardName,
  viewer: s.viewer.name,
  price: s.price,
  text: s.text,
});
