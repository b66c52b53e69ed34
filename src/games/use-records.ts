import { useEffect, useState } from "react";
import type { HistoryProps, RecordRow } from "./shown";

/** A game's records of some kinds, in their order; read again a moment after `mark` has changed. Null until they are there. */
export function useRecords<K extends string>(
  load: HistoryProps["load"],
  kinds: readonly K[],
  mark: string,
): Readonly<Record<K, readonly RecordRow[]>> | null {
  const [records, setRecords] = useState<Readonly<Record<K, readonly RecordRow[]>> | null>(null);
  const wanted = kinds.join(" ");
  useEffect(() => {
    const names = wanted.split(" ") as K[];
    const timer = setTimeout(() => {
      void Promise.all(names.map((kind) => load(kind))).then((lists) =>
        // One list for each of the kinds that were asked for.
        setRecords(Object.fromEntries(names.map((kind, i) => [kind, lists[i] ?? []])) as unknown as Record<K, readonly RecordRow[]>),
      );
    }, 200);
    return () => clearTimeout(timer);
  }, [load, wanted, mark]);
  return records;
}
