"use client";
import { Box, Grid, Slider } from "@chakra-ui/react";
import type { Strip } from "../core/props/video";
import { seconds } from "../core/words/sentence";

/** Stills side by side, from a begin to an end, so that a moving picture is judged at a glance. */
export function FilmStrip({
  strip,
  label,
  most = 24,
  perRow = most,
  height = 54,
}: Readonly<{ strip: Strip; label: string; most?: number; perRow?: number; height?: number }>) {
  const shown = Math.min(strip.frames, most);
  const width = (strip.width / strip.height) * height;
  const rows = Math.ceil(strip.frames / strip.columns);
  return (
    <Grid
      role="img"
      aria-label={label}
      overflow="hidden"
      borderRadius="6px"
      bg="raised"
      templateColumns={`repeat(${Math.min(perRow, shown)}, minmax(0, 1fr))`}
      autoRows={`${height}px`}
      gap="1px"
    >
      {Array.from({ length: shown }, (_, i) => {
        const frame = Math.floor((i * strip.frames) / shown);
        return (
          <Box key={i} minW="0" display="flex" justifyContent="center" overflow="hidden">
            <div
              style={{
                flexShrink: 0,
                width,
                height,
                backgroundImage: `url(${strip.url})`,
                backgroundSize: `${width * strip.columns}px ${height * rows}px`,
                backgroundPosition: `${-(frame % strip.columns) * width}px ${-Math.floor(frame / strip.columns) * height}px`,
              }}
            />
          </Box>
        );
      })}
    </Grid>
  );
}

/** Where a moving picture begins and ends, on its own stills: two thumbs, by pointer or arrow keys. Milliseconds. */
export function TrimField({
  strip,
  sourceMs,
  startMs,
  endMs,
  onSet,
}: Readonly<{ strip: Strip; sourceMs: number; startMs: number; endMs: number; onSet: (startMs: number, endMs: number) => void }>) {
  const out = (ms: number): string => `${(ms / Math.max(1, sourceMs)) * 100}%`;
  return (
    <Box position="relative" mb="3">
      <FilmStrip strip={strip} label={`Stills of all ${seconds(sourceMs)}`} most={6} height={62} />
      <Box position="absolute" top="0" left="0" height="62px" bg="ground/80" width={out(startMs)} pointerEvents="none" />
      <Box position="absolute" top="0" right="0" height="62px" bg="ground/80" width={out(sourceMs - endMs)} pointerEvents="none" />
      <Slider.Root
        position="absolute"
        top="0"
        left="0"
        right="0"
        height="62px"
        size="lg"
        colorPalette="ochre"
        min={0}
        max={sourceMs}
        step={100}
        minStepsBetweenThumbs={2}
        value={[startMs, endMs]}
        aria-label={["Where it begins", "Where it ends"]}
        getAriaValueText={({ value }) => seconds(value)}
        onValueChange={({ value: [from = 0, to = sourceMs] }) => onSet(from, to)}
      >
        <Slider.Control height="62px" minH="62px">
          <Slider.Track bg="transparent" height="62px" borderRadius="6px">
            <Slider.Range bg="transparent" borderYWidth="3px" borderColor="ochre.solid" />
          </Slider.Track>
          {[0, 1].map((i) => (
            <Slider.Thumb
              key={i}
              index={i}
              width="12px"
              height="66px"
              borderRadius="4px"
              borderWidth="2px"
              borderColor="ochreText"
              bg="ochre.solid"
            />
          ))}
        </Slider.Control>
      </Slider.Root>
    </Box>
  );
}
