"use client";
import { Text } from "@chakra-ui/react";
import { studioNoteInWords } from "../../core/games/scene-changes/notes";
import { HistoryList } from "../history-list";
import type { HistoryProps, RecordRow } from "../shown";
import { useRecords } from "../use-records";

type Body = Readonly<{ scene?: string; by?: string; code?: string; facts?: Record<string, string | number> }>;

/** What became of each change: gone to, back, or why the scene stayed. */
function wordsOf({ body }: RecordRow): string {
  // The scene changes' own rules wrote it.
  const { scene = "", by = "", code = "", facts = {} } = body as Body;
  if (code === "") return `“${scene}” for ${by}`;
  if (code === "back") return `back at “${scene}”`;
  return `“${scene}”: ${studioNoteInWords({ refusal: { code, facts: { ...facts, by } }, count: 1 })}`;
}

export function StudioHistory({ view, load }: HistoryProps) {
  const mark = JSON.stringify([view?.["current"], view?.["waiting"], view?.["hold"], view?.["made"]]);
  const records = useRecords(load, ["change"], mark);
  return (
    <HistoryList
      title="Scene changes"
      empty="None yet. Each change is listed here, and each that did not come, with its reason."
      rows={records?.change ?? null}
      most={200}
    >
      {(row) => (
        <Text flex="1" minW="240px" overflowWrap="anywhere">
          <bdi>{wordsOf(row)}</bdi>
        </Text>
      )}
    </HistoryList>
  );
}
