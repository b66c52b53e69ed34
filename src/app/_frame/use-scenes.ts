"use client";
import { useMemo } from "react";
import { frontOf } from "../../core/games/fronts";
import { useLive } from "./live";

/** The scenes of the studio, as the games that follow it know them now. */
export function useScenes(): readonly string[] {
  const games = useLive((s) => s.standing?.games);
  return useMemo(() => [...new Set((games ?? []).flatMap((g) => frontOf(g.kind)?.listsNow?.(g.view)["scenes"] ?? []))], [games]);
}
