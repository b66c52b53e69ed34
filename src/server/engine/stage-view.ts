import { dressDefaults } from "../../core/dress/dress";
import type { Alert } from "../../core/alerts/alert";
import type { Stage } from "../../core/wire/messages";
import type { ChannelRow } from "../ports/engine-store";
import type { Modules } from "./modules";

/** What audiences see of a channel's modules: of each only what its own view allows. */
export class StageView {
  constructor(
    private readonly modules: Modules,
    private readonly row: () => ChannelRow,
  ) {}

  /** One game as overlays see it; null when it does not run. */
  game(gameId: string): Record<string, unknown> | null {
    const module = this.modules.byId(gameId);
    return module === undefined ? null : { ...module.rules.view(module.settings, module.durable, "overlay") };
  }

  /** What an overlay shows now: only what its places name. */
  overlay(overlayId: string, markedUrl: string, facesUrl = ""): Stage {
    const row = this.row();
    const overlay = row.overlays.find((o) => o.id === overlayId);
    const scene = this.modules.provided().scene ?? null;
    // While nobody knows which scene is on, nothing is taken away.
    const isIn = (scenes: readonly string[] = []): boolean => scenes.length === 0 || scene === null || scenes.includes(scene);
    const games = (overlay?.places ?? []).flatMap(({ gameId, place }) => {
      const module = this.modules.byId(gameId);
      const view = place.hidden || !isIn(place.scenes) ? null : this.game(gameId);
      return module === undefined || view === null ? [] : [{ id: module.id, kind: module.kind, place, view }];
    });
    return {
      games,
      sprites: [...row.sprites],
      markedUrl,
      facesUrl,
      alerts: overlay?.shows === false ? [] : this.standingAlerts(),
      sounds: [...row.sounds],
      shows: overlay?.shows ?? true,
      css: overlay?.css ?? "",
      dress: overlay?.dress ?? dressDefaults,
    };
  }

  /** What modules without a picture of their own keep on it. */
  private standingAlerts(): Alert[] {
    return (
      this.modules.list
        .filter((m) => m.rules.onStage === true)
        // The view of such a module is just its alerts.
        .flatMap((m) => [...(m.rules.view(m.settings, m.durable, "overlay")["alerts"] as readonly Alert[])])
    );
  }

  /** All modules as operators see them. */
  forOperators() {
    return this.modules.list.map((m) => ({
      id: m.id,
      kind: m.kind,
      name: m.name,
      version: m.version,
      view: { ...m.rules.view(m.settings, m.durable, "operator", m.transient) },
    }));
  }
}
