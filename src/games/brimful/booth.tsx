"use client";
import { Box, Flex, Text } from "@chakra-ui/react";
import { count, counted } from "../../core/words/sentence";
import type { BoothProps } from "../shown";

type Giver = Readonly<{ name: string; pieces: number }>;

/** A vessel in the booth: how full it is, who filled it, what waits. */
export function BrimfulBooth({ view }: BoothProps) {
  const full = Number(view["full"] ?? 0);
  const brimAt = Number(view["brimAt"] ?? 100);
  const pieces = Number(view["pieces"] ?? 0);
  const waiting = Number(view["waiting"] ?? 0);
  const brims = Number(view["brims"] ?? 0);
  // Views of operators are written by the game's own rules.
  const givers = (view["givers"] ?? []) as readonly Giver[];
  const goal = view["goal"] as Readonly<{ at: number; label: string; reached: boolean }> | null;
  return (
    <Box data-testid="brimful-booth">
      <Flex align="baseline" gap="2">
        <Text fontFamily="mono" fontSize="30px" lineHeight="1.15" data-testid="brimful-full">
          {full} %
        </Text>
        <Text color="inkSoft" fontFamily="mono" fontSize="14px">
          full; brims at {brimAt} %
        </Text>
      </Flex>
      <Box
        position="relative"
        height="14px"
        my="1"
        bg="line"
        borderRadius="3px"
        overflow="hidden"
        role="img"
        aria-label={`${full} % full, brims at ${brimAt} %`}
      >
        <Box position="absolute" inset="0" width={`${Math.min(100, (full / Math.max(brimAt, 1)) * 100)}%`} bg="ochre.solid" />
        {goal !== null && <Box position="absolute" top="0" bottom="0" left={`${(goal.at / brimAt) * 100}%`} width="2px" bg="ink" />}
      </Box>
      <Text fontSize="15px">
        {pieces === 0 ? "Nothing lies in it yet." : counted(pieces, "piece")}
        {brims > 0 && `; brimmed ${counted(brims, "time")}`}
        {view["brimmed"] === true && "; full, and waits to be emptied"}
      </Text>
      {view["lies"] !== null && (
        <Text fontSize="15px" color="brickText" fontWeight="700" role="status">
          It lies on its side{waiting > 0 ? `; ${counted(waiting, "piece")} ${waiting === 1 ? "waits" : "wait"} until it stands` : ""}.
        </Text>
      )}
      {goal !== null && (
        <Text fontSize="15px" color="inkSoft">
          “{goal.label}” at {goal.at} %{goal.reached ? ": reached" : ""}
        </Text>
      )}
      {givers.length > 0 && (
        <Text fontSize="15px" color="inkSoft" lineHeight="1.3">
          <b>{givers[0]?.name}</b> gave most, {count(givers[0]?.pieces ?? 0)}
          {givers.length > 1 &&
            `; then ${givers
              .slice(1, 3)
              .map((g) => `${g.name} ${count(g.pieces)}`)
              .join(", ")}`}
          .
        </Text>
      )}
    </Box>
  );
}
