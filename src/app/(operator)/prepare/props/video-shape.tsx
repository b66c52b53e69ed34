"use client";
import { Box, chakra, Flex, Progress, Text } from "@chakra-ui/react";
import { useState } from "react";
import { type VideoFacts, videoDefaults, videoFactsSchema, type VideoSettings, videoSettingsSchema } from "../../../../core/props/video";
import { seconds } from "../../../../core/words/sentence";
import type { PropInMaking, PropWithUses } from "../../../../server/web/props";
import { CropField } from "../../../../ui/crop-field";
import { TrimField } from "../../../../ui/film-strip";
import { NumberField } from "../../../../ui/number-field";
import { Tick } from "../../../../ui/tick";
import { ShapeFoot } from "./shape-foot";

/** Cut a moving picture in time and in space, mute it, set its level; always from the untouched source. */
export function VideoShape({
  prop,
  making,
  onSet,
}: Readonly<{ prop: PropWithUses; making: PropInMaking | undefined; onSet: (settings: VideoSettings) => Promise<boolean> }>) {
  const kept = videoSettingsSchema.safeParse(prop.settings);
  const facts = videoFactsSchema.safeParse(prop.facts);
  const before = kept.success ? kept.data : videoDefaults;
  const [s, setS] = useState(before);
  if (!facts.success) return null;
  const { sourceMs, still, strip, url, poster } = facts.data;
  const end = s.endMs === 0 ? sourceMs : Math.min(sourceMs, s.endMs);
  const problem = videoSettingsSchema.safeParse(s);
  const setEnds = (startMs: number, endMs: number): void =>
    setS({ ...s, startMs: Math.round(startMs), endMs: endMs >= sourceMs ? 0 : Math.round(endMs) });
  return (
    <Box>
      <chakra.video
        src={url}
        poster={poster}
        controls
        playsInline
        width="100%"
        maxH="210px"
        borderRadius="8px"
        bg="raised"
        mb="2"
        aria-label={`${prop.name}, as it is used`}
        onLoadedMetadata={(e) => (e.currentTarget.volume = before.volume / 100)}
      />
      <Text fontSize="15px" color="inkSoft" mb="3">
        {told(facts.data)}
      </Text>
      {facts.data.flashes !== "none" && (
        <Text fontSize="15px" bg="note" borderRadius="8px" px="3" py="2" mb="3">
          <b>It flashes</b> more than three times in a second, from {seconds(facts.data.flashesAtMs)} on: overlays are dimmed while it does.
        </Text>
      )}
      <Text fontWeight="700" fontSize="15px" mb="1">
        From begin to end
      </Text>
      <TrimField strip={strip} sourceMs={sourceMs} startMs={s.startMs} endMs={end} onSet={setEnds} />
      <Box fontSize="15px" lineHeight="2.2" mb="2">
        From{" "}
        <NumberField
          label="Start"
          value={s.startMs}
          min={0}
          max={Math.max(0, end - 200)}
          scale={1000}
          unit="s"
          onSet={(v) => setEnds(v, end)}
        />{" "}
        to <NumberField label="End" value={end} min={200} max={sourceMs} scale={1000} unit="s" onSet={(v) => setEnds(s.startMs, v)} />
      </Box>
      <Text fontWeight="700" fontSize="15px" mb="1">
        What is seen of it
      </Text>
      <CropField label="What is kept of the picture" crop={s.crop} onCrop={(crop) => setS({ ...s, crop })}>
        <chakra.img src={still} alt="" maxH="190px" display="block" />
      </CropField>
      <Flex align="center" gap="4" mt="3" mb="3" fontSize="15px" wrap="wrap">
        <Tick label="Without its sound" value={s.muted} onSet={(muted) => setS({ ...s, muted })} />
        {!s.muted && (
          <Box>
            at <NumberField label="Volume" value={s.volume} min={0} max={100} unit="% volume" onSet={(volume) => setS({ ...s, volume })} />
          </Box>
        )}
      </Flex>
      {making !== undefined && making.state === "failed" && (
        <Text color="brickText" fontSize="15px" role="alert" mb="2">
          {making.words}
        </Text>
      )}
      {making !== undefined && making.state !== "failed" ? (
        <Making share={making.share} waits={making.state === "waiting"} />
      ) : (
        <ShapeFoot now={s} before={before} asItCame={videoDefaults} problem={problem.error?.issues[0]?.message} onSet={onSet} />
      )}
    </Box>
  );
}

function told({ ms, sourceMs, sourceWidth, sourceHeight, alpha, audible, black, lufs, gainDb }: VideoFacts): string {
  const sound = !audible
    ? "Nothing is heard"
    : lufs === null
      ? "Its sound is kept as loud as it is"
      : `Its sound came at ${lufs.toFixed(1)} LUFS and is ${gainDb >= 0 ? "raised" : "lowered"} by ${Math.abs(gainDb).toFixed(1)} dB`;
  return `${seconds(ms)} of ${seconds(sourceMs)}, ${sourceWidth} × ${sourceHeight} pixels${alpha ? ", with transparency" : ""}${black ? ", black all through" : ""}. ${sound}.`;
}

export const Making = ({ share, waits }: Readonly<{ share: number; waits: boolean }>) => (
  <Flex gap="3" align="center" role="status">
    <Progress.Root value={waits ? null : Math.round(share * 100)} flex="1" colorPalette="ochre" size="sm" aria-label="How far it is made">
      <Progress.Track>
        <Progress.Range />
      </Progress.Track>
    </Progress.Root>
    <Text color="inkSoft" fontSize="15px">
      {waits ? "waits its turn" : `is made, ${Math.round(share * 100)} %`}
    </Text>
  </Flex>
);
