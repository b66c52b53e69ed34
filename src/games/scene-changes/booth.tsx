"use client";
import { Box, Link, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import type { BoothProps } from "../shown";

type Hold = Readonly<{ scene: string; back: string; by: string; untilMs: number }>;

const clock = (ms: number): string => `${Math.floor(ms / 60_000)}:${String(Math.floor((ms % 60_000) / 1000)).padStart(2, "0")}`;

/** The studio in the booth: which scene is on, what holds it and what waits. Its scenes are the buttons below. */
export function StudioBooth({ view }: BoothProps) {
  // Views of operators are written by its own rules.
  const hold = (view["hold"] ?? null) as Hold | null;
  const waiting = (view["waiting"] ?? []) as readonly string[];
  const current = (view["current"] ?? null) as string | null;
  const trouble = (view["trouble"] ?? null) as Readonly<{ scene: string; why: string }> | null;
  const asked = (view["asked"] ?? null) as string | null;
  const untilMs = hold?.untilMs ?? 0;
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    if (untilMs === 0) return;
    const tick = (): void => setNowMs(Date.now());
    tick();
    const timer = setInterval(tick, 500);
    return () => clearInterval(timer);
  }, [untilMs]);
  if (view["connected"] !== true)
    return (
      <Box data-testid="studio-booth">
        <Text fontWeight="700" aria-live="polite">
          The studio does not answer.
        </Text>
        <Text fontSize="15px">
          Scenes stay as they are. Where it is found stands under <Link href="/prepare/connections">Connections</Link>.
        </Text>
      </Box>
    );
  return (
    <Box data-testid="studio-booth">
      <Text fontWeight="700" aria-live="polite" lineHeight="1.25">
        {current === null ? "No scene is on." : `On: ${current}`}
      </Text>
      {asked !== null && <Text fontSize="15px">Going to {asked} …</Text>}
      {hold !== null && (
        <Text fontSize="15px">
          {hold.scene} holds for {hold.by}. Back to {hold.back} in{" "}
          <Text as="span" fontVariantNumeric="tabular-nums" role="timer" aria-label="Until the scene goes back">
            {clock(Math.ceil(Math.max(0, hold.untilMs - nowMs) / 1000) * 1000)}
          </Text>
          .
        </Text>
      )}
      {trouble !== null && (
        <Text fontSize="15px" color="brickText" role="status">
          It would not go to {trouble.scene}: {trouble.why}.
        </Text>
      )}
      {waiting.length > 0 && (
        <Text fontSize="15px" color="inkSoft">
          Waiting: {waiting.join(", ")}
        </Text>
      )}
    </Box>
  );
}
