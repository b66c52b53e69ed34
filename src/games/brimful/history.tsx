"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { count, counted } from "../../core/words/sentence";
import { When } from "../../ui/when";
import type { HistoryProps } from "../shown";
import { useRecords } from "../use-records";

type Body = Readonly<{
  how?: string;
  by?: string;
  pieces?: number;
  percent?: number;
  people?: number;
  givers?: readonly Readonly<{ name: string; pieces: number }>[];
}>;
const lasted = (ms: number): string =>
  ms < 90_000 ? counted(Math.max(1, Math.round(ms / 1000)), "second") : counted(Math.round(ms / 60_000), "minute");

/** What a vessel held each time, who filled it, and how it ended. */
export function BrimfulHistory({ view, load, command }: HistoryProps) {
  const records = useRecords(load, ["filling"], `${String(view?.["brims"])} ${Number(view?.["pieces"] ?? 0) === 0}`);
  const fillings = records?.filling ?? [];
  return (
    <Box>
      {view !== undefined && (
        <Box bg="raised" borderRadius="10px" p="4" mb="5">
          <Text fontWeight="700" fontSize="17px">
            {Number(view["full"])} % full, {counted(Number(view["pieces"] ?? 0), "piece")}
          </Text>
          <Flex gap="2" mt="2" wrap="wrap">
            <Button
              size="sm"
              variant="outline"
              onClick={() => void command({ do: "tell-rules" }, "Chat was told how full it is, and the rules.")}
            >
              Tell in chat
            </Button>
            <Button
              size="sm"
              variant="outline"
              color="brickText"
              disabled={Number(view["pieces"] ?? 0) === 0}
              onClick={() => void command({ do: "empty" }, "Emptied. What it held is kept below.")}
            >
              Empty it
            </Button>
          </Flex>
        </Box>
      )}
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        What it held
      </Text>
      {records !== null && fillings.length === 0 && (
        <Text color="inkSoft">It was neither full nor emptied yet. What it held then stands here, with who gave most.</Text>
      )}
      <Stack gap="1.5" role="list" aria-label="Fillings" maxH="420px" overflowY="auto" tabIndex={fillings.length > 5 ? 0 : undefined}>
        {fillings.map((r) => {
          // What the game's own rules wrote.
          const b = r.body as Body;
          return (
            <Box key={r.id} role="listitem" bg="raised" borderRadius="8px" px="3" py="1.5" fontSize="15.5px">
              <Flex gap="3" wrap="wrap">
                <Text fontWeight="700">{b.how === "brimmed" ? "Brimmed over" : "Emptied"}</Text>
                <Text flex="1" color="inkSoft">
                  with {counted(b.pieces ?? 0, "piece")}, {b.percent ?? 0} % full, after {lasted(r.toMs - r.fromMs)}
                  {b.by !== undefined && b.by !== "" ? `, by ${b.by}` : ""}
                </Text>
                <Text color="inkSoft">
                  <When atMs={r.toMs} />
                </Text>
              </Flex>
              {(b.givers ?? []).length > 0 && (
                <Text color="inkSoft">
                  Most from{" "}
                  {(b.givers ?? [])
                    .slice(0, 3)
                    .map((g) => `${g.name} (${count(g.pieces)})`)
                    .join(", ")}
                  {(b.people ?? 0) > 3 ? `, and ${counted((b.people ?? 0) - 3, "other")}` : ""}
                </Text>
              )}
            </Box>
          );
        })}
      </Stack>
    </Box>
  );
}
