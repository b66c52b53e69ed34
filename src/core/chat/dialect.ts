import { z } from "zod";
import { cut, viewerId as viewerIdOf, wellFormed } from "../kernel/text";
import type { EmoteSpan } from "../signals/signal";
import { roles, type Role } from "../signals/names";
import { type Line, unescapeTag } from "./line";

/**
 * Which tag carries what differs from one chat server to the next, so it is a setting. The defaults are
 * ours and documented in docs/protocols.md.
 */
const tagName = z
  .string()
  .max(80)
  .regex(/^[A-Za-z0-9+./_-]*$/, "A tag name has letters, digits and + . / _ - only.");
/** What was stored before 2026-12 calls guests by another name. */
const withGuest = (given: unknown): unknown =>
  typeof given === "object" && given !== null && "vip" in given && !("guest" in given) ? { ...given, guest: given.vip } : given;
export const dialectSchema = z.object({
  name: tagName.default("izzam/name"),
  roles: tagName.default("izzam/roles"),
  messageId: tagName.default("msgid"),
  emotes: tagName.default("izzam/emotes"),
  viewerId: tagName.default("account"),
  /** Paid reactions that were sent inside the message. */
  paid: tagName.default("izzam/paid"),
  /** Which badge of the roles tag means which role. */
  badges: z
    .preprocess(
      withGuest,
      z.object({ member: z.string().max(200), guest: z.string().max(200), moderator: z.string().max(200), streamer: z.string().max(200) }),
    )
    .default({ member: "member", guest: "guest", moderator: "moderator", streamer: "streamer" }),
});
export type Dialect = z.infer<typeof dialectSchema>;
export const defaultDialect: Dialect = dialectSchema.parse({});

/** So many of one kind of paid reaction, and what each is worth. */
export type PaidMark = Readonly<{ reaction: string; count: number; valueEach: number }>;

export type ChatLine = Readonly<{
  id: string | null;
  viewerId: string;
  name: string;
  roles: readonly Role[];
  text: string;
  marks: readonly EmoteSpan[];
  /** Paid reactions inside the message; left out where there are none. */
  paid?: readonly PaidMark[];
  /** The channel spoken in, or the nick for a private message. */
  target: string;
}>;

/** Remembers what was worked out for a text; forgets all of it when it has become too many. */
function remembered<T>(work: (text: string) => T, most = 20_000): (text: string) => T {
  let known = new Map<string, T>();
  return (text) => {
    const before = known.get(text);
    if (before !== undefined) return before;
    if (known.size >= most) known = new Map();
    const value = work(text);
    known.set(text, value);
    return value;
  };
}

/** Compiles a dialect once; the reader then turns PRIVMSG lines into what was said, and null for others. */
export function chatReader(dialect: Dialect): (line: Line) => ChatLine | null {
  const badgeToRole = new Map<string, Role>();
  for (const role of roles) {
    if (role === "viewer") continue;
    for (const badge of dialect.badges[role].split(",")) {
      const word = badge.trim().toLowerCase();
      if (word !== "") badgeToRole.set(word, role);
    }
  }
  const none: readonly Role[] = [];
  const noMarks: readonly EmoteSpan[] = [];
  // The same people talk again and again: their names and badges are read once.
  const nameOf = remembered(cleanName);
  const rolesOf = remembered((badges) => rolesFrom(badges, badgeToRole));
  const idOf = remembered(viewerIdOf);
  const needles = [dialect.name, dialect.roles, dialect.messageId, dialect.emotes, dialect.viewerId, dialect.paid].map(
    (name) => `${name}=`,
  );
  const firsts = needles.map((needle) => needle.charCodeAt(0));
  const found = needles.map(() => "");
  return (line) => {
    if (line.command !== "PRIVMSG") return null;
    const target = line.params[0];
    let text = line.params[1];
    if (target === undefined || text === undefined || line.from === "") return null;
    // "/me" travels as a CTCP ACTION; other CTCP is talk between programs, not chat.
    if (text.charCodeAt(0) === 1) {
      // eslint-disable-next-line no-control-regex -- CTCP is framed by this control character
      const action = /^\u0001ACTION ([^\u0001]*)\u0001?$/.exec(text);
      if (action === null) return null;
      text = action[1] ?? "";
    }
    // Colours and bold of chat programs are no words; marked places are counted in the text as it was sent.
    const plainText = text;
    text = withoutFormats(text);
    const { tags } = line;
    if (tags === "") {
      return { id: null, viewerId: idOf(line.from), name: nameOf(line.from), roles: none, text, marks: noMarks, target };
    }
    readTags(tags, needles, firsts, found);
    const name = found[0] ?? "";
    const badges = found[1] ?? "";
    const messageId = found[2] ?? "";
    const marked = found[3] ?? "";
    const viewerId = found[4] ?? "";
    const paid = found[5] ?? "";
    return {
      ...(paid === "" ? {} : { paid: paidFrom(paid) }),
      id: messageId === "" ? null : messageId,
      viewerId: idOf(viewerId === "" ? line.from : viewerId),
      name: nameOf(name === "" ? line.from : name),
      roles: badges === "" ? none : rolesOf(badges),
      text,
      marks: marked === "" || plainText !== text ? noMarks : marksFrom(marked, text),
      target,
    };
  };
}

