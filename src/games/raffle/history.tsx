"use client";
import { Box, Flex, Link, Stack, Text } from "@chakra-ui/react";
import { count, counted } from "../../core/words/sentence";
import { When } from "../../ui/when";
import type { HistoryProps } from "../shown";
import { useRecords } from "../use-records";

type Winner = Readonly<{ name: string; state: string; prize: string }>;
type Body = Readonly<{ round?: string; title?: string; people?: number; tickets?: number; winners?: readonly Winner[] }>;

/** Every draw that is over, with its winners and its proof; those that were cancelled too. */
export function RaffleHistory({ view, load }: HistoryProps) {
  const records = useRecords(load, ["round", "abandoned"], `${String(view?.["phase"])} ${String(view?.["round"])}`);
  const rows = [...(records?.round ?? []), ...(records?.abandoned ?? [])].sort((a, b) => b.toMs - a.toMs);
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        Draws that are over
      </Text>
      {records !== null && rows.length === 0 && <Text color="inkSoft">None yet. Each stands here when it is closed, with its proof.</Text>}
      <Stack gap="0" role="list" aria-label="Draws" maxH="480px" overflowY="auto" tabIndex={rows.length > 6 ? 0 : undefined}>
        {rows.map((r) => {
          const { round, title, people = 0, tickets = 0, winners = [] } = r.body as Body;
          const won = winners.filter((w) => w.state !== "passed");
          return (
            <Flex key={r.id} role="listitem" gap="3" borderBottomWidth="1px" borderColor="line" py="1.5" align="baseline">
              <Box flex="1" minW="0">
                {records?.abandoned?.includes(r) === true ? (
                  <Text color="inkSoft">{title === undefined ? "" : `${title}: `}cancelled; what was paid went back</Text>
                ) : (
                  <>
                    <Text>
                      <b>{title}</b>{" "}
                      <Text as="span" color="inkSoft" fontSize="15px">
                        {counted(people, "viewer")}, {counted(tickets, "ticket")}
                      </Text>
                    </Text>
                    <Text fontSize="15.5px" lineClamp={3}>
                      {won.length === 0
                        ? "nobody was drawn"
                        : won.map((w, i) => (
                            <span key={i}>
                              {i > 0 ? ", " : ""}
                              <bdi>{w.name}</bdi>
                              {w.prize === "" ? "" : ` (${w.prize})`}
                            </span>
                          ))}
                      {winners.length > won.length && ` · ${count(winners.length - won.length)} did not answer`}
                    </Text>
                  </>
                )}
              </Box>
              {round !== undefined && (
                <Link href={`/rounds/${encodeURIComponent(round)}`} color="slate" target="_blank">
                  Check it
                </Link>
              )}
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
