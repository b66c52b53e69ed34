type Measure = Pick<CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D, "measureText">;
/** As much of a text as fits into so many pixels, by whole graphemes; empty where not even one does. */
export function shortened(context: Measure, text: string, width: number): string {
  if (context.measureText(text).width <= width) return text;
  const graphemes = [...new Intl.Segmenter(undefined, { granularity: "grapheme" }).segment(text)].map((s) => s.segment);
  for (let n = graphemes.length - 1; n > 0; n -= 1) {
    const some = `${graphemes.slice(0, n).join("").trimEnd()}…`;
    if (context.measureText(some).width <= width) return some;
  }
  return "";
}
