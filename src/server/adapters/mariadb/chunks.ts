/** A statement stays well under the server's largest packet. */
export function* chunks<T>(rows: readonly T[], size = 1_000): Generator<readonly T[]> {
  for (let from = 0; from < rows.length; from += size) yield rows.slice(from, from + size);
}

/** Question marks for so many rows of so many columns. */
export const marks = (columns: number, rows: number): string =>
  Array.from({ length: rows }, () => `(${Array(columns).fill("?").join(",")})`).join(",");
