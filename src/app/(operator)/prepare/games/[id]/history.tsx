"use client";
import { useCallback } from "react";
import type { GameShown, RecordRow } from "../../../../../games/shown";
import { tell } from "../../../../../ui/toaster";
import { useLive } from "../../../../_frame/live";
import { commandAndTell } from "../../../../_frame/show";

/** Hands a game's own history what it needs of the page: its records, its view, its commands. */
export function History({ id, kind, Part }: Readonly<{ id: string; kind: string; Part: NonNullable<GameShown["History"]> }>) {
  const view = useLive((s) => s.standing?.games.find((g) => g.id === id)?.view);
  const load = useCallback(
    async (of: string): Promise<readonly RecordRow[]> => {
      const answer = await fetch(`/api/games/${id}/records?kind=${encodeURIComponent(of)}`);
      const said = (await answer.json().catch(() => null)) as Readonly<{ value?: { records: RecordRow[] } }> | null;
      return said?.value?.records ?? [];
    },
    [id],
  );
  return (
    <Part
      view={view}
      load={load}
      command={async (command, said) => {
        if (await commandAndTell({ id, kind }, command)) tell(said);
      }}
    />
  );
}
