"use client";
import { Box, Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { nameOfSegment } from "../../core/games/wheel/stands";
import { counted } from "../../core/words/sentence";
import type { BoothProps } from "../shown";

type Result = Readonly<{ n: number; label: string; by: string; atMs: number }>;
type Chance = Readonly<{ label: string; chance: string; here: boolean }>;
const mostChances = 5;

/** The wheel in the booth: whether it turns, what came, what may come next. */
export function WheelBooth({ view }: BoothProps) {
  const turning = view["turning"] === true;
  const endsMs = Number(view["endsMs"] ?? 0);
  const waiting = Number(view["waiting"] ?? 0);
  // Views of operators are written by the wheel's own rules.
  const results = (view["results"] ?? []) as readonly Result[];
  const chances = ((view["chances"] ?? []) as readonly Chance[]).filter((c) => c.here);
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    if (!turning) return;
    const timer = setInterval(() => setNowMs(Date.now()), 500);
    return () => clearInterval(timer);
  }, [turning]);
  const [last, ...before] = results;
  return (
    <Box data-testid="wheel-booth">
      <Text fontWeight="700" aria-live="polite">
        {turning
          ? `It turns for ${String(view["spinBy"] ?? "")}: ${Math.max(0, Math.ceil((endsMs - nowMs) / 1000))} s`
          : last === undefined
            ? "Nobody has spun it yet."
            : `${nameOfSegment(last.label)}, for ${last.by}`}
      </Text>
      {waiting > 0 && (
        <Text fontSize="15px">
          {counted(waiting, "spin")} wait{waiting === 1 ? "s" : ""}.
        </Text>
      )}
      {before.length > 0 && (
        <Text fontSize="15px" color="inkSoft" lineClamp={2}>
          Before:{" "}
          {before
            .slice(0, 6)
            .map((r) => nameOfSegment(r.label))
            .join(", ")}
        </Text>
      )}
      <Box mt="1" fontSize="15px" color="inkSoft">
        {chances.length === 0
          ? "Every segment was drawn: bring them back."
          : chances.slice(0, mostChances).map((c, i) => (
              <Flex key={i} justify="space-between" gap="3">
                <Text truncate>{nameOfSegment(c.label)}</Text>
                <Text fontFamily="mono" fontSize="14px" flexShrink="0">
                  {c.chance}
                </Text>
              </Flex>
            ))}
        {chances.length > mostChances && <Text>and {counted(chances.length - mostChances, "more segment")}</Text>}
      </Box>
    </Box>
  );
}
