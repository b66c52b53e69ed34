import { randomUUID } from "node:crypto";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import {
  answerInWords,
  askInWords,
  inputOf,
  type LabAsk,
  labAskSchema,
  type LabResult,
  labResultSchema,
  questionOf,
  settingsInstead,
  settingsToAsk,
} from "../../core/lab/ask";
import type { Fields } from "../../core/module/fields";
import type { LabUnit } from "../../core/module/lab";
import { moduleOf } from "../../core/modules";
import { moneyInWords } from "../../core/signals/money-words";
import { type Blank, type BlankField, count, seconds, valueAt } from "../../core/words/sentence";
import { markOf } from "../lab/mark";
import type { LabRow, LabState } from "../ports/lab-store";
import type { Session } from "../ports/operator-store";
import type { WebServices } from "../composition/web";
import { factsOf, type Published, published } from "./published";
import { refusalInWords } from "./words";

/** Something that questions can be asked about, with what may be asked and which of its settings may be others. */
export type LabThing = Readonly<{
  id: string;
  kind: string;
  name: string;
  questions: readonly Readonly<{
    id: string;
    form: string;
    input: Fields;
    crowd: boolean;
    whole: boolean;
    lists: Readonly<Record<string, readonly string[]>>;
  }>[];
  settings: readonly Readonly<{ path: string; label: string; sentence: string; field: BlankField; value: number | string | boolean }>[];
}>;
export type LabAnswer = Readonly<{
  id: string;
  name: string;
  asked: string;
  ask: LabAsk | null;
  state: LabState;
  done: number;
  why: string;
  /** Settings it rests on were published since. */
  stale: boolean;
  endedMs: number | null;
  removed: boolean;
  by: string;
  result: LabResult | null;
  unit: string;
  lines: readonly string[];
  /** The same, if the setting were the other: what that is, and its answer. */
  instead: Readonly<{ what: string; lines: readonly string[]; compared: string }> | null;
}>;
export type LabView = Readonly<{
  things: readonly LabThing[];
  answers: readonly LabAnswer[];
  points: string;
  runs: number;
  chats: readonly Readonly<{ id: string; name: string }>[];
}>;

/** All that the page of the odds lab shows. */
export async function labView(services: Pick<WebServices, "store">, channel: ChannelId): Promise<LabView> {
  const [told, rows, chats] = await Promise.all([
    published(services, channel),
    services.store.lab.list(channel),
    services.store.chatLogs.list(channel),
  ]);
  const facts = factsOf(told);
  const mark = markOf(told);
  const things = told.flatMap(({ id, kind, name, settings }): LabThing[] => {
    const questions = moduleOf(kind)?.lab ?? [];
    if (questions.length === 0) return [];
    return [
      {
        id,
        kind,
        name,
        questions: questions.map(({ id: q, form, input, crowd, whole = false, lists }) => ({
          id: q,
          form: form.replaceAll("{points}", facts.points),
          input,
          crowd,
          whole,
          lists: lists?.(settings) ?? {},
        })),
        settings: settingsToAsk(kind, settings, facts).map(({ blank, sentence }) => ({
          path: blank.path,
          label: blank.label,
          sentence,
          field: blank.field,
          // Blanks of these kinds hold numbers, names of choices, or yes and no.
          value: valueAt(settings, blank.path) as number | string | boolean,
        })),
      },
    ];
  });
  return {
    things,
    answers: rows.map((row) => answerOf(row, told, facts, mark)),
    points: facts.points,
    runs: rows.filter(isOpen).length,
    chats: chats.filter((c) => c.removedMs === null).map(({ id, name }) => ({ id, name })),
  };
}
const isOpen = ({ state, removedMs }: LabRow): boolean => removedMs === null && (state === "waiting" || state === "working");

