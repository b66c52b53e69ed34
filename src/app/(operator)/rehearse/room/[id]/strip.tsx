"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { FastForward, Pause, Play } from "lucide-react";
import { useCallback, useMemo } from "react";
import { roomNames, roomsInWords } from "../../../../../core/lab/crowd";
import { paces, type Steer } from "../../../../../core/rehearsal/plan";
import { count } from "../../../../../core/words/sentence";
import { KeyCap } from "../../../../../ui/key-cap";
import { type Act, keyLabel, useOffer } from "../../../../../ui/keys";
import { Pick } from "../../../../../ui/pick";
import { useSure } from "../../../../../ui/sure";
import { Tick } from "../../../../../ui/tick";
import { tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";
import { fixedKey } from "../../../../_frame/fixed-keys";
import { useLive } from "../../../../_frame/live";
import { useNow } from "../../../../_frame/show";
import { clockOf } from "../../../../../core/words/clock";
import { GiveSignal } from "./give-signal";

export const stripPx = 58;
const jumps = [1, 5, 15] as const;

/** Hands on a rehearsal's time and crowd. */
export function Strip({ id }: Readonly<{ id: string }>) {
  const standing = useLive((s) => s.standing?.rehearsal ?? null);
  const now = useNow(250);
  const steer = useCallback(
    async (what: Steer): Promise<void> => {
      const done = await call("POST", `/rehearsals/${id}`, { steer: what });
      if (!done.ok) tellTrouble(done.words);
    },
    [id],
  );
  const still = standing?.state === "paused";
  const acts = useMemo(
    (): Act[] => [
      {
        id: "rehearsal.pause",
        label: still ? "Let the rehearsal go on" : "Let the rehearsal stand still",
        words: "pause play stop time",
        group: "The rehearsal",
        key: fixedKey("rehearsal.pause"),
        run: () => void steer({ do: still ? "go-on" : "pause" }),
      },
      ...jumps.map((minutes): Act => ({
        id: `rehearsal.jump.${minutes}`,
        label: `Jump ${minutes} min ahead`,
        group: "The rehearsal",
        run: () => void steer({ do: "jump", minutes }),
      })),
    ],
    [still, steer],
  );
  useOffer("rehearsal", acts);
  const ending = useSure("End", () => void steer({ do: "end" }));
  if (standing === null) return null;
  const { state, pace, crowd, crowdIs, chat, overlays, signals, fromMs } = standing;
  const crowds = [
    { value: "first", words: crowd },
    ...roomNames.filter((r) => roomsInWords[r] !== crowd).map((r) => ({ value: r, words: roomsInWords[r] })),
    ...(crowd === "nobody" ? [] : [{ value: "nobody", words: "nobody at all" }]),
  ];
  return (
    <Flex
      as="section"
      aria-label="The rehearsal"
      minH={`${stripPx}px`}
      px="3"
      py="1.5"
      gap="3"
      align="center"
      wrap={{ base: "wrap", lg: "nowrap" }}
      borderBottomWidth="1px"
      borderColor="line"
      bg="raised"
      data-testid="strip"
      data-state={state}
    >
      <Button
        size="sm"
        variant="outline"
        onClick={() => void steer({ do: still ? "go-on" : "pause" })}
        disabled={state === "jumps"}
        aria-keyshortcuts={fixedKey("rehearsal.pause")}
        minW="104px"
      >
        {still ? <Play size={16} aria-hidden="true" /> : <Pause size={16} aria-hidden="true" />} {still ? "Go on" : "Pause"}{" "}
        <KeyCap>{keyLabel(fixedKey("rehearsal.pause"))}</KeyCap>
      </Button>
      <Text fontFamily="mono" fontSize="17px" fontVariantNumeric="tabular-nums" minW="76px" data-testid="room-clock">
        {now === 0 ? "" : clockOf(now - fromMs)}
      </Text>
      <Pick
        label="How fast"
        value={String(pace)}
        options={paces.map((p) => ({ value: String(p), words: `${p} ×` }))}
        onSet={(value) => void steer({ do: "pace", pace: Number(value) as (typeof paces)[number] })}
      />
      <Flex gap="1" align="center">
        <FastForward size={16} aria-hidden="true" />
        {state === "jumps" ? (
          <Text color="ochreText" fontWeight="600" fontSize="15px" role="status">
            plays on…
          </Text>
        ) : (
          jumps.map((minutes) => (
            <Button
              key={minutes}
              size="xs"
              variant="outline"
              aria-label={`Jump ${minutes} min ahead`}
              onClick={() => void steer({ do: "jump", minutes })}
            >
              {minutes} min
            </Button>
          ))
        )}
      </Flex>
      <Box minW="0" flexShrink="1" maxW="230px">
        <Pick
          label="The crowd"
          value={crowdIs}
          options={crowds}
          onSet={(value) => void steer({ do: "crowd", room: value as "quiet" })}
          width="100%"
        />
      </Box>
      <Text color="inkSoft" fontSize="14.5px" whiteSpace="nowrap" display={{ base: "none", xl: "block" }}>
        {count(signals)} <chakra.span>signals</chakra.span>
      </Text>
      <Box flex="1" />
      <GiveSignal id={id} />
      <Tick label="Overlays" value={overlays} onSet={(on) => void steer({ do: "overlays", on })} />
      <Tick label="Chat" value={chat} onSet={(on) => void steer({ do: "chat", on })} />
      <Button size="sm" colorPalette="ochre" fontWeight="700" onClick={ending.press} onBlur={ending.leave} whiteSpace="nowrap">
        {ending.words}
      </Button>
    </Flex>
  );
}
