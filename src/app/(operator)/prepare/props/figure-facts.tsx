"use client";
import { Box, Flex, Text } from "@chakra-ui/react";
import { type FigureFacts as Facts, figureStates } from "../../../../core/props/figure";
import { pictureFactsSchema } from "../../../../core/props/settings";
import { counted } from "../../../../core/words/sentence";
import type { PropWithUses } from "../../../../server/web/props";
import { SpriteView } from "../../../../ui/sprite-view";

export function figureOf(prop: PropWithUses): Facts | null {
  const facts = pictureFactsSchema.safeParse(prop.facts);
  return facts.success ? (facts.data.figure ?? null) : null;
}

/** What a figure of one's own can do, and what it borrows from its rest. */
export function FigureFacts({ prop }: Readonly<{ prop: PropWithUses }>) {
  const facts = pictureFactsSchema.safeParse(prop.facts);
  const figure = figureOf(prop);
  if (!facts.success || figure === null) return null;
  const inParts = figure.parts.length > 0;
  const missing = figureStates.filter((state) => figure.states[state] === undefined);
  return (
    <Box fontSize="15px">
      <Flex justify="center" bg="raised" borderRadius="8px" p="3" mb="3">
        <SpriteView sprite={{ key: prop.id, word: prop.name, url: prop.url, ...facts.data }} size={180} />
      </Flex>
      {inParts ? (
        <Text>
          One drawing in {counted(figure.parts.length, "part")}: {figure.parts.map((p) => p.name).join(", ")}. Each moves by itself in all
          it does.
        </Text>
      ) : (
        <>
          <Text>
            Drawn for:{" "}
            {figureStates
              .flatMap((state) => {
                const run = figure.states[state];
                return run === undefined ? [] : [`${state} (${counted(run.frames, "frame")})`];
              })
              .join(", ")}
            .
          </Text>
          {missing.length > 0 && (
            <Text color="inkSoft" mt="1">
              For {missing.join(", ")} its rest is squashed and stretched.
            </Text>
          )}
        </>
      )}
      <Text color="inkSoft" mt="1">
        It looks to the {figure.looks} as it was drawn. To change it, replace its ZIP file.
      </Text>
    </Box>
  );
}
