import { openVault } from "../../core/chance/vault";
import { emoteIndex, type EmoteIndex } from "../../core/chat/emotes";
import { mix32 } from "../../core/kernel/chance";
import { deepFreeze } from "../../core/kernel/freeze";
import { arrivals, peopleFor } from "../../core/lab/arrivals";
import type { EveningRates } from "../../core/lab/rates";
import type { LabAt, LabInput, LabMeasure, LabQuestion, LabScript } from "../../core/module/lab";
import type { Viewer } from "../../core/signals/names";
import { ChannelContext } from "../engine/context";
import { LedgerCache } from "../engine/ledger-cache";
import { Modules, type Running } from "../engine/modules";
import type { Turn } from "../engine/turn-kit";
import type { ChannelRow, LedgerRows } from "../ports/engine-store";
import { Evening, type EveningKit, type EveningOf } from "./evening";

/** Numbers of simulated signals begin where no stored one reaches, so that nothing made of them meets a real one. */
const firstSeq = 1_000_000_000;
const isOff = ({ rules, settings, durable }: Readonly<Running>): boolean => (rules.provides?.(settings, durable).show ?? null) === null;

/**
 * A channel on copies, in which evenings are played without a clock: the rules, the ledger and the turns are those of the
 * engine; nothing is stored, shown or said. One of it plays one evening at a time, each from where the channel stands.
 */
export class LabChannel {
  private readonly modules = new Modules();
  private readonly ledger = new LedgerCache();
  private readonly context: ChannelContext;
  private readonly emotes: EmoteIndex;
  private readonly words: readonly string[];
  private readonly salt: number;
  private readonly people: readonly Viewer[];
  private readonly begins: readonly Readonly<Running>[];

  constructor(
    row: ChannelRow,
    rows: LedgerRows,
    private readonly fromMs: number,
  ) {
    this.modules.load(row);
    this.ledger.load(rows, "");
    this.begins = this.modules.list.map((m) => ({ ...m, durable: deepFreeze(m.durable) }));
    this.context = new ChannelContext(this.modules, this.ledger, row, openVault("lab"));
    this.emotes = emoteIndex(row.words);
    this.salt = row.salt;
    this.words = row.words.map((w) => w.word);
    this.people = rows.accounts
      .filter((a) => a.account.startsWith("v:"))
      .map((a) => ({ id: a.account.slice(2), name: a.name, roles: ["viewer"] as const }));
  }

  /** Settings of a module as they would be in this evening; null when it is not there, or does not run. */
  settingsOf(module: string): unknown {
    return this.begins.find((m) => m.id === module)?.settings ?? null;
  }

  private readonly reached = new Map<string, ReadonlySet<string>>();
  /** Modules that can reach one: those whose settings name it, or name who names it. */
  private reaching(target: Readonly<Running>): ReadonlySet<string> {
    const known = this.reached.get(target.id);
    if (known !== undefined) return known;
    const texts = new Map(this.begins.map((m) => [m.id as string, JSON.stringify(m.settings)]));
    const reached = new Set<string>([target.id]);
    const names = new Set<string>([target.id]);
    for (let grew = true; grew;) {
      grew = false;
      for (const m of this.begins) {
        if (reached.has(m.id)) continue;
        const said = texts.get(m.id) ?? "";
        if (![...names].some((name) => said.includes(`"${name}"`))) continue;
        reached.add(m.id);
        names.add(m.id);
        for (const cue of m.rules.provides?.(m.settings, m.durable).cues ?? []) names.add(cue);
        grew = true;
      }
    }
    this.reached.set(target.id, reached);
    return reached;
  }

  /** Plays one evening for a question. `settings`: those of the module that is asked about, where they are to be others. */
  evening(
    asked: Readonly<{
      module: string;
      question: LabQuestion;
      input: LabInput;
      seed: number;
      rates: EveningRates | null;
      settings?: unknown;
    }>,
  ): EveningOf {
    const { module: id, question, input, seed } = asked;
    const target = this.begins.find((m) => m.id === id);
    if (target === undefined) throw new Error("who is asked about is not there");
    const settings = asked.settings ?? target.settings;
    const given = asked.rates === null ? null : (question.rates?.(asked.rates, { settings, input }) ?? asked.rates);
    const ms = (given?.hours ?? 0) * 3_600_000;
    const at: LabAt = { settings, input, id, fromMs: this.fromMs, ms, seed };
    const reached = question.whole === true ? null : this.reaching(target);
    this.stand(question.crowd, (m) => (m.id === id ? { settings, fresh: question.fresh === true } : null));
    const kit = this.kitOf(seed, question.crowd, reached);
    return this.taken(() =>
      new Evening(kit, question.measure(at), at).play(given === null ? [] : this.crowd(seed, given, []), question.script?.(at) ?? []),
    );
  }

  /** Plays one whole show, with all that it leads to told turn by turn: from it a log can be made. */
  record(
    show: Readonly<{
      seed: number;
      rates: EveningRates;
      lines: readonly string[];
      extra: LabScript;
      by: string;
      onTurn: (turn: Turn) => void;
    }>,
  ): void {
    const { seed, rates, lines, extra, by, onTurn } = show;
    this.stand(true, () => null);
    const at: LabAt = { settings: null, input: {}, id: "", fromMs: this.fromMs, ms: rates.hours * 3_600_000, seed };
    const unasked: LabMeasure = { see: () => undefined, value: () => null };
    this.taken(() => new Evening({ ...this.kitOf(seed, true, null), by, onTurn }, unasked, at).play(this.crowd(seed, rates, lines), extra));
  }

  /** Puts all modules where they begin. An evening with a crowd is a show of its own. */
  private stand(crowd: boolean, otherwise: (m: Readonly<Running>) => Readonly<{ settings: unknown; fresh: boolean }> | null): void {
    this.modules.list = this.begins.map((m) => {
      const other = otherwise(m);
      const settings = other === null ? m.settings : other.settings;
      const fresh = other?.fresh === true || (crowd && m.rules.snapshot !== undefined && !isOff(m));
      return {
        ...m,
        settings,
        durable: (fresh ? m.rules.freshDurable(settings) : m.durable) as unknown,
        transient: m.rules.freshDust() as unknown,
      };
    });
  }
  private kitOf(seed: number, show: boolean, reached: ReadonlySet<string> | null): EveningKit {
    let seq = firstSeq;
    const { list } = this.modules;
    return {
      modules: list.filter((m) => reached === null || reached.has(m.id)),
      show: show ? (list.find((m) => m.rules.snapshot !== undefined) ?? null) : null,
      // Games draw from the channel's salt and the signal's number: here each evening has a salt of its own.
      ctx: () => ({ ...this.context.at(this.fromMs, false), salt: mix32(this.salt, seed) }),
      ledger: this.ledger,
      emotes: this.emotes,
      vault: openVault(`lab ${seed}`),
      nextSeq: () => (seq += 1),
    };
  }
  /** Whatever was booked meanwhile is taken back. */
  private taken<T>(play: () => T): T {
    try {
      return play();
    } finally {
      this.ledger.takeBack();
    }
  }

  private crowd(seed: number, rates: EveningRates, lines: readonly string[]): ReturnType<typeof arrivals> {
    const rewards = this.modules.list.flatMap((m) => m.rules.provides?.(m.settings, m.durable).sells ?? []);
    return arrivals(seed, rates, {
      people: peopleFor(this.people, rates.chatters),
      emotes: this.words,
      lines,
      rewards,
      homeCurrency: this.context.homeCurrency,
    });
  }
}
