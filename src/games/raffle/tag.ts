import { lettering } from "../../overlay/dress";
import { shade } from "../../overlay/colour";
import type { RaffleView } from "./view";

export type Tag = Readonly<{ name: string; atMs: number }>;
export type Lifted = Readonly<{ index: number; name: string; prize: string; sinceS: number }>;
export type RackNow = Readonly<{
  view: RaffleView;
  tags: readonly Tag[];
  /** Who was drawn, and for how long that is shown already. */
  lifted: Lifted | null;
  nowMs: number;
  width: number;
  height: number;
  /** Smallest letter, pixels. */
  least: number;
  there: number;
  /** Seconds until it locks, or until who was drawn must have answered; −1 for none. */
  clock: number;
  /** Since somebody shook the drum. */
  shakeS: number;
  still: boolean;
}>;
export type Brush = CanvasRenderingContext2D;

/** A tag with its hole at the left, its middle at 0. */
export function tagShape(context: Brush, width: number, height: number, colour: string): void {
  const notch = height * 0.4;
  context.beginPath();
  context.moveTo(0, 0);
  context.lineTo(notch, -height / 2);
  context.lineTo(width, -height / 2);
  context.lineTo(width, height / 2);
  context.lineTo(notch, height / 2);
  context.closePath();
  context.fillStyle = colour;
  context.fill();
  context.lineWidth = Math.max(1, height * 0.04);
  context.strokeStyle = shade(colour, -0.28);
  context.stroke();
  context.beginPath();
  context.arc(notch * 0.95, 0, height * 0.1, 0, Math.PI * 2);
  context.fillStyle = "#6B4A1E";
  context.fill();
}

/** Letters as large as they may be for a text to fit; never below the smallest. */
export function fitted(context: Brush, text: string, width: number, most: number, least: number): number {
  context.font = lettering(800, most);
  const taken = context.measureText(text).width;
  return taken <= width ? most : Math.max(least, (most * width) / taken);
}
