import type { Rounds } from "../../module/game";
import { nameOfSegment } from "./stands";

const text = (v: unknown): string => (typeof v === "string" ? v : "");

/** What is kept of spins, in words. Bodies are written by the wheel's own rules. */
export const wheelRounds: Rounds = {
  kept: {
    spin: (body) => ({
      title: `Spin ${Number(body["n"] ?? 0)}, for ${text(body["by"])}`,
      result: nameOfSegment(text(body["label"])),
      people: null,
      round: text(body["round"]),
      winners: [{ viewer: text(body["by"]), prize: nameOfSegment(text(body["label"])) }],
    }),
    abandoned: (body) => ({ title: "A promise", result: "abandoned", people: null, round: text(body["round"]) }),
  },
};
