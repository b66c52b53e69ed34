"use client";
import { Box, Flex, Link, Stack, Table, Text } from "@chakra-ui/react";
import { sharesOf, type SpinRow } from "../../core/games/wheel/shares";
import { nameOfSegment } from "../../core/games/wheel/stands";
import { count, counted } from "../../core/words/sentence";
import { When } from "../../ui/when";
import type { HistoryProps } from "../shown";
import { useRecords } from "../use-records";

type Body = SpinRow & Readonly<{ round?: string; n?: number; by?: string; why?: string }>;

/** Every spin with its proof, and how often each segment came beside how often it should have. */
export function WheelHistory({ view, load }: HistoryProps) {
  const records = useRecords(load, ["spin", "abandoned"], `${String(view?.["turning"])} ${String(view?.["round"])}`);
  const { spin: spins = [], abandoned = [] } = records ?? {};
  const bodies = spins.map((r) => r.body as Body);
  const shares = sharesOf(bodies);
  const rows = [...spins, ...abandoned].sort((a, b) => b.toMs - a.toMs).slice(0, 60);
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        How often each came
      </Text>
      {records !== null && spins.length === 0 && (
        <Text color="inkSoft">Nobody has spun it yet. Each spin stands here, with its proof.</Text>
      )}
      {spins.length > 0 && (
        <>
          <Text color="inkSoft" fontSize="15px" mb="2">
            Of the last {counted(spins.length, "spin")}, beside what its chances at those spins come to.
          </Text>
          <Box maxH="380px" overflowY="auto" tabIndex={shares.length > 8 ? 0 : undefined}>
            <Table.Root size="sm" aria-label="How often each segment came" css={{ "& tr": { bg: "transparent" } }}>
              <Table.Header>
                <Table.Row>
                  <Table.ColumnHeader>Segment</Table.ColumnHeader>
                  <Table.ColumnHeader textAlign="end">Came</Table.ColumnHeader>
                  <Table.ColumnHeader textAlign="end">Expected</Table.ColumnHeader>
                </Table.Row>
              </Table.Header>
              <Table.Body>
                {shares.map((s) => (
                  <Table.Row key={s.id}>
                    <Table.Cell fontWeight="700">{nameOfSegment(s.label)}</Table.Cell>
                    <Table.Cell textAlign="end" fontFamily="mono">
                      {count(s.came)}
                    </Table.Cell>
                    <Table.Cell textAlign="end" fontFamily="mono">
                      {s.expected.toFixed(1)}
                    </Table.Cell>
                  </Table.Row>
                ))}
              </Table.Body>
            </Table.Root>
          </Box>
        </>
      )}
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mt="5" mb="2">
        Every spin
      </Text>
      <Stack gap="1" role="list" aria-label="Spins" maxH="360px" overflowY="auto" tabIndex={rows.length > 8 ? 0 : undefined}>
        {rows.map((r) => {
          const b = r.body as Body;
          return (
            <Flex key={r.id} role="listitem" gap="3" fontSize="15.5px" borderBottomWidth="1px" borderColor="line" py="1">
              <Text flex="1">
                {b.label === undefined ? (
                  <Box as="span" color="inkSoft">
                    a promise was abandoned: {b.why === "lost" ? "its secret could not be read" : "the segments were changed"}
                  </Box>
                ) : (
                  <>
                    <b>{nameOfSegment(b.label)}</b>, for {r.viewer?.name ?? b.by}
                  </>
                )}
              </Text>
              {b.label !== undefined && b.round !== undefined && (
                <Link href={`/rounds/${encodeURIComponent(b.round)}`} color="slate" target="_blank">
                  Check it
                </Link>
              )}
              <Text color="inkSoft">
                <When atMs={r.toMs} />
              </Text>
            </Flex>
          );
        })}
      </Stack>
    </Box>
  );
}
