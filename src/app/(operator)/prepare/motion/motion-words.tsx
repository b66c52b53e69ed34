"use client";
import { Box, Button, chakra, Flex, Grid, Text } from "@chakra-ui/react";
import Link from "next/link";
import { useEffect, useRef, useState } from "react";
import { dressDefaults, type LookName, looks, lookWords } from "../../../../core/dress/dress";
import { dressNow, lookNow, wear } from "../../../../overlay/dress";
import {
  anticipate,
  enter,
  entranceMs,
  exit,
  exitMs,
  follow,
  type Pose,
  settle,
  shrink,
  springBack,
  springTo,
  squash,
} from "../../../../overlay/motion";
import { Pick } from "../../../../ui/pick";
import { Tick } from "../../../../ui/tick";

type Word = Readonly<{ id: string; name: string; tells: string; ms: number; pose: (u: number, still: boolean) => Pose }>;
const rest: Pose = { x: 0, y: 0, angle: 0, width: 1, height: 1, alpha: 1 };
const basic = (id: string, name: string, tells: string, ms: number, pose: (s: number) => Partial<Pose>): Word => ({
  id,
  name,
  tells,
  ms,
  pose: (u, still) => (still ? rest : { ...rest, ...pose((u * ms) / 1000) }),
});
const words: Readonly<Record<string, readonly Word[]>> = {
  "By itself": [
    basic("anticipate", "anticipation", "draws back before it goes", 900, (s) => ({ x: -1.4 + 2.8 * anticipate(s / 0.9) })),
    basic("settle", "settle", "goes beyond where it rests, and comes back", 900, (s) => ({ x: -1.4 + 2.8 * settle(s, 0.7) })),
    basic("spring", "spring", "rings around where it rests", 1_200, (s) => ({ y: 1.2 * (1 - springTo(s)) })),
    basic("struck", "recoil", "is struck, and rings back", 1_200, (s) => ({ x: 1.3 * springBack(s), angle: 0.4 * springBack(s) })),
    basic("squash", "squash", "is flattened by a blow", 900, (s) => ({ width: 1 + squash(s, 0.32), height: 1 - squash(s, 0.32) })),
    basic("follow", "follow-through", "hangs on something, and comes after it", 1_500, (s) => ({ angle: 0.7 * follow(s) })),
    basic("shrink", "shrink", "swells a little, and is gone", 700, (s) => ({ width: shrink(0.7 - s, 0.5), height: shrink(0.7 - s, 0.5) })),
  ],
  "Coming in": (
    [
      ["spring", "springs up where it is"],
      ["slide", "slides in from the left, and leans"],
      ["drop", "falls, lands, is flattened"],
      ["rise", "crouches, and rises"],
      ["turn", "turns over like a card"],
      ["fade", "is there softly"],
    ] as const
  ).map(([id, tells]) => ({ id: `in-${id}`, name: id, tells, ms: entranceMs[id], pose: (u, still) => enter(id, u, still) })),
  Going: (
    [
      ["shrink", "swells, shrinks, is gone"],
      ["sink", "draws up a little, and sinks"],
      ["fly", "draws back, and flies off"],
      ["fade", "goes softly"],
    ] as const
  ).map(([id, tells]) => ({ id: `out-${id}`, name: id, tells, ms: exitMs[id], pose: (u, still) => exit(id, u, still) })),
};

/** The vocabulary of motion, each word played by the very functions that overlays use. */
export function MotionWords() {
  const [look, setLook] = useState<LookName>("kiln");
  const [still, setStill] = useState(false);
  const [round, setRound] = useState(1);
  // A page wears one dress; this one gives back the usual when it is left.
  useEffect(() => () => void wear(dressDefaults), []);
  if (dressNow().look !== look) wear({ ...dressDefaults, look });
  return (
    <Box maxW="1200px" mx="auto" px="5" py="4">
      <Flex align="baseline" gap="4" wrap="wrap" mb="3">
        <Text color="inkSoft">
          <Link href="/prepare/overlays">Overlays</Link> ›
        </Text>
        <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="22px" flex="1">
          How things move
        </Text>
        <Pick
          label="In the temper of which look"
          value={look}
          options={looks.map((l) => ({ value: l, words: lookWords[l].name }))}
          onSet={(l) => setLook(looks.find((known) => known === l) ?? "kiln")}
        />
        <Tick label="As for those who asked for less motion" value={still} onSet={setStill} />
        <Button size="sm" onClick={() => setRound(round + 1)}>
          Play all
        </Button>
      </Flex>
      <Text color="inkSoft" mb="4">
        Everything on an overlay moves by these few words, as far and as fast as its look has it. Point at one, or go to it with Tab, to
        play it.
      </Text>
      {Object.entries(words).map(([title, list]) => (
        <Box key={title} mb="5">
          <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
            {title}
          </Text>
          <Grid templateColumns="repeat(auto-fill, minmax(156px, 1fr))" gap="2.5">
            {list.map((word) => (
              <Tile key={word.id} word={word} round={round} still={still} mark={`${look} ${String(still)}`} />
            ))}
          </Grid>
        </Box>
      ))}
    </Box>
  );
}

function Tile({ word, round, still, mark }: Readonly<{ word: Word; round: number; still: boolean; mark: string }>) {
  const ref = useRef<HTMLDivElement>(null);
  const [times, setTimes] = useState(0);
  useEffect(() => {
    const tag = ref.current;
    if (tag === null) return;
    let asked = 0;
    const from = performance.now();
    const ms = word.ms * lookNow().pace;
    const frame = (now: number): void => {
      const u = Math.min(1, (now - from) / ms);
      const p = word.pose(u, still);
      tag.style.transform = `translate(${p.x * 26}px,${p.y * 26}px) rotate(${p.angle}rad) scale(${p.width},${p.height})`;
      tag.style.opacity = String(p.alpha);
      if (now - from < ms + 500) asked = requestAnimationFrame(frame);
      else {
        // What has gone stands there again, for the next time.
        tag.style.transform = "";
        tag.style.opacity = "1";
      }
    };
    asked = requestAnimationFrame(frame);
    return () => cancelAnimationFrame(asked);
  }, [word, round, times, still, mark]);
  return (
    <chakra.button
      type="button"
      display="flex"
      flexDirection="column"
      alignItems="stretch"
      textAlign="left"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      overflow="hidden"
      aria-label={`Play ${word.name}: ${word.tells}`}
      data-word={word.id}
      onPointerEnter={() => setTimes(times + 1)}
      onFocus={() => setTimes(times + 1)}
      onClick={() => setTimes(times + 1)}
    >
      <Box height="104px" bg="#4A443C" display="grid" placeItems="center" overflow="hidden" aria-hidden="true">
        <div
          ref={ref}
          style={{
            padding: "6px 14px",
            background: "#FFF6E0",
            color: "#191C26",
            fontWeight: 700,
            borderRadius: 4,
            border: "2px solid #B98A2E",
          }}
        >
          mug
        </div>
      </Box>
      <Box px="2.5" py="1.5">
        <Text fontWeight="700" fontSize="15px">
          {word.name}
        </Text>
        <Text color="inkSoft" fontSize="14px" lineHeight="1.3">
          {word.tells}
        </Text>
      </Box>
    </chakra.button>
  );
}
