"use client";
import { chakra, Flex, Slider, Text } from "@chakra-ui/react";

/** A slider with its number; the slider spans what is usual, the number takes all that is allowed. */
export function Dial({
  label,
  unit,
  value,
  min,
  max,
  most = max,
  step,
  onSet,
}: Readonly<{
  label: string;
  unit: string;
  value: number;
  min: number;
  max: number;
  most?: number;
  step: number;
  onSet: (value: number) => void;
}>) {
  const set = (v: number): void => {
    if (Number.isFinite(v)) onSet(Math.min(most, Math.max(min, v)));
  };
  return (
    <Slider.Root
      value={[Math.min(max, value)]}
      min={min}
      max={max}
      step={step}
      colorPalette="ochre"
      onValueChange={(e) => set(e.value[0] ?? value)}
    >
      <Flex justify="space-between" align="baseline">
        <Slider.Label fontWeight="700" fontSize="15px">
          {label}
        </Slider.Label>
        <Text fontSize="15px" color="inkSoft">
          <chakra.input
            type="number"
            aria-label={`${label}, ${unit}`}
            value={value}
            min={min}
            max={most}
            step={step}
            onChange={(e) => set(e.currentTarget.valueAsNumber)}
            width="64px"
            textAlign="right"
            bg="transparent"
            color="ink"
            fontVariantNumeric="tabular-nums"
            mr="1"
            css={{ appearance: "textfield" }}
          />{" "}
          {unit}
        </Text>
      </Flex>
      <Slider.Control>
        <Slider.Track bg="line">
          <Slider.Range />
        </Slider.Track>
        <Slider.Thumb index={0}>
          <Slider.HiddenInput />
        </Slider.Thumb>
      </Slider.Control>
    </Slider.Root>
  );
}
