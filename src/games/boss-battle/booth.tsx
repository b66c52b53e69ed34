"use client";
import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { curveStepAfter, line } from "d3-shape";
import { useEffect, useRef, useState } from "react";
import { count, counted } from "../../core/words/sentence";
import type { BoothProps } from "../shown";

type Fight = Readonly<{
  points: readonly Readonly<{ atMs: number; health: number }>[];
  leader: Readonly<{ name: string; damage: number }> | null;
  recent: Readonly<{ damage: number; minutes: number }>;
}>;
const none: Fight = { points: [], leader: null, recent: { damage: 0, minutes: 1 } };
const chartWidth = 262;
const chartHeight = 40;

/** Health after each hit, as a line that steps down; the newest at the right. */
const pathOf = (points: Fight["points"], max: number): string =>
  line<Fight["points"][number]>()
    .x((_, i) => (i / Math.max(1, points.length - 1)) * chartWidth)
    .y((p) => 2 + (1 - Math.min(1, p.health / Math.max(1, max))) * (chartHeight - 4))
    .curve(curveStepAfter)([...points]) ?? "";

/** The boss in the booth: how the fight goes. */
export function BossBooth({ gameId, view, sinceMs, rehearsal = "" }: BoothProps) {
  const [fight, setFight] = useState<Fight>(none);
  const health = Number(view["health"] ?? 0);
  const max = Number(view["max"] ?? 0);
  const mark = `${health} ${max}`;
  const lastMs = useRef(0);
  useEffect(() => {
    // In a storm of blows it is read every two seconds, and once more after the last.
    const waitMs = Math.max(150, lastMs.current + 2_000 - Date.now());
    const timer = setTimeout(() => {
      lastMs.current = Date.now();
      void fetch(`/api/games/${gameId}/fight?since=${Math.round(sinceMs)}${rehearsal === "" ? "" : `&rehearsal=${rehearsal}`}`)
        .then((r) => r.json())
        .then((said: { ok: boolean; value?: Fight }) => said.ok && said.value !== undefined && setFight(said.value))
        .catch(() => undefined);
    }, waitMs);
    return () => clearTimeout(timer);
  }, [gameId, sinceMs, rehearsal, mark]);
  const perMinute = fight.recent.damage / Math.max(1, fight.recent.minutes);
  const minutes = perMinute > 0 ? Math.max(1, Math.round(health / perMinute)) : null;
  return (
    <Box>
      <Flex align="baseline" gap="2">
        <Text fontFamily="mono" fontSize="30px" lineHeight="1.15" data-testid="boss-health">
          {count(health)}
        </Text>
        <Text color="inkSoft" fontFamily="mono" fontSize="14px" whiteSpace="nowrap">
          of {count(max)} glaze left
        </Text>
      </Flex>
      <Text fontSize="15px" truncate>
        {String(view["name"] ?? "")}
        {Number(view["falls"] ?? 0) > 0 ? `, after ${counted(Number(view["falls"]), "fall")}` : ""}
      </Text>
      {fight.points.length > 1 ? (
        <chakra.svg
          viewBox={`0 0 ${chartWidth} ${chartHeight}`}
          width="100%"
          height={`${chartHeight}px`}
          my="1"
          role="img"
          aria-label={`Glaze over the last ${fight.points.length} hits`}
        >
          <chakra.path d={pathOf(fight.points, max)} fill="none" stroke="var(--chakra-colors-ochre-text)" strokeWidth="2" />
        </chakra.svg>
      ) : (
        <Text color="inkSoft" fontSize="15px" my="1">
          Nobody has struck yet{sinceMs > 0 ? " in this show" : ""}.
        </Text>
      )}
      {fight.points.length > 1 && (
        <Text fontSize="15px" color="inkSoft" lineHeight="1.3" mb="1">
          {minutes === null ? (
            "Quiet at the moment."
          ) : (
            <>
              Falls in about <b>{count(minutes)} min</b> at this pace.
            </>
          )}
          {fight.leader !== null && (
            <>
              {" "}
              <b>{fight.leader.name}</b> leads with {count(fight.leader.damage)}.
            </>
          )}
        </Text>
      )}
    </Box>
  );
}
