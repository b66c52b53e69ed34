import type { Audience } from "../../module/module";
import type { BossDurable, BossSettings, BossView } from "./settings";

/** Names are shown, ids are not; what rounding left over and who is owed what stays inside. */
export function bossView(settings: BossSettings, durable: BossDurable, audience: Audience): BossView | Record<string, unknown> {
  const { on, health, max, falls, boss, lastHit } = durable;
  const shown = {
    on,
    name: boss.name,
    figure: boss.figure,
    health,
    max,
    falls,
    lastHit: lastHit === null ? null : { name: lastHit.name, amount: lastHit.amount, kind: lastHit.kind },
  };
  switch (audience) {
    case "viewer":
      return { on, name: boss.name, health, max, falls };
    case "overlay":
      return { ...shown, looks: settings.looks };
    case "operator":
      return {
        ...shown,
        sinceMs: durable.sinceMs,
        champion: boss.viewerId !== null,
        undoable: lastHit !== null,
        undoSeq: lastHit?.seq ?? null,
      };
  }
}
