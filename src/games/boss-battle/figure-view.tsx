"use client";
import { Box } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import type { BossSettings } from "../../core/games/boss-battle/settings";
import { drawFigure } from "./draw";

/** A vessel-creature as a small still picture. */
export function FigureView({ figure, looks, size = 56 }: Readonly<{ figure: string; looks: BossSettings["looks"]; size?: number }>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (context === null || context === undefined) return;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, size * 2, size * 2);
    context.scale((size * 2) / 100, (size * 2) / 100);
    const { clay, glaze, mirrored } = looks;
    drawFigure(context, figure, null, { level: 0.92, cracked: 0, crackSeed: 1, clay, glaze, mirrored, hurt: 0, sway: 0, nowMs: 0 });
  }, [figure, looks, size]);
  return (
    <Box asChild width={`${size}px`} height={`${size}px`} flexShrink="0">
      <canvas ref={canvas} width={size * 2} height={size * 2} aria-hidden="true" />
    </Box>
  );
}
