import type { GameAsk, GameChoice, Row } from "../../module/game";
import { counted } from "../../words/sentence";
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
