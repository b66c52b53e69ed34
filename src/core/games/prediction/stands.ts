import type { GameAsk, GameChoice, Row, Unfinished } from "../../module/game";
import { count, counted } from "../../words/sentence";
import { letterOf } from "./letters";

type Outcome = Readonly<{ label: string }>;

/** The result hangs on the outcomes there are: a button each, while it is locked. */
export function predictionChoices(view: Row): readonly GameChoice[] {
  if (view["phase"] !== "locked") return [];
  return (view["outcomes"] as readonly Outcome[]).map(({ label }, i) => ({
    id: `result.${i}`,
    label: `${letterOf(i)}: ${label}`,
    command: { do: "result", outcome: letterOf(i) },
    sure: true,
  }));
}

/** It is past its time: the result is told among its buttons, or asked for again later. */
export function predictionAsks(view: Row): readonly GameAsk[] {
  if (view["phase"] !== "locked" || view["late"] !== true) return [];
  return [
    {
      id: `${String(view["round"])}.due`,
      sinceMs: Number(view["lockedMs"]),
      words: `${String(view["title"])} The result is due: say what came, or cancel it.`,
      about: counted(Number(view["people"]), "viewer"),
      main: { label: "Not yet", command: { do: "later" } },
      other: null,
    },
  ];
}

/** A prediction without a result when the show ends. */
export function predictionUnfinished(view: Row): readonly Unfinished[] {
  const phase = view["phase"];
  if (phase !== "open" && phase !== "locked") return [];
  const pool = ((view["outcomes"] ?? []) as readonly Readonly<{ stakes?: number }>[]).reduce((sum, o) => sum + (o.stakes ?? 0), 0);
  const stakes = pool === 0 ? "" : `, and ${count(pool)} points are staked`;
  const words = `“${String(view["title"])}” has no result yet: ${counted(Number(view["people"]), "viewer")} took part${stakes}.`;
  const lock = phase === "open" ? [{ label: "Lock it", command: { do: "lock" } }] : [];
  const results = predictionChoices(view).map(({ label, command }) => ({ label: `It came to ${label}`, command }));
  return [{ id: "unresulted", words, ways: [...lock, ...results, { label: "Cancel it, stakes go back", command: { do: "cancel" } }] }];
}

/** How it stands, in words. */
export function predictionStands(view: Row): string {
  const many = counted(Number(view["people"] ?? 0), "viewer");
  const outcomes = (view["outcomes"] ?? []) as readonly Outcome[];
  switch (view["phase"]) {
    case "open":
      return `is open: ${many}`;
    case "locked":
      return `is locked: ${many}`;
    case "paying":
    case "done":
      return `came to ${outcomes[Number(view["result"])]?.label ?? ""}`;
    case "reversing":
      return "takes its result back";
    case "returning":
      return "gives everybody their own back";
    case "cancelled":
      return "was cancelled";
    default:
      return "waits to be opened";
  }
}
