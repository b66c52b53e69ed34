import { fold } from "../../kernel/fold";
import { mostStake, outcomesSchema, titleSchema } from "./settings";
import { letterOf } from "./letters";

/** Which outcome is meant: by its letter, its name, or how its name alone begins. Null for none, or for several. */
export function outcomeMeant(text: string, outcomes: readonly string[]): number | null {
  const wanted = fold(text).trim();
  if (wanted === "") return null;
  const byLetter = outcomes.findIndex((_, i) => fold(letterOf(i)) === wanted);
  if (byLetter >= 0) return byLetter;
  const names = outcomes.map((o) => fold(o).trim());
  const same = names.flatMap((name, i) => (name === wanted ? [i] : []));
  if (same.length === 1) return same[0] ?? null;
  const begin = names.flatMap((name, i) => (name.startsWith(wanted) ? [i] : []));
  return same.length === 0 && begin.length === 1 ? (begin[0] ?? null) : null;
}

export type Amount =
  Readonly<{ ok: true; amount: number }> | Readonly<{ ok: false; code: "prediction/no-amount" | "prediction/none-left" }>;
/** How much is meant, of what somebody has: a whole number, “all”, or “half” (rounded down, at least 1). */
export function amountMeant(text: string, has: number): Amount {
  const word = fold(text).trim();
  if (word === "all" || word === "half") {
    const amount = word === "all" ? has : Math.max(1, Math.floor(has / 2));
    return has < 1 ? { ok: false, code: "prediction/none-left" } : { ok: true, amount };
  }
  const amount = /^\d{1,15}$/.test(word) ? Number(word) : 0;
  return amount < 1 || amount > mostStake ? { ok: false, code: "prediction/no-amount" } : { ok: true, amount };
}

/** “A 100”, “it survives 100”, “100 A”, “B all”: the outcome's part and the amount's. In a poll there is no amount. */
export function askedIn(text: string, stakes: boolean): Readonly<{ outcome: string; amount: string }> {
  const words = text
    .trim()
    .split(/\s+/)
    .filter((w) => w !== "");
  const isAmount = (w: string | undefined): boolean => w !== undefined && /^(?:[+-]?\d[\d.,]*|all|half)$/i.test(w);
  if (!stakes) return { outcome: words.join(" "), amount: "" };
  const last = words[words.length - 1];
  if (words.length === 1 && isAmount(last)) return { outcome: "", amount: last ?? "" };
  if (words.length > 1 && isAmount(last)) return { outcome: words.slice(0, -1).join(" "), amount: last ?? "" };
  if (words.length > 1 && isAmount(words[0])) return { outcome: words.slice(1).join(" "), amount: words[0] ?? "" };
  return { outcome: words.join(" "), amount: "" };
}

/** “Will it hold? It holds; It leaks”: a question and its outcomes, as somebody types them. Null for what is none. */
export function questionIn(text: string): Readonly<{ title: string; outcomes: string[] }> | null {
  const parts = text.includes("|")
    ? text.split("|")
    : text.includes("?")
      ? [text.slice(0, text.indexOf("?") + 1), ...text.slice(text.indexOf("?") + 1).split(";")]
      : text.split(";");
  const [title = "", ...outcomes] = parts.map((p) => p.trim()).filter((p) => p !== "");
  const read = outcomesSchema.safeParse(outcomes);
  const named = titleSchema.safeParse(title);
  if (!read.success || !named.success) return null;
  // Two that read the same could not be told apart.
  return new Set(read.data.map((o) => fold(o.trim()))).size === read.data.length ? { title: named.data, outcomes: read.data } : null;
}
