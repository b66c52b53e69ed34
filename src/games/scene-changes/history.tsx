"use client";
import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import { studioNoteInWords } from "../../core/games/scene-changes/notes";
import { When } from "../../ui/when";
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
  const { change = [] } = records ?? {};
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        Scene changes
      </Text>
      {records !== null && change.length === 0 && (
        <Text color="inkSoft">None yet. Each change is listed here, and each that did not come, with its reason.</Text>
      )}
      <Stack gap="1" role="list" aria-label="Scene changes" maxH="480px" overflowY="auto" tabIndex={change.length > 6 ? 0 : undefined}>
        {change.slice(0, 200).map((r) => (
          <Flex key={r.id} role="listitem" gap="3" fontSize="15.5px" borderBottomWidth="1px" borderColor="line" py="1" wrap="wrap">
            <Text flex="1" minW="240px" overflowWrap="anywhere">
              <bdi>{wordsOf(r)}</bdi>
            </Text>
            <Text color="inkSoft">
              <When atMs={r.fromMs} />
            </Text>
          </Flex>
        ))}
      </Stack>
    </Box>
  );
}
