import { ok, refused } from "../../../core/kernel/refusal";
import type { EngineStore } from "../../ports/engine-store";
import type { MediaJob } from "../../ports/media-store";

const mostWaiting = 40;

/** Moving pictures that are to be made, of which nobody makes any: tests say what came of each. */
export function memoryMedia(guard: () => void): EngineStore["media"] & Readonly<{ rows: Map<string, MediaJob>; toldOf: Set<string> }> {
  const rows = new Map<string, MediaJob>();
  const toldOf = new Set<string>();
  return {
    rows,
    toldOf,
    file: async () => (guard(), null),
    add: async (job, nowMs) => {
      guard();
      if ([...rows.values()].filter((j) => j.state === "waiting").length >= mostWaiting) return refused("file/too-many");
      if (!rows.has(job.id)) rows.set(job.id, { ...job, state: "waiting", share: 0, tries: 0, createdMs: nowMs, why: null, result: null });
      return ok(null);
    },
    drop: async (_, id) => {
      guard();
      const all = [...rows.values()].filter((j) => (j.id === id || j.about === id) && j.state === "waiting");
      for (const job of all) rows.set(job.id, { ...job, state: "dropped" });
      return all.length > 0;
    },
    stalled: async (channel, beforeMs) => {
      guard();
      return [...rows.values()].filter((j) => j.channel === channel && j.state === "waiting" && j.createdMs < beforeMs).length;
    },
    untold: async (channel) => {
      guard();
      return [...rows.values()].filter((j) => j.channel === channel && (j.state === "done" || j.state === "failed") && !toldOf.has(j.id));
    },
    told: async (id) => (guard(), void toldOf.add(id)),
  };
}
