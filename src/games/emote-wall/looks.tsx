"use client";
import { Box, chakra, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import type { WallSettings } from "../../core/games/emote-wall/settings";
import { motions } from "../../core/games/emote-wall/limits";
import { motionWords } from "../../core/games/emote-wall/motions";
import { Dial } from "../../ui/dial";
import { RadioTile } from "../../ui/radio-tile";
import type { LooksProps } from "../shown";

const areas = [
  { name: "everywhere", area: { x: 0, y: 0, width: 1, height: 1 } },
  { name: "left third", area: { x: 0, y: 0, width: 1 / 3, height: 1 } },
  { name: "right third", area: { x: 2 / 3, y: 0, width: 1 / 3, height: 1 } },
  { name: "upper half", area: { x: 0, y: 0, width: 1, height: 0.5 } },
  { name: "lower half", area: { x: 0, y: 0.5, width: 1, height: 0.5 } },
] as const;

/** How the wall looks: ordinary controls, and every change shows in the preview at once. */
export function WallLooks({ settings: given, onChange }: LooksProps) {
  const s = given as WallSettings;
  return (
    <Stack gap="4">
      <Box>
        <MotionTiles label="How emotes move" value={s.motion} onPick={(m) => onChange("motion", m)} />
      </Box>
      <Grid templateColumns="1fr 1fr" columnGap="8" rowGap="2">
        <Dial
          label="Stays for"
          unit="s"
          value={s.lifeMs / 1000}
          min={0.5}
          max={30}
          most={120}
          step={0.5}
          onSet={(v) => onChange("lifeMs", Math.round(v * 1000))}
        />
        <Dial
          label="Size"
          unit="% of height"
          value={Math.round(s.sizeShare * 1000) / 10}
          min={2}
          max={40}
          most={60}
          step={0.5}
          onSet={(v) => onChange("sizeShare", v / 100)}
        />
        <Dial
          label="Sizes differ by"
          unit="%"
          value={Math.round(s.sizeSpread * 100)}
          min={0}
          max={90}
          step={5}
          onSet={(v) => onChange("sizeSpread", v / 100)}
        />
        <Dial
          label="Opacity"
          unit="%"
          value={Math.round(s.opacity * 100)}
          min={10}
          max={100}
          step={5}
          onSet={(v) => onChange("opacity", v / 100)}
        />
      </Grid>
      <Box>
        <Text fontWeight="700" mb="2" id="area-label">
          Where they move
        </Text>
        <Flex gap="2" wrap="wrap" role="group" aria-labelledby="area-label">
          {areas.map(({ name, area }) => {
            const on = (["x", "y", "width", "height"] as const).every((k) => Math.abs(area[k] - s.area[k]) < 0.005);
            return (
              <chakra.button
                key={name}
                type="button"
                aria-pressed={on}
                onClick={() => onChange("area", area)}
                display="flex"
                alignItems="center"
                gap="2"
                px="2.5"
                minH="36px"
                borderWidth="1px"
                borderColor={on ? "ochre.solid" : "line"}
                bg={on ? "blank" : "transparent"}
                borderRadius="8px"
                fontWeight="600"
                fontSize="15px"
                cursor="pointer"
              >
                <Box position="relative" width="32px" height="18px" borderWidth="1px" borderColor="inkSoft" aria-hidden="true">
                  <Box
                    position="absolute"
                    bg="ochreText"
                    left={`${area.x * 100}%`}
                    top={`${area.y * 100}%`}
                    width={`${area.width * 100}%`}
                    height={`${area.height * 100}%`}
                  />
                </Box>
                {name}
              </chakra.button>
            );
          })}
        </Flex>
        <Grid templateColumns="repeat(4, 1fr)" gap="4" mt="2.5">
          <Edge label="From left" value={s.area.x} most={1 - s.area.width} onSet={(v) => onChange("area", { ...s.area, x: v })} />
          <Edge label="From top" value={s.area.y} most={1 - s.area.height} onSet={(v) => onChange("area", { ...s.area, y: v })} />
          <Edge
            label="Width"
            value={s.area.width}
            least={0.05}
            most={1 - s.area.x}
            onSet={(v) => onChange("area", { ...s.area, width: v })}
          />
          <Edge
            label="Height"
            value={s.area.height}
            least={0.05}
            most={1 - s.area.y}
            onSet={(v) => onChange("area", { ...s.area, height: v })}
          />
        </Grid>
      </Box>
      <chakra.label fontWeight="700" display="flex" alignItems="center" gap="3">
        A flock moves
        <chakra.select
          value={s.flock.motion}
          onChange={(e) => onChange("flock.motion", e.currentTarget.value)}
          minH="36px"
          px="2"
          borderWidth="1px"
          borderColor="line"
          borderRadius="8px"
          bg="ground"
          fontWeight="600"
        >
          {motions.map((m) => (
            <option key={m} value={m}>
              {motionWords[m].name}
            </option>
          ))}
        </chakra.select>
      </chakra.label>
    </Stack>
  );
}

function MotionTiles({ label, value, onPick }: Readonly<{ label: string; value: string; onPick: (motion: string) => void }>) {
  return (
    <Box role="radiogroup" aria-label={label}>
      <Text fontWeight="700" mb="2">
        {label}
      </Text>
      <Grid templateColumns="repeat(3, 1fr)" gap="2">
        {motions.map((m) => (
          <RadioTile key={m} group={label} value={m} checked={m === value} onPick={() => onPick(m)}>
            <Text fontWeight="700" fontSize="15px">
              {motionWords[m].name}
            </Text>
            <Text color="inkSoft" fontSize="14px" lineHeight="1.35">
              {motionWords[m].tells}
            </Text>
          </RadioTile>
        ))}
      </Grid>
    </Box>
  );
}

function Edge({
  label,
  value,
  least = 0,
  most,
  onSet,
}: Readonly<{ label: string; value: number; least?: number; most: number; onSet: (value: number) => void }>) {
  return (
    <chakra.label fontSize="15px" color="inkSoft">
      {label}
      <Flex align="baseline" gap="1">
        <chakra.input
          type="number"
          value={Math.round(value * 100)}
          min={Math.round(least * 100)}
          max={Math.round(most * 100)}
          step={1}
          width="100%"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          px="2"
          minH="36px"
          bg="transparent"
          color="ink"
          onChange={(e) => {
            const v = e.currentTarget.valueAsNumber / 100;
            if (Number.isFinite(v)) onSet(Math.min(most, Math.max(least, v)));
          }}
        />
        %
      </Flex>
    </chakra.label>
  );
}
