"use client";
import { useVirtualizer } from "@tanstack/react-virtual";
import { type ReactNode, type RefObject, useLayoutEffect } from "react";
import type { Row } from "./talk-row";

/** Where the held list begins: so far from its end, or at one row. */
export type HeldAt = Readonly<{ fromEnd: number }> | Readonly<{ row: number }>;

/** The talk held still: as far back as it is kept, so only what is in sight is made. */
export function HeldRows({
  rows,
  at,
  list,
  children,
}: Readonly<{ rows: readonly Row[]; at: HeldAt; list: RefObject<HTMLDivElement | null>; children: (row: Row) => ReactNode }>) {
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => list.current,
    estimateSize: () => 27,
    overscan: 6,
    getItemKey: (i) => rows[i]?.key ?? i,
  });
  useLayoutEffect(() => {
    const box = list.current;
    if (box === null) return;
    if ("fromEnd" in at) box.scrollTop = box.scrollHeight - box.clientHeight - at.fromEnd;
    else virtual.scrollToIndex(at.row, { align: "center" });
  }, [at, list, virtual]);
  return (
    <div style={{ position: "relative", height: virtual.getTotalSize() }}>
      {virtual.getVirtualItems().map((v) => {
        const row = rows[v.index];
        return (
          row !== undefined && (
            <div
              key={v.key}
              ref={virtual.measureElement}
              data-index={v.index}
              style={{ position: "absolute", left: 0, right: 0, transform: `translateY(${v.start}px)` }}
            >
              {children(row)}
            </div>
          )
        );
      })}
    </div>
  );
}
