"use client";
import { IconButton } from "../../../ui/icon-button";
import { Box, Flex, Text } from "@chakra-ui/react";
import { Pause, Play, SkipForward, Trash2 } from "lucide-react";
import { memo, useMemo } from "react";
import { type Act, useOffer } from "../../../ui/keys";
import { fixedKey } from "../../_frame/fixed-keys";
import { tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { useLive } from "../../_frame/live";

const act = async (what: "skip" | "clear" | "pause" | "go-on", queue: string): Promise<void> => {
  const done = await call("POST", "/queues", { do: what, queue });
  if (!done.ok) tellTrouble(done.words);
};

/** What plays in the queues now and what waits behind it; nothing stands here while nothing does. */
export const Playing = memo(function Playing() {
  const queues = useLive((s) => s.standing?.queues);
  const first = queues?.find((l) => l.playing !== null)?.id ?? null;
  const acts = useMemo(
    (): Act[] =>
      first === null
        ? []
        : [
            {
              id: "queue.skip",
              label: "Skip what plays now",
              group: "The booth",
              key: fixedKey("queue.skip"),
              run: () => void act("skip", first),
            },
          ],
    [first],
  );
  useOffer("queues", acts);
  if (queues === undefined || queues.length === 0) return null;
  return (
    <Box role="group" aria-label="Playing now" px="3" pb="1">
      {queues.map((queue) => (
        <Flex key={queue.id} align="center" gap="1" fontSize="15px" data-queue={queue.id}>
          <Text flex="1" minW="0" truncate title={queue.playing ?? undefined}>
            {queue.playing !== null ? queue.playing || "a sound" : queue.paused ? "Paused" : "Next in a moment"}
            {queue.waiting > 0 && (
              <Text as="span" color="inkSoft">
                {" "}
                · {queue.waiting} waiting
              </Text>
            )}
          </Text>
          {queue.playing !== null && (
            <IconButton label="Skip what plays now" title="Skip" onClick={() => void act("skip", queue.id)}>
              <SkipForward size={15} />
            </IconButton>
          )}
          {queue.waiting > 0 && (
            <IconButton label="Drop what waits" title="Drop what waits" onClick={() => void act("clear", queue.id)}>
              <Trash2 size={15} />
            </IconButton>
          )}
          <IconButton
            label={queue.paused ? "Let it go on" : "Pause after this one"}
            title={queue.paused ? "Let it go on" : "Pause after this one"}
            onClick={() => void act(queue.paused ? "go-on" : "pause", queue.id)}
          >
            {queue.paused ? <Play size={15} /> : <Pause size={15} />}
          </IconButton>
        </Flex>
      ))}
    </Box>
  );
});
