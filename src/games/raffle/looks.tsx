"use client";
import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import type { RaffleSettings } from "../../core/games/raffle/settings";
import { ColourField } from "../../ui/colour-field";
import { Pick } from "../../ui/pick";
import { Tick } from "../../ui/tick";
import type { LooksProps } from "../shown";

/** How a draw looks: what becomes of the names when one is drawn. */
export function RaffleLooks({ settings, onChange }: LooksProps) {
  const { looks } = settings as RaffleSettings;
  const set = (key: keyof RaffleSettings["looks"]) => (value: unknown) => onChange(`looks.${key}`, value);
  return (
    <Stack gap="5">
      <Box>
        <Text fontWeight="700" mb="2">
          A winner is drawn
        </Text>
        <Pick
          label="How a winner is drawn"
          value={looks.present}
          options={[
            { value: "rack", words: "Their tag is lifted out of the rack, and turned" },
            { value: "dealt", words: "Stubs are dealt, and one is turned over" },
            { value: "reel", words: "Names roll by, and stop" },
            { value: "disc", words: "Names stand on a disc that turns, and stops" },
            { value: "plain", words: "Just told" },
          ]}
          onSet={set("present")}
        />
      </Box>
      <Flex gap="5" align="center" wrap="wrap">
        <Tick label="The winner large, with the prize" value={looks.panel} onSet={set("panel")} />
        <Tick label="Names of those who are in" value={looks.names} onSet={set("names")} />
      </Flex>
      <Flex gap="5" wrap="wrap" align="end">
        <ColourField label="Tags" value={looks.tag} onSet={set("tag")} />
        <ColourField label="Wood" value={looks.wood} onSet={set("wood")} />
      </Flex>
    </Stack>
  );
}
