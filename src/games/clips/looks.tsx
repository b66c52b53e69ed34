"use client";
import { Flex, Stack } from "@chakra-ui/react";
import type { ClipsSettings } from "../../core/games/clips/settings";
import { ColourField } from "../../ui/colour-field";
import { Tick } from "../../ui/tick";
import type { LooksProps } from "../shown";

/** The window and its curtain; letters and the panel under it are the overlay's. */
export function ClipsLooks({ settings, onChange }: LooksProps) {
  const { looks } = settings as ClipsSettings;
  return (
    <Stack gap="4" align="start">
      <ColourField label="The curtain" value={looks.curtain} onSet={(v) => onChange("looks.curtain", v)} />
      <Flex gap="5" rowGap="3" wrap="wrap">
        <Tick label="Who sent it" value={looks.name} onSet={(v) => onChange("looks.name", v)} />
        <Tick label="The seconds that are left" value={looks.left} onSet={(v) => onChange("looks.left", v)} />
        <Tick label="Without a rod: the film fills its place" value={looks.whole} onSet={(v) => onChange("looks.whole", v)} />
      </Flex>
    </Stack>
  );
}
