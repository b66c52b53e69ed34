"use client";
import { Box, Text } from "@chakra-ui/react";
import { entrances, exits } from "../core/alerts/alert";
import { Pick } from "../ui/pick";

const inWords: Readonly<Record<(typeof entrances)[number], string>> = {
  spring: "springs up",
  slide: "slides in",
  fade: "fades in",
  drop: "drops in",
  rise: "rises",
  turn: "turns over",
};
const outWords: Readonly<Record<(typeof exits)[number], string>> = {
  shrink: "shrinks away",
  sink: "sinks",
  fly: "flies off",
  fade: "fades",
};

/** How a card comes and goes, by the overlay's one vocabulary. */
export function CardMotion({
  looks,
  onSet,
}: Readonly<{ looks: Readonly<{ entrance: string; exit: string }>; onSet: (key: "entrance" | "exit", value: string) => void }>) {
  return (
    <Box fontSize="16px" lineHeight="2">
      <Text as="span">The card </Text>
      <Pick
        label="How it comes"
        value={looks.entrance}
        options={entrances.map((e) => ({ value: e, words: inWords[e] }))}
        onSet={(v) => onSet("entrance", v)}
      />
      <Text as="span">, and </Text>
      <Pick
        label="How it goes"
        value={looks.exit}
        options={exits.map((e) => ({ value: e, words: outWords[e] }))}
        onSet={(v) => onSet("exit", v)}
      />
      <Text as="span">.</Text>
    </Box>
  );
}
