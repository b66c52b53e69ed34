"use client";
import { Box } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { drawDrawn } from "./draw";
import { drawnOf } from "./figures";
import { emptyPose, strike } from "./pose";

/** A drawn figure as a small still picture. */
export function FigureView({ figure, glaze, size = 84 }: Readonly<{ figure: string; glaze: string; size?: number }>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    const drawn = drawnOf(figure);
    if (context === null || context === undefined || drawn === null) return;
    const pose = emptyPose();
    strike(pose, { state: "rest", sinceS: 0, clockS: 0, seed: 1, gaze: { x: 0, y: 0 }, bar: 0, still: true });
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, size * 2, size * 2);
    context.scale((size * 2) / 100, (size * 2) / 100);
    drawDrawn(context, drawn, pose, glaze, 60);
  }, [figure, glaze, size]);
  return (
    <Box asChild width={`${size}px`} height={`${size}px`} flexShrink="0">
      <canvas ref={canvas} width={size * 2} height={size * 2} aria-hidden="true" />
    </Box>
  );
}
