import { cut } from "../../kernel/text";
import { mostSegments, mostWeight, newSegment, type Segment } from "./settings";

export type Pasted = Readonly<{
  segments: readonly Segment[];
  /** Lines that found no room. */
  left: number;
  /** Names that were too long. */
  shortened: number;
}>;
const mostLetters = 60;

/**
 * Segments from lines of text, as they come from a list or a table: a name, and behind a tab or a semicolon its weight.
 * Empty lines are passed over; a weight that is none is part of the name.
 */
export function segmentsFrom(text: string, before: readonly Segment[], idOf: (n: number) => string): Pasted {
  const lines = text
    .split(/\r\n|\r|\n/)
    .map((line) => line.trim())
    .filter((line) => line !== "");
  const room = Math.max(0, mostSegments - before.length);
  let shortened = 0;
  const segments = lines.slice(0, room).map((line, i) => {
    const found = /^(.*\S)\s*[\t;]\s*(\d{1,7})$/u.exec(line);
    const weight = Number(found?.[2] ?? 1);
    const good = found !== null && weight >= 1 && weight <= mostWeight;
    const name = good ? (found[1] ?? line) : line;
    const label = cut(name, mostLetters).trim();
    if (label !== name) shortened += 1;
    return { ...newSegment(idOf(i), label, before.length + i), weight: good ? weight : 1 };
  });
  return { segments, left: lines.length - segments.length, shortened };
}
