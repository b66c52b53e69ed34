import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { Note } from "../../core/module/module";
import type { Sale } from "../../core/rewards/ledger-view";
import type { Command } from "../../core/signals/signal";
import type { House, Viewer } from "../../core/signals/names";
import type { Asked } from "./asked";
import type { ChannelContext } from "./context";
import type { LedgerCache } from "./ledger-cache";
import type { Modules } from "./modules";
import type { SignalQueue } from "./queue";
import type { ModuleNote } from "./turn-kit";

export type RequestDeps = Readonly<{
  queue: SignalQueue;
  asked: Asked;
  modules: Modules;
  context: ChannelContext;
  ledgerView: LedgerCache;
  now: () => number;
  closed: () => boolean;
  /** A sale of long ago; null when there is none, or nobody can say. */
  oldSale: (sale: string) => Promise<Sale | null>;
}>;

/** A page sends the same request again until it is answered, also to a process that has started since. */
const fromPage = { what: "", by: "", saidNo: (notes: readonly ModuleNote[]): boolean => notes.some((n) => n.note.refusal !== undefined) };

/** What a viewer page asks for, once it is known whose it is. */
export type ViewerAsk = (requests: Requests, viewer: Viewer) => Promise<Result<Note>>;
/** What operators and viewers ask for and wait to hear of. Each resolves when it is committed, or with the reason why not. */
export class Requests {
  constructor(private readonly deps: RequestDeps) {}

  async command(moduleId: string, by: string, id: string, command: Command, house?: House): Promise<Result<readonly Note[]>> {
    const { queue, asked, modules, ledgerView } = this.deps;
    const module = modules.named(moduleId);
    if (module === undefined) return refused("game/unknown");
    // One of long ago is fetched first; what is in memory is newer.
    const about = module.rules.saleOf?.(command) ?? null;
    if (about !== null && ledgerView.sale(about) === null) {
      const sale = await this.deps.oldSale(about);
      if (sale !== null) ledgerView.remember(sale);
    }
    const gameId = module.id;
    const done = await asked.once("operator", id, { what: `${gameId} ${JSON.stringify(command)}`, by }, () => {
      const as = { by, signedIn: true, ...(house === undefined ? {} : { house }) };
      const signal = { kind: "command" as const, atMs: this.deps.now(), id, gameId, ...as, viewer: null, command };
      return queue.take({ signal, source: "operator", to: module }).done;
    });
    // What rules made of it in other modules stands in the talk; the one who asked hears of what was asked.
    return done.ok ? ok(done.value.filter((n) => n.game === gameId).map((n) => n.note)) : done;
  }

  async cue(cueId: string, by: string, id: string, via: "key" | "click" | "address", house?: House): Promise<Result<readonly Note[]>> {
    const { queue, asked, modules } = this.deps;
    const [module] = modules.hearing("cue");
    if (module === undefined) return refused("cue/unknown");
    const done = await asked.once("operator", id, { what: via === "address" ? "" : `cue ${cueId}`, by }, () => {
      const as = { by, ...(house === undefined ? {} : { house }) };
      const signal = { kind: "cue" as const, atMs: this.deps.now(), id, cueId, ...as, via, viewer: null };
      return queue.take({ signal, source: "operator", to: module }).done;
    });
    if (!done.ok) return done;
    const no = done.value.find((n) => n.game === module.id && n.note.refusal !== undefined)?.note.refusal;
    return no === undefined ? ok(done.value.map((n) => n.note)) : { ok: false, refusal: no };
  }

  /** Somebody wants a reward on the viewer page. */
  async purchase(viewer: Viewer, request: Readonly<{ id: string; reward: string; text: string; price: number }>): Promise<Result<Note>> {
    const { queue, asked, modules, context } = this.deps;
    const shop = modules.hearing("purchase-request").find((m) => m.rules.saleOf !== undefined);
    if (shop === undefined) return refused("reward/gone");
    const id = `${viewer.id}:${request.id}`;
    const done = await asked.once("page", id, fromPage, () => {
      const signal = {
        kind: "purchase-request" as const,
        atMs: this.deps.now(),
        id,
        viewer: { ...viewer, name: context.nameFor(viewer.name) },
        rewardId: request.reward,
        text: request.text,
        shownPrice: request.price,
      };
      return queue.take({ signal, source: "page" }).done;
    });
    if (!done.ok) return done;
    // Somebody else may have stopped it before the shop heard of it.
    const note = done.value.find((n) => n.game === shop.id)?.note ?? done.value.find((n) => n.note.refusal !== undefined)?.note;
    if (note === undefined) return refused("reward/gone");
    return note.refusal === undefined ? ok(note) : { ok: false, refusal: note.refusal };
  }

  /** A viewer does something in a game on the viewer page, in their own name. */
  async act(viewer: Viewer, request: Readonly<{ id: string; game: string; command: Command }>): Promise<Result<Note>> {
    const { queue, asked, modules, context } = this.deps;
    const module = modules.byId(request.game);
    if (module === undefined) return refused("game/unknown");
    if (module.rules.viewerCommands?.includes(request.command.do) !== true) return refused("game/cannot");
    // What is done in a rehearsal is forgotten with it; who is not asked to rehearse is not to pay for it.
    if (modules.show()?.state === "rehearsing") return refused("game/rehearsing");
    const id = `${viewer.id}:${request.id}`;
    const known = { ...viewer, name: context.nameFor(viewer.name) };
    const done = await asked.once("page", id, fromPage, () => {
      const { command } = request;
      const signal = { kind: "command" as const, atMs: this.deps.now(), id, gameId: module.id, by: known.name, viewer: known, command };
      return queue.take({ signal, source: "page", to: module }).done;
    });
    if (!done.ok) return done;
    const note = done.value.find((n) => n.game === module.id)?.note ?? done.value.find((n) => n.note.refusal !== undefined)?.note;
    if (note === undefined) return refused("game/cannot");
    return note.refusal === undefined ? ok(note) : { ok: false, refusal: note.refusal };
  }

  /** They have the viewer page open: as good as a word for being there. */
  here(viewer: Viewer): void {
    const { queue, modules } = this.deps;
    if (this.deps.closed() || modules.hearing("here").length === 0) return;
    queue.take({ signal: { kind: "here", atMs: this.deps.now(), id: "", viewer }, source: "page" });
  }
}
