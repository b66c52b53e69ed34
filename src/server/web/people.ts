import { count } from "../../core/words/sentence";
import Papa from "papaparse";
import { whoIsMeant } from "../../core/points/who-is-meant";
import { fold } from "../../core/kernel/fold";
import { viewerId } from "../../core/kernel/text";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { ChannelId } from "../../core/kernel/ids";
import type { WebServices } from "../composition/web";

export type ListLine = Readonly<{ line: number; name: string; points: number; id: string; known: boolean; problem: string }>;
export type ListReport = Readonly<{ lines: readonly ListLine[]; good: number; bad: number; points: number }>;
const mostLines = 20_000;
const atOnce = 500;
/** The module that takes them in, by its kind. */
const module = "points";

/**
 * Reads a list of names and points: CSV with a header (name and points, in any order and any capitals; an
 * id where there is one) or two columns without. Every line that can't be used says why; nothing is changed.
 */
export async function readList(web: WebServices, channel: ChannelId, text: string): Promise<Result<ListReport>> {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { skipEmptyLines: "greedy" });
  const rows = parsed.data;
  if (rows.length === 0) return refused("input/invalid", { why: "The list is empty." });
  if (rows.length > mostLines) return refused("input/invalid", { why: `A list has at most ${count(mostLines)} lines.` });
  const head = (rows[0] ?? []).map((c) => fold(c).trim());
  const named = (...names: string[]): number => head.findIndex((h) => names.includes(h));
  const nameAt = named("name", "viewer");
  const pointsAt = named("points", "balance");
  const idAt = named("id", "viewer id");
  const headed = nameAt >= 0 && pointsAt >= 0;
  if (!headed && (rows[0] ?? []).length < 2)
    return refused("input/invalid", { why: "The list needs two columns, a name and points, set apart by commas." });
  const everybody = await web.store.points.known(channel);
  const ids = new Set(everybody.map((p) => p.id));
  const called = new Map<string, string[]>();
  for (const { id, name } of everybody) called.set(fold(name), [...(called.get(fold(name)) ?? []), id]);
  const seen = new Map<string, number>();
  const lines: ListLine[] = [];
  for (const [i, row] of rows.entries()) {
    if (headed && i === 0) continue;
    const name = (row[headed ? nameAt : 0] ?? "").trim().replace(/^@/, "");
    const raw = (row[headed ? pointsAt : 1] ?? "").trim().replace(/[\s,']/g, "");
    const points = Number(raw);
    const others = called.get(fold(name)) ?? [];
    const known = whoIsMeant(name, (own) => ids.has(own), others);
    const given = idAt >= 0 ? (row[idAt] ?? "").trim() : "";
    const unclear = given === "" && known === null && others.length > 1;
    // Spelled as it may be, it is the id that chat and events make of it.
    const id = viewerId(given !== "" ? given : (known ?? name));
    const earlier = seen.get(id);
    const problem =
      name === ""
        ? "no name"
        : unclear
          ? `${others.length} viewers have this name; give an id (${others.slice(0, 3).join(", ")})`
          : name.length > 60 || id.length > 64
            ? "the name is too long"
            : /\s/.test(id)
              ? "a chat name has no spaces"
              : raw === "" || !Number.isSafeInteger(points)
                ? `“${raw}” is no whole number`
                : points < 1
                  ? "less than 1 can’t be imported"
                  : points > 1_000_000_000_000
                    ? "too many"
                    : earlier !== undefined
                      ? `the same viewer as in line ${earlier}`
                      : "";
    if (problem === "") seen.set(id, i + 1);
    lines.push({ line: i + 1, name, points: Number.isFinite(points) ? points : 0, id, known: known !== null, problem });
  }
  const good = lines.filter((l) => l.problem === "");
  return ok({ lines, good: good.length, bad: lines.length - good.length, points: good.reduce((sum, l) => sum + l.points, 0) });
}

/** Takes the good lines in, in pieces; each piece has a key of its own, so that none counts twice when it is sent again. */
export async function importPoints(
  web: WebServices,
  channel: ChannelId,
  by: string,
  given: Readonly<{ text: string; why: string; key: string }>,
): Promise<Result<ListReport>> {
  const read = await readList(web, channel, given.text);
  if (!read.ok) return read;
  const good = read.value.lines.filter((l) => l.problem === "");
  for (let from = 0; from < good.length; from += atOnce) {
    const key = `${given.key}.${from}`;
    const done = await web.engine.command(channel, module, by, `take-in-${key}`, {
      do: "take-in",
      key,
      why: given.why,
      viewers: good.slice(from, from + atOnce).map((l) => ({ id: l.id, name: l.name, by: l.points })),
    });
    if (!done.ok && done.refusal.code !== "signal/duplicate") return done;
    const no = done.ok ? done.value.find((n) => n.refusal !== undefined)?.refusal : undefined;
    if (no !== undefined && no.code !== "points/taken-in-already") return { ok: false, refusal: no };
  }
  return read;
}

/** Everybody with their points. What a spreadsheet would take for a formula is no formula. */
export async function listOut(web: WebServices, channel: ChannelId): Promise<string> {
  const people = await web.store.points.everybody(channel);
  return Papa.unparse(
    people.map((p) => ({ name: p.name, points: p.balance, id: p.id })),
    { escapeFormulae: true },
  );
}
