"use client";
import { useEffect, useRef } from "react";
import type { Pattern } from "../../core/pictures/patterns";
import { swatch } from "./plate";

/** A small piece of a glaze, as it stands on the plate. */
export function Glaze({ colour, pattern, size = 30 }: Readonly<{ colour: string; pattern: Pattern; size?: number }>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (context != null) swatch(context, colour, pattern, size * 2);
  }, [colour, pattern, size]);
  return (
    <canvas
      ref={canvas}
      width={size * 2}
      height={size * 2}
      style={{ width: size, height: size, borderRadius: 6, flexShrink: 0 }}
      aria-hidden="true"
    />
  );
}
