"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { useEffect, useMemo, useState } from "react";
import { pictureFactsSchema, soundFactsSchema } from "../../../../core/props/settings";
import { seconds, counted } from "../../../../core/words/sentence";
import type { PropWithUses } from "../../../../server/web/props";
import { SpriteView } from "../../../../ui/sprite-view";
import { PlayButton } from "./play-button";
import { Waveform } from "./sound-shape";

export function PropCard({
  prop,
  chosen,
  onOpen,
  onRename,
}: Readonly<{ prop: PropWithUses; chosen: boolean; onOpen: () => void; onRename: (name: string) => Promise<boolean> }>) {
  const [name, setName] = useState(prop.name);
  useEffect(() => setName(prop.name), [prop.name]);
  const picture = useMemo(() => pictureFactsSchema.safeParse(prop.facts), [prop.facts]);
  const sound = useMemo(() => soundFactsSchema.safeParse(prop.facts), [prop.facts]);
  const save = async (): Promise<void> => {
    const next = name.trim();
    if (next === prop.name) return;
    if (next === "" || !(await onRename(next))) setName(prop.name);
  };
  return (
    <Box
      role="listitem"
      borderWidth="1px"
      borderColor={chosen ? "ochre.solid" : "line"}
      borderRadius="10px"
      bg="raised"
      p="3"
      data-prop={prop.name}
    >
      <Flex height="100px" align="center" justify="center" mb="1">
        {picture.success && <SpriteView sprite={{ key: prop.id, word: prop.name, url: prop.url, ...picture.data }} size={92} />}
        {sound.success && <Waveform peaks={sound.data.peaks} />}
      </Flex>
      <chakra.input
        aria-label={`Name of ${prop.name}`}
        value={name}
        maxLength={80}
        width="100%"
        textAlign="center"
        fontWeight="700"
        bg="transparent"
        borderBottomWidth="2px"
        borderColor="transparent"
        _hover={{ borderColor: "line" }}
        _focus={{ borderColor: "ochreText" }}
        onChange={(e) => setName(e.currentTarget.value)}
        onBlur={() => void save()}
        onKeyDown={(e) => {
          if (e.key === "Enter") e.currentTarget.blur();
          if (e.key === "Escape") setName(prop.name);
        }}
      />
      <Flex justify="space-between" align="center" mt="1" gap="1">
        <Text color="inkSoft" fontSize="14px" truncate>
          {picture.success
            ? picture.data.figure !== undefined
              ? "figure"
              : picture.data.frames > 1
                ? `${picture.data.frames} frames`
                : prop.sourceKind.toUpperCase()
            : sound.success
              ? seconds(sound.data.ms)
              : ""}
          {" · "}
          {prop.usedIn.length === 0 ? "unused" : counted(prop.usedIn.length, "use")}
        </Text>
        {sound.success && <PlayButton prop={prop} />}
        <Button size="xs" variant="ghost" aria-expanded={chosen} aria-label={`Change ${prop.name}`} onClick={onOpen}>
          Change
        </Button>
      </Flex>
    </Box>
  );
}