function answerOf(row: LabRow, told: readonly Published[], facts: ReturnType<typeof factsOf>, mark: string): LabAnswer {
  const { id, name, state, done, why, endedMs, removedMs, by } = row;
  const ask = labAskSchema.safeParse(row.ask);
  const result = labResultSchema.nullable().safeParse(row.result);
  const thing = ask.success ? told.find((t) => t.id === ask.data.module) : undefined;
  const question = thing === undefined || !ask.success ? null : questionOf(thing.kind, ask.data.question);
  const common = { id, name, state, done, endedMs, removed: removedMs !== null, by, why: why === null ? "" : refusalInWords(why) };
  const found = result.success ? result.data : null;
  if (thing === undefined || question === null || !ask.success) {
    const gone = refusalInWords({ code: ask.success ? "lab/gone" : "lab/unreadable", facts: {} });
    return {
      ...common,
      asked: "A question about what is not there any more",
      ask: null,
      stale: false,
      result: null,
      unit: "times",
      lines: common.why === "" ? [gone] : [],
      instead: null,
    };
  }
  const names = { game: thing.name, points: facts.points };
  const insteadOf = ask.data.instead;
  const setting =
    insteadOf === null ? undefined : settingsToAsk(thing.kind, thing.settings, facts).find((s) => s.blank.path === insteadOf.path);
  const what = insteadOf === null ? "" : insteadInWords(setting?.blank, insteadOf);
  return {
    ...common,
    asked: `${askInWords(question, ask.data, names)}${what === "" ? "" : ` And if ${what}?`}`,
    ask: ask.data,
    stale: found !== null && row.mark !== "" && row.mark !== mark,
    result: found,
    unit: question.unit,
    lines: found === null ? [] : answerInWords(question, found.plain, names),
    instead:
      insteadOf === null
        ? null
        : {
            what,
            lines: found?.instead == null ? [] : answerInWords(question, found.instead, names),
            compared: found?.instead == null ? "" : comparedInWords(found, question.unit),
          },
  };
}
const comparedInWords = ({ more, less, plain }: LabResult, unit: LabUnit): string => {
  const share = (n: number): string => `${Math.round((n / Math.max(1, plain.n)) * 100)} of 100`;
  if (more === 0 && less === 0) return "On the same evenings nothing of it differs.";
  const [up, down] = unit === "minutes" ? ["later", "sooner"] : ["more", "less"];
  return `On the same evenings it is ${up} in ${share(more)}, and ${down} in ${share(less)}.`;
};
const insteadInWords = (blank: Blank | undefined, { path, value }: NonNullable<LabAsk["instead"]>): string =>
  `${(blank?.label ?? path).replace(/^./, (c) => c.toLowerCase())} were ${blank === undefined ? String(value) : valueInWords(blank, value)}`;
function valueInWords({ field }: Blank, value: number | string | boolean): string {
  if (field.kind === "seconds") return seconds(Number(value));
  if (field.kind === "money") return moneyInWords(Number(value), field.currency);
  if (field.kind === "choice") return field.options.find((o) => o.value === value)?.words ?? String(value);
  if (field.kind === "toggle") return value === true ? field.on : field.off;
  return typeof value === "number" ? count(value) : String(value);
}

/** Looks whether a question can be asked of what is published now. */
async function askable(services: Pick<WebServices, "store">, channel: ChannelId, ask: LabAsk): Promise<Result<null>> {
  const thing = (await published(services, channel)).find((t) => t.id === ask.module);
  const question = thing === undefined ? null : questionOf(thing.kind, ask.question);
  if (thing === undefined || question === null) return refused("lab/gone");
  const input = inputOf(question, ask.input);
  if (!input.ok) return input;
  const instead = ask.instead === null ? ok(null) : settingsInstead(thing.kind, thing.settings, ask.instead);
  return instead.ok ? ok(null) : instead;
}

type At = Pick<WebServices, "store" | "clock">;
export async function askLab(services: At, session: Session, ask: LabAsk, id: string | null): Promise<Result<Readonly<{ id: string }>>> {
  const { store, clock } = services;
  const may = await askable(services, session.channelId, ask);
  if (!may.ok) return may;
  const question = id ?? randomUUID();
  const row = { id: question, channel: session.channelId, name: "", ask, by: session.login };
  const added = id === null ? await store.lab.add(row, clock.now()) : await store.lab.again(session.channelId, id, ask, clock.now());
  return added.ok ? ok({ id: question }) : added;
}

export async function actOnQuestion(
  { store, clock }: At,
  session: Session,
  id: string,
  act: Readonly<{ do: "again" | "stop" | "remove" | "restore" }> | Readonly<{ do: "rename"; name: string }>,
): Promise<Result<null>> {
  const { channelId } = session;
  if (act.do === "again") return store.lab.again(channelId, id, null, clock.now());
  const done =
    act.do === "stop"
      ? // One that has just ended needs no stop.
        (await store.lab.stop(channelId, id)) || (await store.lab.one(channelId, id)) !== null
      : act.do === "rename"
        ? await store.lab.rename(channelId, id, act.name)
        : await store.lab.remove(channelId, id, act.do === "remove" ? clock.now() : null);
  return done ? ok(null) : refused("lab/unknown");
}
