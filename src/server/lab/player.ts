import { inputOf, questionOf, settingsInstead } from "../../core/lab/ask";
import type { LabQuestion } from "../../core/module/lab";
import { LabChannel } from "./channel";
import type { LabJob, LabPart, LabPlayed } from "./job";

/** Plays parts of one job: each evening as the channel is, and again as it would be. */
export class LabPlayer {
  private readonly channel: LabChannel;
  private readonly question: LabQuestion;
  private readonly input;
  private readonly instead: unknown;

  /** Throws what is wrong with the job; whoever gave it has looked before. */
  constructor(private readonly job: LabJob) {
    const { row, ledger, fromMs, ask } = job;
    this.channel = new LabChannel(row, ledger, fromMs);
    const game = row.games.find((g) => g.id === ask.module);
    const question = game === undefined ? null : questionOf(game.kind, ask.question);
    if (game === undefined || question === null) throw new Error("there is no such question");
    const input = inputOf(question, ask.input);
    if (!input.ok) throw new Error(String(input.refusal.facts["why"]));
    const instead = ask.instead === null ? null : settingsInstead(game.kind, this.channel.settingsOf(ask.module), ask.instead);
    if (instead?.ok === false) throw new Error(instead.refusal.code);
    this.question = question;
    this.input = input.value;
    this.instead = instead === null ? null : instead.value;
  }

  play({ from, to }: LabPart): LabPlayed {
    const { ask, rates } = this.job;
    const plain: (number | null)[] = [];
    const instead: (number | null)[] | null = this.instead === null ? null : [];
    let signals = 0;
    for (let seed = from; seed < to; seed += 1) {
      const crowd = this.question.crowd ? (rates[seed % Math.max(1, rates.length)] ?? null) : null;
      const asked = { module: ask.module, question: this.question, input: this.input, seed, rates: crowd };
      const one = this.channel.evening(asked);
      plain.push(one.value);
      signals += one.signals;
      if (instead === null) continue;
      const other = this.channel.evening({ ...asked, settings: this.instead });
      instead.push(other.value);
      signals += other.signals;
    }
    return { from, to, plain, instead, signals };
  }
}
