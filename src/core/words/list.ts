import { cut } from "../kernel/text";

/** What a list that is typed may hold: set apart by commas, or words without a space by spaces too. */
export type ListShape = Readonly<{ apart: "commas" | "spaces" | "lines"; most: number; letters: number }>;

/** A list as somebody typed it: nothing empty, nothing too long (never cut within a character), no more than may be. */
export const listFrom = (text: string, { apart, most, letters }: ListShape): string[] =>
  text
    .split(apart === "lines" ? "\n" : apart === "commas" ? "," : /[\s,]+/)
    .map((word) => cut(word.trim(), letters))
    .filter((word) => word !== "")
    .slice(0, most);
export const listText = (list: readonly string[], { apart }: Pick<ListShape, "apart">): string =>
  list.join(apart === "lines" ? "\n" : apart === "commas" ? ", " : " ");
