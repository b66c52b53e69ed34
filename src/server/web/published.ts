import type { ChannelId } from "../../core/kernel/ids";
import { moduleOf, readSettings } from "../../core/modules";
import { moneyDefaults } from "../../core/signals/money";
import type { WebServices } from "../composition/web";

export type Published = Readonly<{ id: string; kind: string; name: string; version: number; settings: unknown }>;
/** What runs, as it was published; what can't be read is left out. */
export async function published({ store }: Pick<WebServices, "store">, channel: ChannelId): Promise<readonly Published[]> {
  const games = await store.games.games(channel);
  const all = await Promise.all(
    games.map(async ({ id, kind, name, version }): Promise<Published[]> => {
      const settings = await store.games.versionSettings(channel, id, version);
      const read = settings.ok ? readSettings(kind, settings.value) : null;
      return read === null || read.why !== null ? [] : [{ id, kind, name, version, settings: read.settings }];
    }),
  );
  return all.flat();
}

/** The settings of another kind of module, put together as the engine puts them. */
export function factsOf(told: readonly Published[]) {
  const provided = Object.assign(
    {},
    ...told.map(({ kind, settings }) => {
      const module = moduleOf(kind);
      return module?.provides?.(settings, module.freshDurable(settings)) ?? {};
    }),
  ) as Readonly<{ pointsName?: string; money?: { home: string } }>;
  return { points: provided.pointsName ?? "points", home: (provided.money ?? moneyDefaults).home, ownEmotes: 1 };
}
