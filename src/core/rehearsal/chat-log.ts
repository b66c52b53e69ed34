import { fold } from "../kernel/fold";
import { viewerId } from "../kernel/text";
import { type EveningRates, thinned } from "../lab/rates";

/**
 * A log of past chat from outside, as somebody's chat program wrote it: lines of an IRC log, IRC messages with their server
 * time, or JSON Lines (docs/protocols.md). Reading never fails as a whole: each line that can't be used is counted, and the
 * first few say why.
 */
export type ChatLogLine = Readonly<{ afterMs: number; name: string; text: string }>;
export type ChatLog = Readonly<{
  lines: readonly ChatLogLine[];
  /** From the first line to the last. */
  ms: number;
  people: number;
  left: number;
  problems: readonly Readonly<{ line: number; says: string }>[];
}>;
export const mostChatLines = 20_000;
const mostProblems = 8;
const mostText = 500;
/** A log that says no times is read as if somebody wrote this often. */
const untimedMs = 3_000;
/** Between two lines nothing is waited for longer: a log may hold several evenings. */
const longestGapMs = 10 * 60_000;
const dayMs = 86_400_000;

type Read = Readonly<{ atMs: number | null; clock: boolean; name: string; text: string }>;
const name = (given: string): string =>
  given
    .replace(/^[@+%~&!]/, "")
    .trim()
    .slice(0, 60);

/** `[2026-11-20 19:03:11] <ada> hello`, with the date, the seconds and the brackets as they come. */
const logged =
  /^[[(]?\s{0,2}(?:(\d{4})-(\d{2})-(\d{2})[T ])?(?:(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d{1,9})?)?\s?(?:Z|UTC)?)?\s{0,2}[\])]?\s{0,4}<([^<>\s][^<>]{0,80})>\s?(.*)$/u;
/** `@time=2026-11-20T19:03:11.000Z;… :ada!a@b PRIVMSG #kiln :hello` */
const message = /^(?:@(\S{1,4000}) {1,2})?:([^!\s]{1,80})(?:!\S{0,200})? PRIVMSG \S{1,200} :?(.*)$/u;

export function readChatLog(given: string): ChatLog {
  const lines: ChatLogLine[] = [];
  const problems: { line: number; says: string }[] = [];
  const people = new Set<string>();
  let left = 0;
  let [lastMs, afterMs] = [null as number | null, 0];
  let days = 0;
  for (const [i, raw] of given
    .replace(/^\uFEFF/, "")
    .split(/\r\n|\n|\r/)
    .entries()) {
    if (raw.trim() === "" || /^\s*(#|---)/.test(raw)) continue;
    const read = readLine(raw);
    const says = typeof read === "string" ? read : lines.length >= mostChatLines ? `Only the first ${mostChatLines} lines are read.` : "";
    if (typeof read === "string" || says !== "") {
      left += 1;
      if (problems.length < mostProblems) problems.push({ line: i + 1, says });
      continue;
    }
    // A clock without a date that goes back has passed midnight.
    if (read.clock && read.atMs !== null && lastMs !== null && read.atMs + days * dayMs < lastMs - dayMs / 2) days += 1;
    const atMs = read.atMs === null ? (lastMs === null ? 0 : lastMs + untimedMs) : read.atMs + (read.clock ? days * dayMs : 0);
    // Lines that come out of order stay where they stand.
    if (lastMs !== null) afterMs += Math.min(longestGapMs, Math.max(0, atMs - lastMs));
    lastMs = lastMs === null ? atMs : Math.max(lastMs, atMs);
    people.add(viewerId(fold(read.name)));
    lines.push({ afterMs, name: read.name, text: read.text });
  }
  return { lines, ms: afterMs, people: people.size, left, problems };
}

/** No line is looked at any further than this; what a name and a time stand in is shorter by far. */
const mostRead = 6_000;
function readLine(given: string): Read | string {
  const raw = given.trim().slice(0, mostRead);
  const text = (given: string): string => given.trim().slice(0, mostText);
  if (raw.startsWith("{")) return readJson(raw, text);
  const sent = message.exec(raw);
  if (sent !== null) {
    const [, tags = "", nick = "", said = ""] = sent;
    const time = /(?:^|;)time=([^;]+)/.exec(tags)?.[1] ?? "";
    const atMs = Date.parse(time);
    return text(said) === ""
      ? "It says nothing."
      : { atMs: Number.isNaN(atMs) ? null : atMs, clock: false, name: name(nick), text: text(said) };
  }
  const line = logged.exec(raw);
  if (line === null) return "It is no chat line: neither time and <name>, nor an IRC message, nor JSON.";
  const [, y, mo, d, h, mi, s = "0", nick = "", said = ""] = line;
  if (name(nick) === "") return "Nobody is named.";
  if (text(said) === "") return "It says nothing.";
  if (h === undefined) return { atMs: null, clock: false, name: name(nick), text: text(said) };
  if (Number(h) > 23 || Number(mi) > 59 || Number(s) > 60) return "There is no such time of day.";
  const clockMs = ((Number(h) * 60 + Number(mi)) * 60 + Number(s)) * 1_000;
  const dated = y !== undefined;
  const day = dated ? Date.UTC(Number(y), Number(mo) - 1, Number(d)) : 0;
  return { atMs: day + clockMs, clock: !dated, name: name(nick), text: text(said) };
}

function readJson(raw: string, text: (given: string) => string): Read | string {
  let said: unknown;
  try {
    said = JSON.parse(raw);
  } catch {
    return "This is no whole JSON object.";
  }
  const given = new Map(Object.entries(said as Readonly<Record<string, unknown>>));
  const [who, what, at] = [given.get("name"), given.get("text"), given.get("at")];
  if (typeof who !== "string" || name(who) === "") return "It has no “name”.";
  if (typeof what !== "string" || text(what) === "") return "It has no “text”.";
  const atMs = typeof at === "number" ? at : typeof at === "string" ? Date.parse(at) : NaN;
  return { atMs: Number.isFinite(atMs) ? atMs : null, clock: false, name: name(who), text: text(what) };
}

/** How an evening like this chat goes, for the odds lab: only chat is known of it. */
export function ratesOfChat(
  { lines, ms, people }: Pick<ChatLog, "lines" | "ms" | "people">,
  isEmote: (text: string) => boolean,
): EveningRates {
  const hours = Math.min(24, Math.max(0.05, ms / 3_600_000));
  const looked = thinned(lines, 2_000);
  return {
    hours,
    chatters: Math.max(1, Math.min(100_000, people)),
    perHour: {
      message: Math.min(1_000_000, lines.length / hours),
      follow: 0,
      membership: 0,
      gift: 0,
      tip: 0,
      reaction: 0,
      raid: 0,
      host: 0,
    },
    emotes: looked.length === 0 ? 0 : looked.filter((l) => isEmote(l.text)).length / looked.length,
    sizes: {},
    buys: 0,
    bought: [],
  };
}
