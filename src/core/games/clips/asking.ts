import { cut } from "../../kernel/text";
import { refusal, type Refusal } from "../../kernel/refusal";
import type { ClipsSettings } from "./settings";

/** What somebody asks for: where the film is, from where on, how long; null where they leave it to the channel. */
export type Asked = Readonly<{ address: string; startMs: number; ms: number | null; title: string }>;

const mostStartMs = 7_200_000;
/** Nobody buys less than a second. */
const leastMs = 1_000;
const clock = /^(?:(\d{1,2}):)?(\d{1,3}):(\d{2})(?:\.(\d))?$/;
const plainSeconds = /^(\d{1,4})(?:\.(\d))?s$/i;

/** “1:07” or “0:07.5” in milliseconds; null when it is no place in a film. */
export function placeIn(text: string): number | null {
  const found = clock.exec(text);
  if (found === null) return null;
  const [, hours = "0", minutes = "0", seconds = "0", tenth = "0"] = found;
  if (Number(seconds) > 59 || (found[1] !== undefined && Number(minutes) > 59)) return null;
  const ms = ((Number(hours) * 60 + Number(minutes)) * 60 + Number(seconds)) * 1000 + Number(tenth) * 100;
  return ms <= mostStartMs ? ms : null;
}
const lengthIn = (text: string): number | null => {
  const found = plainSeconds.exec(text);
  return found === null ? null : Number(found[1]) * 1000 + Number(found[2] ?? 0) * 100;
};

/**
 * Reads “https://… 0:07 12s a few words”: an address, a place to start, how long, and a title, in any order after the
 * address. An address may say its stretch itself, by a Media Fragment (W3C): “#t=7,19”. Null where there is no address.
 */
export function asked(text: string): Asked | null {
  const parts = text.trim().split(/\s+/u).slice(0, 80);
  const at = parts.findIndex((p) => /^https?:\/\/[^\s/]{1,253}(?:[/?#]|$)/i.test(p));
  const whole = parts[at];
  if (whole === undefined || whole.length > 2_000) return null;
  const fragment = /#t=(?:npt:)?(\d{1,4}(?:\.\d+)?)?(?:,(\d{1,4}(?:\.\d+)?))?$/.exec(whole);
  let startMs = fragment === null ? 0 : Math.round(Number(fragment[1] ?? 0) * 1000);
  const endMs = fragment?.[2] === undefined ? null : Math.round(Number(fragment[2]) * 1000);
  let ms = endMs !== null && endMs > startMs ? endMs - startMs : null;
  const words: string[] = [];
  parts.forEach((part, i) => {
    if (i === at) return;
    const place = placeIn(part);
    const length = lengthIn(part);
    if (place !== null) startMs = place;
    else if (length !== null) ms = length;
    else if (i > at) words.push(part);
  });
  const address = whole.replace(/#.*$/s, "");
  return {
    address,
    startMs: Math.min(mostStartMs, startMs),
    ms: ms === null ? null : Math.max(leastMs, ms),
    title: cut(words.join(" "), 80),
  };
}

/** The same from a form, field by field. Refused: no film, no place, no length that can be read. */
export function fromForm(
  form: Readonly<{ address: string; source: string; from: string; seconds: string; title: string }>,
): Asked | Refusal {
  const read = form.source === "" ? asked(form.address) : { address: "", startMs: 0, ms: null, title: "" };
  if (read === null) return refusal("clips/no-film-named");
  const from = form.from.trim();
  const startMs = from === "" ? read.startMs : /^\d{1,4}$/.test(from) ? Number(from) * 1000 : placeIn(from);
  if (startMs === null || startMs > mostStartMs) return refusal("clips/no-place");
  const seconds = form.seconds.trim();
  if (!/^\d{1,3}$/.test(seconds) || Number(seconds) < 1) return refusal("clips/no-length");
  return { address: read.address, startMs, ms: Number(seconds) * 1000, title: cut(form.title.trim(), 80) };
}

/** Whole seconds that are asked for, within what may be. */
export function secondsAsked({ usualMs, mostMs }: Pick<ClipsSettings, "usualMs" | "mostMs">, ms: number | null): number {
  return Math.max(1, Math.floor(Math.min(mostMs, ms ?? Math.min(usualMs, mostMs)) / 1000));
}

/** What so many seconds cost in points; a least payment buys as many seconds as it is worth. */
export function pointsFor(settings: ClipsSettings, ms: number | null): Readonly<{ seconds: number; price: number }> {
  const { perSecond, least } = settings.points;
  const most = Math.floor(settings.mostMs / 1000);
  const wanted = Math.max(secondsAsked(settings, ms), perSecond === 0 ? 0 : Math.ceil(least / perSecond));
  const seconds = Math.min(most, wanted);
  return { seconds, price: seconds * perSecond };
}

export type Bought = Readonly<{ seconds: number; paid: number; rest: number }>;
/**
 * What money buys: `floor(amount ÷ price per second)`, at most the longest; what is left of it stays the sender's. Refused: less
 * than the least, or than one second; the facts say what it would take.
 */
export function bought(settings: ClipsSettings, minor: number, credit: number): Refusal | Bought {
  const { perSecond, least } = settings.tips;
  const takes = Math.max(least, perSecond);
  if (perSecond === 0) return refusal("clips/no-tips");
  if (minor + credit < takes) return refusal("clips/too-little", { takes: takes - credit, given: minor });
  const seconds = Math.min(Math.floor(settings.mostMs / 1000), Math.floor((minor + credit) / perSecond));
  const paid = seconds * perSecond;
  return { seconds, paid, rest: minor + credit - paid };
}
