"use client";
import { Box, Button, Flex, Link, Stack, Table, Text } from "@chakra-ui/react";
import { useState } from "react";
import { gameOf } from "../../../../core/games/registry";
import type { HandOver } from "../../../../core/module/game";
import { count, counted } from "../../../../core/words/sentence";
import type { PastRound } from "../../../../server/web/past-rounds";
import { Pick } from "../../../../ui/pick";
import { Tick } from "../../../../ui/tick";
import { When } from "../../../../ui/when";
import { useLive } from "../../../_frame/live";
import { commandAndTell } from "../../../_frame/show";

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

/** Prizes on their way, of every game that gives some; what was handed over is out of the way until it is asked for. */
function HandOvers() {
  const games = useLive((s) => s.standing?.games);
  const [all, setAll] = useState(false);
  const list = (games ?? []).flatMap((game) => (gameOf(game.kind)?.handOvers?.(game.view) ?? []).map((prize) => ({ game, prize })));
  const open = list.filter(({ prize }) => prize.state !== "sent");
  if (list.length === 0) return null;
  return (
    <Box mb="8">
      <Flex align="center" gap="4" mb="2" wrap="wrap">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="19px">
          Prizes to hand over
        </Text>
        <Text color="inkSoft" flex="1">
          {open.length === 0 ? "none waits" : counted(open.length, "prize")}
        </Text>
        {list.length > open.length && <Tick label="Those that were handed over too" value={all} onSet={setAll} />}
      </Flex>
      <Stack gap="1" role="list" aria-label="Prizes to hand over">
        {(all ? list : open).map(({ game, prize }) => (
          <Prize key={prize.id} prize={prize} gameName={game.name} run={(command) => void commandAndTell(game, command)} />
        ))}
      </Stack>
    </Box>
  );
}

const stateWords: Readonly<Record<string, string>> = { promised: "promised", claimed: "claimed", sent: "handed over" };
function Prize({
  prize,
  gameName,
  run,
}: Readonly<{ prize: HandOver; gameName: string; run: (command: HandOver["next"][number]["command"]) => void }>) {
  return (
    <Flex role="listitem" align="center" gap="3" bg="raised" borderRadius="8px" px="3" py="1.5" wrap="wrap">
      <Box flex="1" minW="220px">
        <b>{prize.what}</b> for <bdi>{prize.viewer}</bdi>
        <Text color="inkSoft" fontSize="15px">
          {gameName}, <When atMs={prize.atMs} />
          {prize.about === "" ? "" : ` · ${prize.about}`}
        </Text>
      </Box>
      <Text color={prize.state === "sent" ? "mossText" : "ochreText"} fontWeight="700" fontSize="15px">
        {stateWords[prize.state] ?? prize.state}
      </Text>
      {prize.next.map((n) => (
        <Button
          key={n.label}
          size="xs"
          variant="outline"
          aria-label={`${n.label}: ${prize.what} for ${prize.viewer}`}
          onClick={() => run(n.command)}
        >
          {n.label}
        </Button>
      ))}
    </Flex>
  );
}
