"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import type { Place } from "../../../../../core/wire/messages";
import { Dial } from "../../../../../ui/dial";
import { Tick } from "../../../../../ui/tick";
import { useScenes } from "../../../../_frame/use-scenes";
import { NumberField } from "../../../../../ui/number-field";
import { align, type Align, aligns } from "./snap";

const alignWords: Readonly<Record<Align, string>> = {
  left: "left edge",
  middle: "middle",
  right: "right edge",
  top: "top",
  centre: "centre height",
  bottom: "bottom",
  whole: "whole picture",
};

/** One game's place in numbers, alignments, opacity. */
export function PlaceDetails({ name, place, onSet }: Readonly<{ name: string; place: Place; onSet: (part: Partial<Place>) => void }>) {
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="1">
        {name}
      </Text>
      <Box fontSize="15px" lineHeight="2.1">
        {(
          [
            ["From left", "x"],
            ["from top", "y"],
            ["width", "width"],
            ["height", "height"],
          ] as const
        ).map(([label, key]) => (
          <chakra.span key={key}>
            {label}{" "}
            <NumberField
              label={label}
              value={Math.round(place[key] * 1000)}
              min={0}
              max={1000}
              scale={10}
              unit="%"
              onSet={(v) => !place.locked && onSet({ [key]: v / 1000 })}
            />{" "}
          </chakra.span>
        ))}
      </Box>
      <Flex gap="1.5" wrap="wrap" my="2" role="group" aria-label="Align">
        {aligns.map((how) => (
          <Button key={how} size="xs" variant="outline" disabled={place.locked} onClick={() => onSet(align(place, how))}>
            {alignWords[how]}
          </Button>
        ))}
      </Flex>
      <Dial
        label="Opacity"
        unit="%"
        value={Math.round(place.opacity * 100)}
        min={0}
        max={100}
        step={5}
        onSet={(v) => onSet({ opacity: v / 100 })}
      />
      <PlaceScenes name={name} place={place} onSet={onSet} />
    </Box>
  );
}

/** Whether it is shown only while the studio is in some scenes; where there is a studio, or was. */
function PlaceScenes({ name, place, onSet }: Readonly<{ name: string; place: Place; onSet: (part: Partial<Place>) => void }>) {
  const known = useScenes();
  const chosen = place.scenes ?? [];
  const all = [...known, ...chosen.filter((scene) => !known.includes(scene))];
  if (all.length === 0) return null;
  return (
    <Box mt="3" role="group" aria-label={`In which scenes ${name} is shown`}>
      <Text fontWeight="700" fontSize="15px">
        {chosen.length === 0 ? "Shown in every scene of the studio" : "Shown only in these scenes"}
      </Text>
      <Flex gap="3" wrap="wrap" mt="1">
        {all.map((scene) => (
          <Tick
            key={scene}
            label={known.includes(scene) ? scene : `${scene} (not there now)`}
            value={chosen.includes(scene)}
            onSet={(on) => onSet({ scenes: on ? [...chosen, scene] : chosen.filter((s) => s !== scene) })}
          />
        ))}
      </Flex>
    </Box>
  );
}
