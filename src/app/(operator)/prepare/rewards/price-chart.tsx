"use client";
import { Box, chakra, Text } from "@chakra-ui/react";
import { scaleLinear } from "d3-scale";
import { curveStepAfter, line } from "d3-shape";
import { useEffect, useState } from "react";
import { afterSale, inPoints, type MovingPrice, type PriceAt, priceNow } from "../../../../core/points/price";
import type { Reward } from "../../../../core/rewards/settings";
import { count, counted } from "../../../../core/words/sentence";
import { call } from "../../../_frame/call";

const [width, height] = [560, 110];
const Svg = chakra("svg", {
  base: { width: "100%", height: "auto", display: "block", "& text": { fontSize: "14px", fill: "inkSoft", fontFamily: "mono" } },
});
const Tone = chakra("g");

/** What ten sales in a row would make of the price, and how it falls back afterwards; told in a sentence first. */
function ahead(moving: MovingPrice): readonly Readonly<{ atMs: number; price: number }>[] {
  let at = null as PriceAt | null;
  const points: { atMs: number; price: number }[] = [];
  const gapMs = moving.halfLifeMs / 20;
  for (let i = 0; i <= 50; i += 1) {
    const atMs = i * gapMs;
    points.push({ atMs, price: inPoints(priceNow(moving, at, atMs)) });
    if (i < 10) at = afterSale(moving, at, atMs);
  }
  return points;
}

const range = (sold: readonly Readonly<{ price: number }>[]): string => {
  const [least, most] = [Math.min(...sold.map((s) => s.price)), Math.max(...sold.map((s) => s.price))];
  return `${counted(sold.length, "sale")} ${least === most ? `all at ${count(least)}` : `at ${count(least)} to ${count(most)}`}`;
};

/** A moving price: as it was paid, and what a run on it would do. */
export function PriceChart({ reward, points }: Readonly<{ reward: Reward; points: string }>) {
  const [sold, setSold] = useState<readonly Readonly<{ atMs: number; price: number }>[]>([]);
  useEffect(() => {
    let gone = false;
    void call<typeof sold>("GET", `/prices/${reward.id}`).then((said) => !gone && said.ok && setSold(said.value));
    return () => void (gone = true);
  }, [reward.id]);
  if (reward.moving === null) return null;
  const will = ahead({ floor: reward.price, ...reward.moving });
  const peak = Math.max(...will.map((p) => p.price));
  const x = scaleLinear([0, will[will.length - 1]?.atMs ?? 1], [44, width - 4]);
  const y = scaleLinear([Math.min(reward.price, ...will.map((p) => p.price)), Math.max(peak, reward.price + 1)], [height - 20, 12]);
  const last = sold[sold.length - 1];
  return (
    <Box bg="raised" borderRadius="8px" px="3" py="2" fontSize="15px">
      <Text>
        Ten sales in a row would raise it from {count(reward.price)} to {count(peak)} {points}; then it falls back.
        {last === undefined ? " It was not sold yet." : ` Last paid: ${count(last.price)}, of ${range(sold)}.`}
      </Text>
      <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`The price after ten sales in a row, up to ${peak}, and its fall`}>
        {[reward.price, peak].map((p) => (
          <text key={p} x="0" y={y(p) + 5}>
            {p}
          </text>
        ))}
        <Tone color="ochreText">
          <path
            d={
              line<(typeof will)[number]>()
                .x((p) => x(p.atMs))
                .y((p) => y(p.price))
                .curve(curveStepAfter)(will) ?? ""
            }
            fill="none"
            stroke="currentColor"
            strokeWidth="2.5"
          />
        </Tone>
        <text x={x(reward.moving.halfLifeMs)} y={height - 3} textAnchor="middle">
          after {Math.round(reward.moving.halfLifeMs / 1000)} s
        </text>
      </Svg>
    </Box>
  );
}
