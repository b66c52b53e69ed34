import { moneyInWords } from "../signals/money-words";
import { actionOf, toldOf } from "../games/words";
import type { TapeMark } from "../module/game";
import { count, counted } from "../words/sentence";

/**
 * What stands on the tape, made from a row of the log and from nothing else: so the tape is the same after
 * a reload, on another page, and in the review.
 */
export type TimelineRow = Readonly<{ seq: number; atMs: number; kind: string; source: string; body: unknown }>;
export type Tone = TapeMark["tone"];
export type TimelineEvent = Readonly<{
  seq: number;
  atMs: number;
  tone: Tone;
  label: string;
  /** 1: a tick only; 2: its label where there is room; 3: always told. */
  weight: TapeMark["weight"];
  /** The game it belongs to; empty for none. */
  game: string;
  /** For a game switched on or off. */
  turned: "on" | "off" | "";
}>;
/** Kinds of rows that can become marks; the rest is not even read for the tape. */
export const markKinds = [
  "follow",
  "membership",
  "gift",
  "tip",
  "reaction",
  "raid",
  "host",
  "live",
  "ended",
  "happened",
  "cue",
  "command",
  "timer",
] as const;

type Body = Readonly<Record<string, unknown>>;
const isBody = (value: unknown): value is Body => typeof value === "object" && value !== null && !Array.isArray(value);
const text = (value: unknown): string => (typeof value === "string" ? value : "");
const number = (value: unknown): number => (typeof value === "number" ? value : 0);

/** The mark of a row; null when it leaves none. `kindOf` is empty for a game that is gone. */
export function markOf(row: TimelineRow, kindOf: (gameId: string) => string = () => ""): TimelineEvent | null {
  const body = isBody(row.body) ? row.body : {};
  const viewer = isBody(body["viewer"]) ? text(body["viewer"]["name"]) : "";
  const who = viewer === "" ? "someone" : viewer;
  const notes = Array.isArray(body["notes"]) ? body["notes"].filter(isBody).map((n) => (isBody(n["note"]) ? n["note"] : {})) : [];
  const did = notes.map((n) => text(n["did"]));
  const subject = text(notes[0]?.["subject"]);
  const make = (tone: Tone, weight: TimelineEvent["weight"], label: string, part: Partial<TimelineEvent> = {}): TimelineEvent => ({
    seq: row.seq,
    atMs: row.atMs,
    tone,
    label,
    weight,
    game: text(body["gameId"]),
    turned: "",
    ...part,
  });
  switch (row.kind) {
    case "follow":
      return make("slate", 1, `${who} followed`);
    case "membership":
      return make("slate", number(body["months"]) >= 12 ? 2 : 1, `${who} joined, month ${count(number(body["months"]))}`);
    case "gift":
      return make("ochre", 2, `${who} gave ${counted(number(body["count"]), "membership")}`);
    case "tip":
      return make("ochre", 2, `${who} tipped ${moneyInWords(number(body["amountMinor"]), text(body["currency"]))}`);
    case "reaction":
      return make("ochre", number(body["count"]) >= 50 ? 2 : 1, `${who} sent ${count(number(body["count"]))} ${text(body["reaction"])}`);
    case "raid":
      return make("slate", 3, `Raid · ${who} brought ${count(number(body["viewers"]))}`);
    case "host":
      return make("slate", 2, `${who} hosts with ${count(number(body["viewers"]))}`);
    case "live":
      return row.source === "show" ? make("brick", 3, "The show began") : null;
    case "ended":
      return row.source === "show" ? make("brick", 3, "The show ended") : null;
    case "happened": {
      const tape = toldOf(text(body["what"]))?.told.tape?.({ text: text(body["text"]), amount: number(body["amount"]), by: who }) ?? null;
      return tape === null ? null : make(tape.tone, tape.weight, tape.label);
    }
    case "cue":
      return did.some((d) => d.startsWith("cue/")) ? make("moss", 2, did.includes("cue/off") ? `${subject} off` : subject) : null;
    case "command": {
      const command = isBody(body["command"]) ? body["command"] : {};
      if (notes.some((n) => n["refusal"] !== undefined)) return null;
      switch (command["do"]) {
        case "switch":
          return make("soft", 1, command["on"] === true ? "Switched on" : "Switched off", {
            turned: command["on"] === true ? "on" : "off",
          });
        case "plan-fire":
          return make("moss", 3, subject);
        case "decide":
          return did.includes("show/started") ? make("moss", 3, subject) : null;
        case "plan-skip":
          return make("soft", 1, `Skipped: ${subject}`);
        default: {
          const action = actionOf(kindOf(text(body["gameId"])), text(command["do"]));
          const tape = action?.tape?.(command, text(body["by"]), row.source === "operator") ?? null;
          return tape === null ? null : make(tape.tone, tape.weight, tape.label);
        }
      }
    }
    case "timer":
      return did.includes("show/started") ? make("moss", 3, subject) : null;
    default:
      return null;
  }
}

export type Bar = Readonly<{ game: string; fromMs: number; toMs: number }>;
/**
 * While which games ran, between `fromMs` and `nowMs`: from their switches on the tape, back from how they
 * stand now.
 */
export function barsOf(
  marks: readonly TimelineEvent[],
  games: readonly Readonly<{ id: string; on: boolean }>[],
  fromMs: number,
  nowMs: number,
): readonly Bar[] {
  return games.flatMap(({ id, on }) => {
    const turns = marks
      .filter((m) => m.game === id && m.turned !== "" && m.atMs >= fromMs && m.atMs <= nowMs)
      .sort((a, b) => b.seq - a.seq);
    const bars: Bar[] = [];
    let until: number | null = on ? nowMs : null;
    for (const turn of turns) {
      if (turn.turned === "on" && until !== null) {
        bars.push({ game: id, fromMs: turn.atMs, toMs: until });
        until = null;
      } else if (turn.turned === "off") until = turn.atMs;
    }
    if (until !== null) bars.push({ game: id, fromMs, toMs: until });
    return bars.reverse();
  });
}
