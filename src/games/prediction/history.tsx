"use client";
import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import { letterOf } from "../../core/games/prediction/letters";
import { count, counted } from "../../core/words/sentence";
import { When } from "../../ui/when";
import type { HistoryProps } from "../shown";
import { useRecords } from "../use-records";

type Body = Readonly<{
  title?: string;
  label?: string;
  by?: string;
  result?: number;
  outcomes?: readonly Readonly<{ label: string; stakes: number; people: number }>[];
  winners?: number;
  pot?: number;
  returned?: boolean;
  stakes?: boolean;
  people?: number;
}>;

/** Every prediction that is over, with what backed each outcome; those that were cancelled or taken back too. */
export function PredictionHistory({ view, load }: HistoryProps) {
  const records = useRecords(load, ["result", "cancelled", "taken-back"], `${String(view?.["phase"])} ${String(view?.["round"])}`);
  const rows = [
    ...(records?.result ?? []).map((r) => ({ r, kind: "result" })),
    ...(records?.cancelled ?? []).map((r) => ({ r, kind: "cancelled" })),
    ...(records?.["taken-back"] ?? []).map((r) => ({ r, kind: "taken back" })),
  ].sort((a, b) => b.r.toMs - a.r.toMs);
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        Predictions that are over
      </Text>
      {records !== null && rows.length === 0 && <Text color="inkSoft">None yet. Each stands here when its result is told.</Text>}
      <Stack gap="0" role="list" aria-label="Predictions" maxH="520px" overflowY="auto" tabIndex={rows.length > 6 ? 0 : undefined}>
        {rows.map(({ r, kind }) => {
          const b = r.body as Body;
          return (
            <Flex key={r.id} role="listitem" gap="3" borderBottomWidth="1px" borderColor="line" py="1.5" align="baseline">
              <Box flex="1" minW="0">
                <Text fontWeight="700">{b.title ?? ""}</Text>
                {kind !== "result" ? (
                  <Text fontSize="15.5px" color="inkSoft">
                    {kind === "cancelled"
                      ? `cancelled; ${counted(b.people ?? 0, "viewer")} got their own back`
                      : `${b.label ?? ""} was taken back`}
                  </Text>
                ) : (
                  <>
                    <Text fontSize="15.5px">
                      {letterOf(b.result ?? 0)} {b.label}
                      <Text as="span" color="inkSoft">
                        , said by {b.by};{" "}
                        {b.stakes !== true
                          ? `${counted(b.winners ?? 0, "viewer was", "viewers were")} right`
                          : b.returned === true
                            ? "nobody was right"
                            : `${counted(b.winners ?? 0, "viewer shared", "viewers shared")} ${count(b.pot ?? 0)}`}
                      </Text>
                    </Text>
                    <Text fontSize="14.5px" color="inkSoft" fontFamily="mono">
                      {(b.outcomes ?? [])
                        .map((o, i) => `${letterOf(i)} ${b.stakes === true ? count(o.stakes) : count(o.people)}`)
                        .join(" · ")}
                    </Text>
                  </>
                )}
              </Box>
              <Text color="inkSoft" fontSize="15px">
                <When atMs={r.toMs} />
              </Text>
            </Flex>
          );
        })}
      </Stack>
    </Box>
  );
}