/** One walk over the tags, picking out those wanted; the others are never made into texts of their own. */
function readTags(tags: string, needles: readonly string[], firsts: readonly number[], into: string[]): void {
  for (let i = 0; i < into.length; i += 1) into[i] = "";
  for (let at = 0; at < tags.length;) {
    const semicolon = tags.indexOf(";", at);
    const stop = semicolon < 0 ? tags.length : semicolon;
    const first = tags.charCodeAt(at);
    for (let i = 0; i < needles.length; i += 1) {
      const needle = needles[i] ?? "";
      if (firsts[i] !== first || needle === "=" || !tags.startsWith(needle, at)) continue;
      const raw = tags.slice(at + needle.length, stop);
      into[i] = raw.includes("\\") ? unescapeTag(raw) : raw;
    }
    at = stop + 1;
  }
}

/** Formatting codes as chat programs send them: colours with their numbers, bold, italic, underline and the like. */
// eslint-disable-next-line no-control-regex -- these control characters are what is to be removed
const formats = /\u0003(?:\d{1,2}(?:,\d{1,2})?)?|\u0004(?:[0-9a-fA-F]{6}(?:,[0-9a-fA-F]{6})?)?|[\u0002\u000F\u0011\u0016\u001D-\u001F]/g;
// eslint-disable-next-line no-control-regex -- as above; most lines have none of them
const mayBeFormatted = /[\u0002-\u0004\u000F\u0011\u0016\u001D-\u001F]/;
const withoutFormats = (text: string): string => (mayBeFormatted.test(text) ? text.replace(formats, "") : text);

/** Control and direction characters in a name could repaint the line it is shown in. */
const cleanName = (name: string): string =>
  // eslint-disable-next-line no-control-regex -- control characters are exactly what is to be removed
  cut(wellFormed(name).replace(/[\u0000-\u001F\u007F\u200B-\u200F\u202A-\u202E\u2060-\u206F\uFEFF]/g, ""), 40) || "someone";

function rolesFrom(badges: string, known: ReadonlyMap<string, Role>): readonly Role[] {
  const found: Role[] = [];
  for (const badge of badges.split(",")) {
    const slash = badge.indexOf("/");
    const role = known.get((slash < 0 ? badge : badge.slice(0, slash)).trim().toLowerCase());
    if (role !== undefined && !found.includes(role)) found.push(role);
  }
  return found;
}

const mostMarks = 500;

/**
 * Our form of marked places: `start+length=id`, comma-separated, counted in Unicode code points:
 * `0+4=tide,9+4=tide`. What lies outside the text, overlaps or is malformed is passed over, never an error.
 */
export function marksFrom(tag: string, text: string): readonly EmoteSpan[] {
  const marks: EmoteSpan[] = [];
  // Code points and UTF-16 units differ only where surrogates stand before the place.
  const unit = /[\uD800-\uDBFF]/.test(text) ? unitOffsets(text) : null;
  const length = unit === null ? text.length : unit.length - 1;
  for (const part of tag.split(",")) {
    if (marks.length >= mostMarks) break;
    const match = /^(\d{1,5})\+(\d{1,4})=([A-Za-z0-9_-]{1,64})$/.exec(part);
    if (match === null) continue;
    const start = Number(match[1]);
    const end = start + Number(match[2]);
    if (end > length || end === start) continue;
    const from = unit === null ? start : (unit[start] ?? 0);
    const to = unit === null ? end : (unit[end] ?? 0);
    marks.push({ start: from, length: to - from, id: match[3] ?? "" });
  }
  marks.sort((a, b) => a.start - b.start);
  let end = 0;
  return marks.filter((mark) => {
    if (mark.start < end) return false;
    end = mark.start + mark.length;
    return true;
  });
}

const mostPaid = 10;
/** `kind:count:value each`, comma-separated; the value may be left out. What is malformed is passed over. */
export function paidFrom(tag: string): readonly PaidMark[] {
  const paid: PaidMark[] = [];
  for (const part of tag.split(",")) {
    const found = /^([^:,]{1,60}):(\d{1,9})(?::(\d{1,9}))?$/.exec(part);
    if (found === null || paid.length >= mostPaid) continue;
    const [count, valueEach] = [Number(found[2]), Number(found[3] ?? 1)];
    if (count > 0 && valueEach > 0) paid.push({ reaction: (found[1] ?? "").trim(), count, valueEach });
  }
  return paid;
}

function unitOffsets(text: string): number[] {
  const offsets: number[] = [];
  let at = 0;
  for (const char of text) {
    offsets.push(at);
    at += char.length;
  }
  offsets.push(at);
  return offsets;
}
