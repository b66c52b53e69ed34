import type { Fair, GameAsk, Row } from "../../module/game";
import { counted } from "../../words/sentence";

/** A winner who is to answer waits for an operator too: they may have answered elsewhere. */
export function raffleAsks(view: Row): readonly GameAsk[] {
  // Views of operators are written here.
  const winners = (view["winners"] ?? []) as readonly Readonly<{
    index: number;
    name: string;
    prize: string;
    state: string;
    untilMs: number;
  }>[];
  return winners
    .filter((w) => w.state === "waits")
    .map(({ index, name, prize, untilMs }) => ({
      id: `${String(view["round"])}.${index}`,
      sinceMs: untilMs - Number(view["claimMs"]),
      words: `${name} won ${prize === "" ? String(view["title"]) : prize} and is to answer in chat`,
      about: "else the next is drawn",
      main: { label: "Claimed", command: { do: "claimed", index } },
      other: { label: "Pass over", command: { do: "pass", index } },
    }));
}

export const raffleFair = (view: Row): Fair => ({
  commitment: String(view["promise"] ?? ""),
  round: String(view["round"] ?? ""),
  chain: String(view["chain"] ?? ""),
  list: String(view["listHash"] ?? ""),
  // Views are written here.
  past: ((view["results"] ?? []) as readonly { round: string; title: string; atMs: number; winners: readonly string[] }[]).map((r) => ({
    round: r.round,
    words: `${r.title}: ${r.winners.length === 0 ? "nobody was drawn" : r.winners.join(", ")}`,
    atMs: r.atMs,
  })),
});

/** How it stands, in words. */
export function raffleStands(view: Readonly<Record<string, unknown>>): string {
  const people = Number(view["people"] ?? 0);
  const many = counted(people, "viewer");
  switch (view["phase"]) {
    case "open":
      return `is open: ${many} in`;
    case "shaking":
      return `is locked: ${many} in, the drum is being shaken`;
    case "locked":
      return `is locked: ${many} in`;
    case "cancelled":
      return "is being cancelled";
    default:
      return "waits to be opened";
  }
}
