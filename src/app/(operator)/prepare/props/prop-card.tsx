"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { useEffect, useMemo, useState } from "react";
import { pictureFactsSchema, soundFactsSchema } from "../../../../core/props/settings";
import { type VideoFacts, videoFactsSchema } from "../../../../core/props/video";
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
  const video = useMemo(() => videoFactsSchema.safeParse(prop.facts), [prop.facts]);
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
        {sound.success && prop.kind === "sound" && <Waveform peaks={sound.data.peaks} />}
        {video.success && <HoverFilm facts={video.data} name={prop.name} />}
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
            : video.success
              ? `moving, ${seconds(video.data.ms)}`
              : sound.success
                ? seconds(sound.data.ms)
                : ""}
          {" · "}
          {prop.usedIn.length === 0 ? "unused" : counted(prop.usedIn.length, "use")}
        </Text>
        {sound.success && prop.kind === "sound" && <PlayButton prop={prop} />}
        <Button size="xs" variant="ghost" aria-expanded={chosen} aria-label={`Change ${prop.name}`} onClick={onOpen}>
          Change
        </Button>
      </Flex>
    </Box>
  );
}

/** Its poster, which moves, silently, while one points at it. */
function HoverFilm({ facts, name }: Readonly<{ facts: VideoFacts; name: string }>) {
  return (
    <chakra.video
      src={facts.url}
      poster={facts.poster}
      preload="none"
      muted
      loop
      playsInline
      maxH="92px"
      maxW="100%"
      borderRadius="6px"
      aria-label={`${name}, a moving picture`}
      onPointerEnter={(e) =>
        void (matchMedia("(prefers-reduced-motion: reduce)").matches ? null : e.currentTarget.play().catch(() => undefined))
      }
      onPointerLeave={(e) => {
        e.currentTarget.pause();
        // Back to its poster.
        e.currentTarget.load();
      }}
    />
  );
}
