import type { Rounds } from "../../module/game";
import { counted } from "../../words/sentence";

const text = (v: unknown): string => (typeof v === "string" ? v : "");

/** What is kept of fillings, in words. Bodies are written by the game's own rules. */
export const brimfulRounds: Rounds = {
  kept: {
    filling: (body) => ({
      title: body["how"] === "brimmed" ? `Filling ${Number(body["nth"] ?? 0)}` : "A filling",
      result: `${body["how"] === "brimmed" ? "brimmed over" : "emptied"} with ${counted(Number(body["pieces"] ?? 0), "piece")}, ${Number(body["percent"] ?? 0)} % full${text(body["by"]) === "" ? "" : `, by ${text(body["by"])}`}`,
      people: Number(body["people"] ?? 0),
      round: "",
    }),
  },
};
