import type { Audience } from "../../module/module";
import type { WallDurable, WallSettings, WallView } from "./settings";

/** Looks only: limits and roles stay with the operator, and viewers are told the rules in words. */
export function wallView(settings: WallSettings, durable: WallDurable, audience: Audience): WallView | Record<string, unknown> {
  if (audience === "viewer") return { on: durable.on };
  const { motion, lifeMs, sizeShare, sizeSpread, opacity, area, cap, onFrames } = settings;
  const trims = settings.trims.map(({ id, picture, size, x, y }) => ({ id, picture, size, x, y }));
  return { on: durable.on, motion, lifeMs, sizeShare, sizeSpread, opacity, area, cap, onFrames, trims };
}
