"use client";
import { useCallback, useEffect, useState } from "react";
import type { TimelineEvent } from "../../../core/show/timeline";
import { rehearsalHere } from "../../_frame/rehearsal-here";
import { nowMs, useChanged, useLive, useMarks } from "../../_frame/live";

const backMs = 12 * 3_600_000;
const mostKept = 4_000;

/** What happened, from the log; live marks are added as they come, and a new connection reads the log anew. */
export function useTapeMarks(sinceMs: number | null): readonly TimelineEvent[] {
  const [marks, setMarks] = useState<readonly TimelineEvent[]>([]);
  const add = useCallback((more: readonly TimelineEvent[]) => {
    setMarks((now) => {
      const known = new Set(now.map((m) => m.seq));
      const fresh = more.filter((m) => !known.has(m.seq));
      return fresh.length === 0 ? now : [...now, ...fresh].sort((a, b) => a.seq - b.seq).slice(-mostKept);
    });
  }, []);
  useMarks(add);
  const linked = useLive((s) => s.linked === "yes");
  const read = useCallback(async () => {
    const to = nowMs() + 60_000;
    const from = Math.max(0, Math.min(sinceMs ?? to, to - backMs) - 30 * 60_000);
    const here = rehearsalHere();
    const path = here === "" ? `/api/show/tape?from=${Math.round(from)}&to=${Math.round(to)}` : `/api/rehearsals/${here}/marks`;
    const said = (await fetch(path)
      .then((r) => r.json())
      .catch(() => null)) as { ok: boolean; value?: { marks: readonly TimelineEvent[] } } | null;
    if (said?.ok === true && said.value !== undefined) add(said.value.marks);
  }, [sinceMs, add]);
  useEffect(() => {
    if (linked) void read();
  }, [linked, read]);
  // After a lost connection: what came meanwhile stands in the log.
  useChanged(useCallback((changed) => void (changed.what === "linked" && read()), [read]));
  return marks;
}
