import type { HandOver, Row, Rounds } from "../../module/game";
import type { Owed } from "./settings";
import type { EntryRow } from "./entering";

type Winner = Readonly<{ name: string; state: string; prize: string }>;
const text = (v: unknown): string => (typeof v === "string" ? v : "");

/** What is kept of draws, in words. Bodies are written by the draw's own rules. */
export const raffleRounds: Rounds = {
  kept: {
    round: (body) => {
      const won = ((body["winners"] ?? []) as readonly Winner[]).filter((w) => w.state !== "passed");
      return {
        title: text(body["title"]),
        result: won.length === 0 ? "nobody was drawn" : won.map((w) => (w.prize === "" ? w.name : `${w.name} (${w.prize})`)).join(", "),
        people: Number(body["people"] ?? 0),
        round: text(body["round"]),
        ...(body["winsKept"] === true ? {} : { winners: won.map((w) => ({ viewer: w.name, prize: w.prize })) }),
      };
    },
    abandoned: (body) => ({ title: text(body["title"]) || "A draw", result: "cancelled", people: null, round: text(body["round"]) }),
  },
  wins: {
    kind: "win",
    of: (body) => ({
      id: text(body["id"]),
      title: text(body["title"]),
      viewer: text(body["name"]),
      prize: body["standing"] === true ? text(body["prize"]) : null,
      round: text(body["round"]),
    }),
  },
  entries: {
    kind: "entry",
    of: (body) => {
      const { change, entrant } = body as unknown as EntryRow;
      if (entrant === null) return { id: change.id, line: null };
      const { name, tickets, paid, guess } = entrant;
      return { id: change.id, line: { id: change.id, name, tickets, paid, ...(guess === null ? {} : { guess }) } };
    },
  },
};

/** Prizes that were won, each with what is done next. */
export const raffleHandOvers = (view: Row): readonly HandOver[] =>
  ((view["owed"] ?? []) as readonly Owed[]).map((o) => ({
    id: o.id,
    viewer: o.viewer,
    what: o.prize,
    about: o.how,
    atMs: o.atMs,
    state: o.state,
    next:
      o.state === "sent"
        ? [{ label: "Not yet", command: { do: "prize", id: o.id, state: "claimed" } }]
        : [{ label: "Handed over", command: { do: "prize", id: o.id, state: "sent" } }],
  }));
