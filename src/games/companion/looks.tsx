"use client";
import { Box, Button, Flex, Grid, Link, Stack, Text } from "@chakra-ui/react";
import { type CompanionSettings, figureGlaze, figures } from "../../core/games/companion/settings";
import { ColourField } from "../../ui/colour-field";
import { Dial } from "../../ui/dial";
import { Pick } from "../../ui/pick";
import { SpriteView } from "../../ui/sprite-view";
import { Tick } from "../../ui/tick";
import type { LooksProps } from "../shown";
import { FigureView } from "./figure-view";
import { figureWords } from "./figures";

/** Which figure it is, how large, in which glaze. */
export function CompanionLooks({ settings, sprites, onChange }: LooksProps) {
  const { looks, figure } = settings as CompanionSettings;
  const set = (key: keyof CompanionSettings["looks"]) => (value: unknown) => onChange(`looks.${key}`, value);
  const own = sprites.filter((s) => s.figure !== undefined);
  const pictures = sprites.filter((s) => s.key.startsWith("prop:") && s.figure === undefined);
  const isPicture = pictures.some((p) => p.key === figure);
  const isDrawn = figures.some((f) => f === figure);
  const isGone = !isDrawn && !isPicture && !own.some((s) => s.key === figure);
  const take = (key: string): void => {
    onChange("figure", key);
    const drawn = figures.find((f) => f === key);
    if (drawn !== undefined && key !== figure) onChange("looks.glaze", figureGlaze[drawn]);
  };
  const choice = (key: string, words: string, picture: React.ReactNode) => (
    <Button
      key={key}
      height="auto"
      py="2"
      px="1"
      variant={figure === key ? "solid" : "outline"}
      colorPalette={figure === key ? "ochre" : "gray"}
      aria-pressed={figure === key}
      onClick={() => take(key)}
      flexDirection="column"
      gap="1"
      whiteSpace="normal"
      fontSize="15px"
      lineHeight="1.2"
    >
      {picture}
      {words}
    </Button>
  );
  return (
    <Stack gap="5">
      <Box>
        <Text fontWeight="700" mb="2" id="figures">
          The figure
        </Text>
        <Grid templateColumns="repeat(auto-fill, minmax(112px, 1fr))" gap="2" role="group" aria-labelledby="figures">
          {figures.map((f) => choice(f, figureWords[f], <FigureView figure={f} glaze={f === figure ? looks.glaze : figureGlaze[f]} />))}
          {own.map((s) => choice(s.key, s.word, <SpriteView sprite={s} size={84} />))}
        </Grid>
        {isGone && (
          <Text mt="2" color="brickText" role="alert">
            Its figure was removed from the props: nothing is seen. Choose another, or bring it back.
          </Text>
        )}
        <Box mt="3" fontSize="16px" lineHeight="2">
          or{" "}
          <Pick
            label="A picture of the library"
            value={isPicture ? figure : ""}
            options={[
              { value: "", words: pictures.length === 0 ? "no picture there yet" : "a picture of the library" },
              ...pictures.map((p) => ({ value: p.key, words: p.word })),
            ]}
            onSet={(key) => key !== "" && onChange("figure", key)}
          />
          , which is squashed and stretched. A figure of your own, with a picture for each thing it does, comes as one ZIP file into the{" "}
          <Link href="/prepare/props" textDecoration="underline">
            props
          </Link>
          : <Text as="span">its figure.json says which picture is which.</Text>
        </Box>
      </Box>
      <Flex gap="6" wrap="wrap" align="end">
        {isDrawn && <ColourField label="Glaze" value={looks.glaze} onSet={set("glaze")} />}
        <Box width="280px">
          <Dial
            label="Size"
            unit="% of its place"
            value={looks.size}
            min={20}
            max={100}
            step={5}
            onSet={(v) => onChange("looks.size", Math.round(v))}
          />
        </Box>
      </Flex>
      <Flex gap="5" wrap="wrap">
        <Tick label="Turned the other way" value={looks.mirrored} onSet={set("mirrored")} />
        <Tick label="Its name under it" value={looks.name} onSet={set("name")} />
      </Flex>
    </Stack>
  );
}
