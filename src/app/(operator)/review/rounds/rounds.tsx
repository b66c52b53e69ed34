"use client";
import dynamic from "next/dynamic";
import { Box, Flex, Link, Table, Text } from "@chakra-ui/react";
import { useState } from "react";
import { count } from "../../../../core/words/sentence";
import type { PastRound } from "../../../../server/web/past-rounds";
import { Pick } from "../../../../ui/pick";
import { When } from "../../../../ui/when";

// Prizes are told by the games they were won in, so these come after the page.
const HandOvers = dynamic(() => import("../hand-overs").then((m) => m.HandOvers), { ssr: false });

/** Every round of chance that is over, with its result, its proof and who was in it; and what is yet to be handed over. */
export function Rounds({ rounds }: Readonly<{ rounds: readonly PastRound[] }>) {
  const [game, setGame] = useState("");
  const names = new Map(rounds.map((r) => [r.game, r.gameName]));
  const shown = rounds.filter((r) => game === "" || r.game === game);
  return (
    <Box maxW="1080px" mx="auto" px="5" pt="6" pb="10">
      <HandOvers />
      <Flex align="center" gap="4" mb="2" wrap="wrap">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="19px" flex="1">
          Rounds that are over
        </Text>
        {names.size > 1 && (
          <Pick
            label="Of which game"
            value={game}
            options={[{ value: "", words: "of all games" }, ...[...names].map(([value, words]) => ({ value, words }))]}
            width="200px"
            onSet={setGame}
          />
        )}
        {rounds.length > 0 && (
          <Text>
            All of them as{" "}
            <Link href="/api/review/rounds?as=csv" download color="slate">
              CSV
            </Link>{" "}
            or{" "}
            <Link href="/api/review/rounds?as=json" download color="slate">
              JSON
            </Link>
          </Text>
        )}
      </Flex>
      {rounds.length === 0 ? (
        <Text color="inkSoft">None yet. What is spun, drawn and predicted stands here when it is over.</Text>
      ) : (
        <Table.Root size="sm" aria-label="Rounds that are over" css={{ "& tr": { bg: "transparent" } }}>
          <Table.Header>
            <Table.Row>
              <Table.ColumnHeader>When</Table.ColumnHeader>
              <Table.ColumnHeader>Game</Table.ColumnHeader>
              <Table.ColumnHeader>What</Table.ColumnHeader>
              <Table.ColumnHeader>Result</Table.ColumnHeader>
              <Table.ColumnHeader textAlign="end">Viewers</Table.ColumnHeader>
              <Table.ColumnHeader>Who was in</Table.ColumnHeader>
              <Table.ColumnHeader>Proof</Table.ColumnHeader>
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {shown.map((r) => (
              <Table.Row key={r.id}>
                <Table.Cell whiteSpace="nowrap">
                  <When atMs={r.atMs} />
                </Table.Cell>
                <Table.Cell>{r.gameName}</Table.Cell>
                <Table.Cell>
                  <bdi>{r.title}</bdi>
                </Table.Cell>
                <Table.Cell overflowWrap="anywhere">
                  <bdi>{r.result}</bdi>
                </Table.Cell>
                <Table.Cell textAlign="end" fontFamily="mono">
                  {r.people === null ? "" : count(r.people)}
                </Table.Cell>
                <Table.Cell whiteSpace="nowrap">
                  {r.entries && (
                    <>
                      <Link
                        href={`/api/review/rounds?id=${r.id}&as=csv`}
                        download
                        color="slate"
                        aria-label={`Who was in ${r.title}, as CSV`}
                      >
                        CSV
                      </Link>{" "}
                      <Link href={`/api/review/rounds?id=${r.id}&as=json`} download color="slate" aria-label={`All of ${r.title}, as JSON`}>
                        JSON
                      </Link>
                    </>
                  )}
                </Table.Cell>
                <Table.Cell whiteSpace="nowrap">
                  {r.check !== "" && (
                    <Link href={`/rounds/${encodeURIComponent(r.check)}`} target="_blank" color="slate">
                      Check it
                    </Link>
                  )}
                </Table.Cell>
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
      )}
    </Box>
  );
}
