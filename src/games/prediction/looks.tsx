"use client";
import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import type { PredictionSettings } from "../../core/games/prediction/settings";
import { letterOf } from "../../core/games/prediction/letters";
import { ColourField } from "../../ui/colour-field";
import { Tick } from "../../ui/tick";
import type { LooksProps } from "../shown";

/** How a prediction looks: its jars, and what fills them. */
export function PredictionLooks({ settings, onChange }: LooksProps) {
  const { looks, outcomes, templates } = settings as PredictionSettings;
  const many = Math.max(outcomes.length, ...templates.map((t) => t.outcomes.length));
  return (
    <Stack gap="5">
      <Tick label="Who staked most on each, under its jar" value={looks.top} onSet={(v) => onChange("looks.top", v)} />
      <ColourField label="Glass" value={looks.glass} onSet={(v) => onChange("looks.glass", v)} />
      <Box>
        <Text fontWeight="700" mb="1">
          What fills them
        </Text>
        <Text color="inkSoft" fontSize="15px" mb="2">
          Each has its letter and its pattern too, so that nobody needs to see colours.
        </Text>
        <Flex gap="4" wrap="wrap">
          {looks.fills.slice(0, many).map((colour, i) => (
            <ColourField
              key={i}
              label={letterOf(i)}
              value={colour}
              onSet={(v) =>
                onChange(
                  "looks.fills",
                  looks.fills.map((c, k) => (k === i ? v : c)),
                )
              }
            />
          ))}
        </Flex>
      </Box>
    </Stack>
  );
}
