import type { Fair, GameAsk, Row, Unfinished } from "../../module/game";
import { count, counted } from "../../words/sentence";

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

/** A draw that is not closed when the show ends: who is in, what is held, who has not claimed. */
export function raffleUnfinished(view: Row): readonly Unfinished[] {
  const phase = view["phase"];
  if (phase === "" || phase === "cancelled" || phase === undefined) return [];
  const title = String(view["title"]);
  const held = Number(view["held"] ?? 0);
  const many = counted(Number(view["people"] ?? 0), "viewer");
  const points = held === 0 ? "" : `, and ${count(held)} of their points are held`;
  const cancel = { label: held === 0 ? "Cancel it" : "Cancel it, points go back", command: { do: "cancel" } };
  if (phase === "open")
    return [
      {
        id: "open",
        words: `“${title}” is open with ${many} in it${points}.`,
        ways: [{ label: "Lock it", command: { do: "lock" } }, cancel],
      },
    ];
  if (phase === "shaking") return [{ id: "shaking", words: `“${title}” is being shaken; nobody was drawn yet${points}.`, ways: [cancel] }];
  const waits = raffleAsks(view).map(({ id, words, main, other }) => ({
    id,
    words: `${words}.`,
    ways: [main, ...(other === null ? [] : [{ ...other, label: "Pass over and draw the next" }])],
  }));
  if (waits.length > 0) return waits;
  const left = Number(view["left"] ?? 0);
  const none = ((view["winners"] ?? []) as readonly unknown[]).length === 0;
  const draw = { label: left > 1 ? `Draw all ${count(left)} winners` : "Draw the winner", command: { do: "draw-all" } };
  if (none && Number(view["people"] ?? 0) > 0)
    return [{ id: "undrawn", words: `“${title}” is locked with ${many} in it, and nobody was drawn${points}.`, ways: [draw, cancel] }];
  return [
    { id: "unclosed", words: `“${title}” was drawn and is not closed${points}.`, ways: [{ label: "Close it", command: { do: "close" } }] },
  ];
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
    case "locked": {
      // Views are written here.
      const winners = (view["winners"] ?? []) as readonly Readonly<{ name: string; state: string }>[];
      const won = winners.filter((w) => w.state !== "passed").map((w) => w.name);
      return won.length === 0
        ? `is locked: ${many} in`
        : `is locked: ${many} in; ${won.length === 1 ? "the winner is" : "winners are"} ${won.slice(0, 3).join(", ")}${won.length > 3 ? " and others" : ""}`;
    }
    case "cancelled":
      return "is being cancelled";
    default:
      return "waits to be opened";
  }
}
