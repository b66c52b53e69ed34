import type { Rounds } from "../../module/game";
import { count, counted } from "../../words/sentence";
import { letterOf } from "./letters";
import type { StakeRow } from "./staking";

const text = (v: unknown): string => (typeof v === "string" ? v : "");

/** What is kept of predictions, in words. Bodies are written by the prediction's own rules. */
export const predictionRounds: Rounds = {
  kept: {
    result: (body) => {
      const outcomes = (body["outcomes"] ?? []) as readonly Readonly<{ people: number }>[];
      const winners = Number(body["winners"] ?? 0);
      const won =
        body["returned"] === true || winners === 0
          ? "nobody was right"
          : body["stakes"] === true
            ? `${counted(winners, "viewer")} shared ${count(Number(body["pot"] ?? 0))}`
            : `${counted(winners, "viewer was", "viewers were")} right`;
      return {
        title: text(body["title"]),
        result: `${letterOf(Number(body["result"] ?? 0))} ${text(body["label"])}; ${won}`,
        people: outcomes.reduce((sum, o) => sum + o.people, 0),
        round: "",
      };
    },
    cancelled: (body) => ({ title: text(body["title"]), result: "cancelled", people: Number(body["people"] ?? 0), round: "" }),
    "taken-back": (body) => ({ title: text(body["title"]), result: `${text(body["label"])} was taken back`, people: null, round: "" }),
  },
  entries: {
    kind: "stake",
    of: (body) => {
      const { stake } = body as unknown as StakeRow;
      return { id: stake.id, line: { id: stake.id, name: stake.name, outcome: letterOf(stake.outcome), stake: stake.stake } };
    },
    won: (round, line) =>
      round["returned"] !== true && typeof round["result"] === "number" && line["outcome"] === letterOf(round["result"])
        ? `right with ${letterOf(round["result"])} ${text(round["label"])}`
        : null,
  },
};
