"use client";
import { Box, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import type { WheelSettings } from "../../core/games/wheel/settings";
import { ColourField } from "../../ui/colour-field";
import { Dial } from "../../ui/dial";
import { Pick } from "../../ui/pick";
import { Tick } from "../../ui/tick";
import type { LooksProps } from "../shown";

/** How the wheel looks and sounds. */
export function WheelLooks({ settings, sprites, onChange }: LooksProps) {
  const { looks, angles } = settings as WheelSettings;
  const set = (key: keyof WheelSettings["looks"]) => (value: unknown) => onChange(`looks.${key}`, value);
  const whole = (key: keyof WheelSettings["looks"]) => (value: number) => onChange(`looks.${key}`, Math.round(value));
  const pictures = (none: string) => [{ value: "", words: none }, ...sprites.map((s) => ({ value: s.key, words: s.word }))];
  return (
    <Stack gap="5">
      <Flex gap="4" align="center" wrap="wrap">
        <Pick
          label="When it is shown"
          value={looks.show}
          options={[
            { value: "always", words: "Always on the picture" },
            { value: "spins", words: "Only while it spins, and with its result" },
          ]}
          onSet={set("show")}
        />
        <Tick label="The result on a tag, with whose spin it was" value={looks.panel} onSet={set("panel")} />
        <Tick
          label={angles === "equal" ? "Chances under the names" : "Chances under the names, where there is room"}
          value={looks.chances}
          onSet={set("chances")}
        />
      </Flex>
      <Box>
        <Text fontWeight="700" mb="2">
          The plate
        </Text>
        <Flex gap="5" wrap="wrap" align="end">
          <ColourField label="Rim" value={looks.rim} onSet={set("rim")} />
          <ColourField label="Middle" value={looks.hub} onSet={set("hub")} />
          <ColourField label="Rib" value={looks.pointer} onSet={set("pointer")} />
          <Labelled label="In the middle">
            <Pick label="Picture in the middle" value={looks.middle} options={pictures("a spiral")} width="150px" onSet={set("middle")} />
          </Labelled>
          <Labelled label="Pointer is">
            <Pick
              label="Picture as the pointer"
              value={looks.pointerPicture}
              options={pictures("a wooden rib")}
              width="150px"
              onSet={set("pointerPicture")}
            />
          </Labelled>
        </Flex>
      </Box>
      <Grid templateColumns="1fr 1fr" columnGap="8" rowGap="2">
        <Dial label="Pointer at" unit="° from top" value={looks.pointerAt} min={0} max={359} step={1} onSet={whole("pointerAt")} />
        <Dial label="Letters" unit="% of usual" value={looks.letterSize} min={50} max={200} step={5} onSet={whole("letterSize")} />
        <Dial label="Result" unit="% of usual" value={looks.panelSize} min={50} max={200} step={5} onSet={whole("panelSize")} />
        <Box>
          <Text fontWeight="700" fontSize="15px" mb="1">
            Weight of the letters
          </Text>
          <Pick
            label="Weight of the letters"
            value={looks.letters}
            options={[
              { value: "light", words: "light" },
              { value: "bold", words: "bold" },
              { value: "heavy", words: "heavy" },
            ]}
            onSet={set("letters")}
          />
        </Box>
      </Grid>
      <Box>
        <Text fontWeight="700" mb="2">
          The tick of the pegs
        </Text>
        <Tick label="It is heard on the page that makes sound" value={looks.tick} onSet={set("tick")} />
        {looks.tick && (
          <Grid templateColumns="1fr 1fr" columnGap="8" mt="2">
            <Dial label="Pitch" unit="Hz" value={looks.tickPitch} min={100} max={2_000} step={20} onSet={whole("tickPitch")} />
            <Dial label="Loudness" unit="%" value={looks.tickVolume} min={0} max={100} step={5} onSet={whole("tickVolume")} />
          </Grid>
        )}
      </Box>
    </Stack>
  );
}

function Labelled({ label, children }: Readonly<{ label: string; children: ReactNode }>) {
  return (
    <Box>
      <Text fontWeight="700" fontSize="15px" mb="1" aria-hidden="true">
        {label}
      </Text>
      {children}
    </Box>
  );
}
