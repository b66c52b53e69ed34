import { chanceFrom, mix32, pick } from "../kernel/chance";
import { compiled } from "../kernel/compiled";
import { fold } from "../kernel/fold";
import { refusal, type Refusal } from "../kernel/refusal";
import type { Module, Note, StepContext, StepOutcome } from "../module/module";
import { mayAs, type MessageSignal } from "../signals/signal";
import { count as thousands } from "../words/sentence";
import { fillTemplate, showable } from "../words/template";
import {
  type CommandBook,
  commandBookDefaults,
  commandBookSchema,
  type CommandDurable,
  commandDurableSchema,
  type OwnCommand,
} from "./settings";
import { commandsFront } from "./notes";

/** When which was answered last, by command and by command and viewer. Lost in a crash: then it answers once more. */
export type CommandTransient = Readonly<{ fired: ReadonlyMap<string, number> }>;

type At = Readonly<{ settings: CommandBook; durable: CommandDurable; transient: CommandTransient }>;

type Outcome = StepOutcome<CommandDurable, CommandTransient, never>;

const mostRemembered = 5_000;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: at.transient, effects: [], notes });

const no = (at: At, why: Refusal, subject: string): Outcome => still(at, [{ refusal: why, count: 1, subject }]);

const waitS = (lastMs: number | undefined, restMs: number, nowMs: number): number =>
  lastMs === undefined || restMs === 0 ? 0 : Math.ceil(Math.max(0, lastMs + restMs - nowMs) / 1000);

/** Which answer is given: the first, one by chance from the signal's own seed, or each in its turn. */
export function answerOf(command: OwnCommand, turn: number, seed: number): string {
  const answers = command.answers.filter((a) => a.trim() !== "");
  if (answers.length === 0) return "";
  if (command.how === "in-turn") return answers[turn % answers.length] ?? "";
  return command.how === "random" ? (answers[pick(chanceFrom(seed), answers.length)] ?? "") : (answers[0] ?? "");
}

/** Every chat message looks here, so the words of hundreds of commands are folded once. */
const commandsByWord = compiled(
  (book: CommandBook) => new Map(book.commands.filter((c) => c.on).flatMap((c) => c.words.map((w) => [fold(w), c] as const))),
);

const botsOf = compiled((book: CommandBook) => new Set(book.bots.map(fold)));

function onMessage(at: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const [first = "", second = ""] = signal.text.trim().split(/\s+/, 2);
  if (first === "" || first.length > 40) return still(at);
  const word = fold(first);
  const command = commandsByWord(at.settings).get(word);
  if (command === undefined) return still(at);
  const name = command.words[0] ?? "";
  const { viewer, atMs } = signal;
  // Quietly: a refusal for everyone who repeats a word would be louder than the answer.
  if (!mayAs(viewer, command.roles)) return no(at, refusal("command/role"), name);
  const own = `${command.id} ${viewer.id}`;
  const wait = Math.max(
    waitS(at.transient.fired.get(command.id), command.cooldownMs, atMs),
    waitS(at.transient.fired.get(own), command.ownCooldownMs, atMs),
  );
  if (wait > 0) return no(at, refusal("command/rests", { freeInS: wait }), name);
  const count = (at.durable.counts[command.id] ?? 0) + 1;
  const turn = at.durable.at[command.id] ?? 0;
  const durable: CommandDurable =
    command.counts || command.how === "in-turn"
      ? {
          counts: command.counts ? { ...at.durable.counts, [command.id]: count } : at.durable.counts,
          at: command.how === "in-turn" ? { ...at.durable.at, [command.id]: turn + 1 } : at.durable.at,
        }
      : at.durable;
  const text = fillTemplate(answerOf(command, turn, mix32(signal.seq, ctx.salt)), {
    viewer: viewer.name,
    target: showable(second.replace(/^@/, ""), ctx.hiddenWords, 40) || viewer.name,
    text: showable(signal.text.trim().slice(first.length).trim(), ctx.hiddenWords),
    count,
    balance: thousands(ctx.ledgerView.balance(viewer.id)),
    points: ctx.pointsName,
    channel: ctx.channelName,
  });
  const kept = at.transient.fired.size >= mostRemembered ? [] : [...at.transient.fired];
  return {
    durable,
    transient: { fired: new Map([...kept, [command.id, atMs], ...(command.ownCooldownMs > 0 ? [[own, atMs] as const] : [])]) },
    effects: [],
    notes: [{ did: "command/answered", count: 1, subject: name }],
    orders: [{ do: "say", text }],
  };
}

export const commandRules: Module<CommandBook, CommandDurable, CommandTransient, never> = {
  ...commandsFront,
  settings: commandBookSchema,
  defaults: commandBookDefaults,
  freshDurable: () => ({ counts: {}, at: {} }),
  freshDust: () => ({ fired: new Map() }),
  durable: commandDurableSchema,
  single: true,
  hears: ["message"],
  // Other programs in chat are answered by nothing, so that no two of them talk to each other.
  stops: (book, _, signal) => (signal.kind === "message" && botsOf(book).has(fold(signal.viewer.name)) ? "unanswered" : null),
  chatWords: (book) => book.commands.flatMap((c) => c.words),
  wordsForViewers: (book) =>
    book.commands
      .filter((c) => c.on && c.about !== "" && c.roles.includes("viewer"))
      .map((c) => ({ word: c.words.join(" "), what: c.about })),
  step: (at, signal, ctx) => (signal.kind === "message" ? onMessage(at, signal, ctx) : still(at)),
  view: (_settings, durable, audience) => (audience === "operator" ? { counts: durable.counts } : {}),
};
