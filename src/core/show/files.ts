import { z } from "zod";
import { fold } from "../kernel/fold";
import { jsonOrNull } from "../kernel/text";
import { inOrder } from "./order";
import { type PlanItem, planItemSchema } from "./plan";

/**
 * A rundown as a file. It names cues and games by their names, so that it can be written by hand and used
 * in another channel; what a name means is looked up when it is read. Reading never fails as a whole: each
 * line that can't be used says why.
 */
export type RundownNames = Readonly<{
  cues: readonly Readonly<{ id: string; name: string }>[];
  games: readonly Readonly<{ id: string; name: string }>[];
}>;
export type ReadRundown = Readonly<{ items: readonly PlanItem[]; problems: readonly Readonly<{ line: number; says: string }>[] }>;

export const rundownColumns = ["minute", "length", "title", "does", "what", "starts", "after", "delay", "note", "action"] as const;
export type RundownLine = Readonly<Record<(typeof rundownColumns)[number], string>>;

/** One line a thing, in order; every value as text. */
export function linesOf(items: readonly PlanItem[], names: RundownNames): readonly RundownLine[] {
  const nameIn = (list: RundownNames["cues"], id: string): string => list.find((x) => x.id === id)?.name ?? "";
  return inOrder(items).map((item) => {
    const { does, starts } = item;
    const before = starts.how === "after" ? items.find((i) => i.id === starts.item) : undefined;
    return {
      minute: String(item.atMin),
      length: item.lengthMin === 0 ? "" : String(item.lengthMin),
      title: item.title,
      does: does.do,
      what: does.do === "cue" ? nameIn(names.cues, does.cue) : does.do === "note" ? "" : nameIn(names.games, does.game),
      starts: starts.how,
      after: before?.title ?? "",
      delay: starts.how === "after" ? String(starts.delayMin) : "",
      note: item.note,
      action: does.do === "act" ? JSON.stringify({ ...does.input, do: does.act }) : "",
    };
  });
}

function actionIn(text: string): (Record<string, unknown> & { do: string }) | null {
  const given = jsonOrNull(text);
  return typeof given === "object" && given !== null && !Array.isArray(given) && "do" in given && typeof given.do === "string"
    ? { ...given, do: given.do }
    : null;
}
const whole = (text: string): number | null => (text.trim() === "" ? 0 : /^\d{1,4}$/.test(text.trim()) ? Number(text.trim()) : null);

/** `newId` gives a fresh id for each line. Lines are counted from `firstLine`, as an editor shows them. */
export function itemsFrom(lines: readonly Partial<RundownLine>[], names: RundownNames, newId: () => string, firstLine = 2): ReadRundown {
  const problems: { line: number; says: string }[] = [];
  const read: { item: PlanItem; after: string; line: number }[] = [];
  lines.forEach((given, i) => {
    const line = firstLine + i;
    const text = (column: keyof RundownLine): string => (given[column] ?? "").trim();
    const no = (says: string): void => void problems.push({ line, says });
    const atMin = whole(text("minute"));
    const lengthMin = whole(text("length"));
    const delayMin = whole(text("delay"));
    if (atMin === null || lengthMin === null || delayMin === null) return no("A minute, a length or a delay is no whole number.");
    const find = (list: RundownNames["cues"]): string | undefined => list.find((x) => fold(x.name) === fold(text("what")))?.id;
    const does = text("does") === "" ? "note" : text("does");
    let what: PlanItem["does"] = { do: "note" };
    if (does === "cue") {
      const cue = find(names.cues);
      if (cue === undefined) return no(`There is no cue “${text("what")}”.`);
      what = { do: "cue", cue };
    } else if (does === "start" || does === "stop") {
      const game = find(names.games);
      if (game === undefined) return no(`There is no game “${text("what")}”.`);
      what = { do: does, game };
    } else if (does === "act") {
      const game = find(names.games);
      const action = actionIn(text("action"));
      if (game === undefined) return no(`There is no game “${text("what")}”.`);
      if (action === null) return no("The action is no JSON object with a “do”.");
      const { do: act, ...input } = action;
      what = { do: "act", game, act, input };
    } else if (does !== "note") return no(`“${does}” is nothing a rundown can do: note, cue, start, stop or act.`);
    const how = text("starts") === "" ? "hand" : text("starts");
    if (how !== "hand" && how !== "time" && how !== "after") return no(`“${how}” is no way to start: hand, time or after.`);
    const made = planItemSchema.safeParse({
      id: newId(),
      title: text("title"),
      atMin,
      lengthMin,
      note: text("note"),
      does: what,
      starts: how === "after" ? { how, item: "", delayMin } : { how },
    });
    if (!made.success) return no(made.error.issues[0]?.message ?? "It can’t be used.");
    read.push({ item: made.data, after: text("after"), line });
  });
  const items = read.flatMap(({ item, after, line }): PlanItem[] => {
    if (item.starts.how !== "after") return [item];
    const before = read.find((r) => r.item !== item && fold(r.item.title) === fold(after));
    if (before === undefined) {
      problems.push({ line, says: `It starts after “${after}”, which is not in this rundown.` });
      return [{ ...item, starts: { how: "hand" } }];
    }
    return [{ ...item, starts: { ...item.starts, item: before.item.id } }];
  });
  return { items, problems: problems.sort((a, b) => a.line - b.line) };
}

const lineSchema = z.object(Object.fromEntries(rundownColumns.map((c) => [c, z.coerce.string().optional()]))).partial();
export const rundownFileSchema = z.object({ rundown: z.array(lineSchema).max(60, "A rundown holds at most 60 things.") });
