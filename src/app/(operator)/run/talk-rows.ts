import type { Chip } from "../../../core/chips";
import { partOf } from "../../../core/notes";
import type { TakeBack } from "../../../core/module/module";
import type { TalkItem } from "../../../core/wire/messages";

export type TalkFilter = "all" | "effects" | "refused";

export const passes = (filter: TalkFilter, item: TalkItem, chips: readonly Chip[]): boolean =>
  // What nobody said and what came to nothing is no line of talk.
  (filter === "all" && (item.text !== "" || chips.length > 0)) ||
  (filter === "refused" && (chips.some((c) => c.tone === "no") || item.kind === "unsaid")) ||
  (filter === "effects" && chips.some((c) => c.tone !== "no"));

/** What can be done about a consequence with one click, the likeliest first. */
export const takeBack = (chip: Chip): readonly TakeBack[] => partOf(chip.kind)?.takeBack?.(chip.note) ?? [];
