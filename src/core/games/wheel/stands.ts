import type { Fair } from "../../module/game";
import { counted } from "../../words/sentence";
import type { SpinResult } from "./settings";

/** How a segment is called where it may have but a picture. */
export const nameOfSegment = (label: string): string => (label === "" ? "a picture" : label);

/** How it stands, for lists: by a view. */
export const wheelStands = (view: Readonly<Record<string, unknown>>): string => {
  const segments = Number(view["inPlay"] ?? 0);
  if (view["turning"] === true) return "is turning";
  return segments === 0 ? "has no segment left" : `has ${counted(segments, "segment")}`;
};

/** What viewers may check: the promise of the next spin, and the last results. */
export function wheelFair(view: Readonly<Record<string, unknown>>): Fair {
  // The view is the wheel's own.
  const results = (view["results"] ?? []) as readonly Pick<SpinResult, "round" | "label" | "by" | "atMs">[];
  return {
    commitment: String(view["promise"] ?? ""),
    round: String(view["round"] ?? ""),
    past: results.map(({ round, label, by, atMs }) => ({
      round,
      words: by === "" ? nameOfSegment(label) : `${nameOfSegment(label)}, for ${by}`,
      atMs,
    })),
  };
}
