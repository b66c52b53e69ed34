import type { Audience } from "../../module/module";
import { percentFull } from "./filling";
import { piecesIn } from "./pile";
import type { BrimfulDurable, BrimfulSettings, BrimfulView } from "./settings";

/** The vessel and what lies in it. Who gave what stays inside, but for faces: those are in the picture. */
export function brimfulView(settings: BrimfulSettings, durable: BrimfulDurable, audience: Audience): BrimfulView | Record<string, unknown> {
  const { on, brims } = durable;
  const full = percentFull(durable, settings);
  const pieces = piecesIn(durable.pile);
  const goal = settings.goal.on ? { at: settings.goal.at, label: settings.goal.label, reached: durable.reached } : null;
  switch (audience) {
    case "viewer":
      return { on, full, pieces, brimAt: settings.brim.at, brims, goal };
    case "overlay":
      return {
        on,
        pile: durable.pile,
        lies: durable.lies?.way ?? null,
        full,
        brimAt: settings.brim.at,
        goal,
        brims,
        vessel: { shape: settings.vessel.shape, points: settings.vessel.points, free: settings.vessel.stand === "free" },
        passing: { size: settings.passing.size, ms: settings.passing.ms, font: settings.passing.font },
        cap: settings.cap,
        gravity: settings.gravity,
        bounce: settings.bounce,
        looks: settings.looks,
      };
    case "operator":
      return {
        on,
        full,
        pieces,
        waiting: piecesIn(durable.waiting),
        brimAt: settings.brim.at,
        goal,
        brims,
        brimmed: durable.brimmed,
        free: settings.vessel.stand === "free",
        lies: durable.lies?.way ?? null,
        sinceMs: durable.sinceMs,
        givers: [...durable.givers]
          .sort((a, b) => b[2] - a[2])
          .slice(0, 5)
          .map(([, name, given]) => ({ name, pieces: given })),
        people: durable.givers.length,
      };
  }
}
