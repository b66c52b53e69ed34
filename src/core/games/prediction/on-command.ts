import { fold } from "../../kernel/fold";
import type { StepContext } from "../../module/module";
import type { CommandSignal } from "../../signals/signal";
import type { PredictionCommand } from "./actions";
import { outcomeMeant, questionIn } from "./asked";
import { type At, no, type Outcome, still } from "./outcome";
import { cancelled, locked, opened, type Question, resulted, takenBack } from "./round";
import type { PredictionSettings } from "./settings";
import { letterOf } from "./letters";
import { backed } from "./staking";
import { rulesTold } from "./words";

const minute = 60_000;
const dayMs = 86_400_000;

export function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { durable, settings } = at;
  const { round } = durable;
  const { atMs, gameId, viewer, by } = signal;
  // The engine has read it by the schemas of the actions.
  const command = signal.command as PredictionCommand;
  switch (command.do) {
    case "switch":
      if (durable.on === command.on) return no(at, command.on ? "prediction/already-on" : "prediction/already-off");
      return {
        ...still(at, [{ did: command.on ? "prediction/switched-on" : "prediction/switched-off", count: 1 }]),
        durable: { ...durable, on: command.on },
      };
    case "open":
    case "ask": {
      if (!durable.on) return no(at, "prediction/off");
      if (round !== null && round.phase !== "done" && round.phase !== "cancelled") return no(at, "prediction/open-already");
      const question = command.do === "ask" ? asked(command) : questionFrom(command.template, settings);
      return question === null ? no(at, "prediction/no-template") : opened(at, question, gameId, signal, ctx);
    }
    case "lock":
      if (round?.phase !== "open") return no(at, round === null ? "prediction/none" : "prediction/locked-already");
      return locked(at, round, atMs, ctx);
    case "longer":
      if (round?.phase !== "open") return no(at, round === null ? "prediction/none" : "prediction/locked-already");
      if (round.locksMs - round.openedMs >= dayMs) return no(at, "prediction/long-enough");
      return {
        ...still(at, [{ did: "prediction/longer", count: 1, subject: round.title }]),
        durable: { ...durable, round: { ...round, locksMs: Math.max(round.locksMs, atMs) + minute } },
      };
    case "later":
      if (round?.phase !== "locked") return no(at, "prediction/none");
      return {
        ...still(at, [{ did: "prediction/later", count: 1, subject: round.title }]),
        durable: { ...durable, round: { ...round, late: false, dueMs: atMs + settings.dueMs } },
      };
    case "result": {
      if (round === null || round.phase === "cancelled" || round.phase === "returning") return no(at, "prediction/none");
      if (round.phase === "open") return no(at, "prediction/lock-first");
      if (round.phase !== "locked") return no(at, "prediction/told-before", { label: round.outcomes[round.result ?? -1] ?? "" });
      const result = outcomeMeant(command.outcome, round.outcomes);
      if (result === null) return no(at, "prediction/which", { letters: `A to ${letterOf(round.outcomes.length - 1)}` });
      return resulted(at, round, result, by, ctx);
    }
    case "undo":
      return round === null ? no(at, "prediction/nothing-to-undo") : takenBack(at, round);
    case "cancel":
      if (round?.phase !== "open" && round?.phase !== "locked") return no(at, "prediction/none");
      return cancelled(at, round, ctx);
    case "back":
      if (viewer === null) return no(at, "prediction/no-viewer");
      return backed(at, viewer, `${command.outcome} ${command.amount}`, atMs, ctx);
    case "tell-rules":
      return {
        ...still(at, [{ did: "prediction/rules-told", count: 1 }]),
        orders: [{ do: "say", text: rulesTold(settings, ctx.pointsName) }],
      };
  }
}

/** Two outcomes that read the same could not be told apart. */
const asked = ({ title, outcomes, openMs }: Question): Question | null =>
  new Set(outcomes.map((o) => fold(o.trim()))).size === outcomes.length ? { title, outcomes, openMs } : null;

/** What is set up, a template by its name or how it begins, or a question with its outcomes as somebody types them. */
function questionFrom(text: string, settings: PredictionSettings): Question | null {
  const { title, outcomes, openMs, templates } = settings;
  const wanted = fold(text).trim();
  if (wanted === "") return { title, outcomes, openMs };
  const byId = templates.find((t) => t.id === text);
  const byName = templates.filter((t) => fold(t.title) === wanted);
  const begin = templates.filter((t) => fold(t.title).startsWith(wanted));
  const template = byId ?? byName[0] ?? (begin.length === 1 ? begin[0] : undefined);
  if (template !== undefined) return template;
  const typed = questionIn(text);
  return typed === null ? null : { ...typed, openMs };
}
