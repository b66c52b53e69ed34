"use client";
import { IconButton } from "../../../ui/icon-button";
import { Box, Flex, Text } from "@chakra-ui/react";
import { Pause, Play, SkipForward, Trash2 } from "lucide-react";
import { memo, useMemo } from "react";
import { type Act, useOffer } from "../../../ui/keys";
import { tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { useLive } from "../../_frame/live";

const act = async (what: "skip" | "clear" | "pause" | "go-on", lane: string): Promise<void> => {
  const done = await call("POST", "/lanes", { do: what, lane });
  if (!done.ok) tellTrouble(done.words);
};

/** What plays in the lanes now and what waits behind it; nothing stands here while nothing does. */
export const Playing = memo(function Playing() {
  const lanes = useLive((s) => s.standing?.lanes);
  const first = lanes?.find((l) => l.playing !== null)?.id ?? null;
  const acts = useMemo(
    (): Act[] =>
      first === null
        ? []
        : [{ id: "lane.skip", label: "Skip what plays now", group: "The booth", key: "k", run: () => void act("skip", first) }],
    [first],
  );
  useOffer("lanes", acts);
  if (lanes === undefined || lanes.length === 0) return null;
  return (
    <Box role="group" aria-label="Playing now" px="3" pb="1">
      {lanes.map((lane) => (
        <Flex key={lane.id} align="center" gap="1" fontSize="15px" data-lane={lane.id}>
          <Text flex="1" minW="0" truncate title={lane.playing ?? undefined}>
            {lane.playing !== null ? lane.playing || "a sound" : lane.paused ? "Paused" : "Next in a moment"}
            {lane.waiting > 0 && (
              <Text as="span" color="inkSoft">
                {" "}
                · {lane.waiting} waiting
              </Text>
            )}
          </Text>
          {lane.playing !== null && (
            <IconButton label="Skip what plays now" title="Skip" onClick={() => void act("skip", lane.id)}>
              <SkipForward size={15} />
            </IconButton>
          )}
          {lane.waiting > 0 && (
            <IconButton label="Drop what waits" title="Drop what waits" onClick={() => void act("clear", lane.id)}>
              <Trash2 size={15} />
            </IconButton>
          )}
          <IconButton
            label={lane.paused ? "Let it go on" : "Pause after this one"}
            title={lane.paused ? "Let it go on" : "Pause after this one"}
            onClick={() => void act(lane.paused ? "go-on" : "pause", lane.id)}
          >
            {lane.paused ? <Play size={15} /> : <Pause size={15} />}
          </IconButton>
        </Flex>
      ))}
    </Box>
  );
});
