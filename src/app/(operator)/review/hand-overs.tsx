"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import { frontOf } from "../../../core/games/fronts";
import type { HandOver } from "../../../core/module/game";
import { counted } from "../../../core/words/sentence";
import { Tick } from "../../../ui/tick";
import { When } from "../../../ui/when";
import { useLive } from "../../_frame/live";
import { commandAndTell } from "../../_frame/show";

/** Prizes on their way, of every game that gives some, or of those won in a stretch of time; what was handed over is out of the way until it is asked for. */
export function HandOvers({ between }: Readonly<{ between?: readonly [fromMs: number, toMs: number] }>) {
  const games = useLive((s) => s.standing?.games);
  const [all, setAll] = useState(false);
  const list = (games ?? [])
    .flatMap((game) => (frontOf(game.kind)?.handOvers?.(game.view) ?? []).map((prize) => ({ game, prize })))
    .filter(({ prize }) => between === undefined || (prize.atMs >= between[0] && prize.atMs <= between[1]));
  const open = list.filter(({ prize }) => prize.state !== "sent");
  if (list.length === 0) return null;
  return (
    <Box mb={between === undefined ? "8" : "0"} mt={between === undefined ? "0" : "6"}>
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
