"use client";
import { useEffect, useRef } from "react";
import type { Sprite } from "../core/wire/messages";

/** One emote as it looks, moving if it moves; still for who asked for less motion. */
export function SpriteView({ sprite, size }: Readonly<{ sprite: Sprite; size: number }>) {
  const ref = useRef<HTMLDivElement>(null);
  const rows = Math.ceil(sprite.frames / sprite.columns);
  const scale = size / Math.max(sprite.frameWidth, sprite.frameHeight);
  const width = Math.round(sprite.frameWidth * scale);
  const height = Math.round(sprite.frameHeight * scale);
  useEffect(() => {
    const box = ref.current;
    if (box === null || sprite.frames < 2 || sprite.frameMs === 0 || matchMedia("(prefers-reduced-motion: reduce)").matches) return;
    let frame = 0;
    const timer = setInterval(() => {
      frame = (frame + 1) % sprite.frames;
      box.style.backgroundPosition = `${-(frame % sprite.columns) * width}px ${-Math.floor(frame / sprite.columns) * height}px`;
    }, sprite.frameMs);
    return () => clearInterval(timer);
  }, [sprite, width, height]);
  // A plain element: the talk makes hundreds of them a minute.
  return (
    <div
      ref={ref}
      style={{
        flexShrink: 0,
        width,
        height,
        backgroundImage: `url(${sprite.url})`,
        backgroundSize: `${width * sprite.columns}px ${height * rows}px`,
      }}
      aria-hidden="true"
    />
  );
}
