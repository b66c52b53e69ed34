import { gameOf } from "../../core/games/registry";
import { isGame } from "../../core/games/fronts";
import { moduleOf } from "../../core/modules";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { type Place, wholePlace } from "../../core/wire/messages";
import type { Session } from "../ports/operator-store";
import { newToken } from "../secrets";
import type { WebServices } from "../composition/web";
import { firstProblem } from "../../core/words/problem";

/** Saves a draft. Settings are checked by the game's own schema, so that every draft can be published. */
export async function saveDraft(
  web: WebServices,
  session: Session,
  game: string,
  revision: number,
  given: unknown,
): Promise<Result<{ revision: number }>> {
  const draft = await web.store.games.draft(session.channelId, game);
  const rules = draft === null ? null : moduleOf(draft.kind);
  if (draft === null || rules === null) return refused("game/unknown");
  if (draft.unreadable !== null) return refused("game/unreadable", { why: draft.unreadable });
  const settings = rules.settings.safeParse(given);
  if (!settings.success) return refused("game/bad-settings", { why: firstProblem(settings.error) });
  const saved = await web.store.games.saveDraft(session.channelId, game, { revision, settings: settings.data, by: session.login });
  if (saved.ok) await web.engine.changed(session.channelId, { what: "draft", id: game, revision: saved.value.revision, by: session.login });
  return saved;
}

export async function publish(web: WebServices, session: Session, game: string, revision: number): Promise<Result<{ version: number }>> {
  const draft = await web.store.games.draft(session.channelId, game);
  if (draft !== null && draft.unreadable !== null) return refused("game/unreadable", { why: draft.unreadable });
  const published = await web.store.games.publish(session.channelId, game, { revision, by: session.login, nowMs: web.clock.now() });
  if (!published.ok) return published;
  // A game that stands nowhere shows nowhere: the first publishing puts it on the first overlay.
  const overlays = await web.store.overlays.overlays(session.channelId);
  const first = overlays[0];
  const kind = draft?.kind ?? "";
  if (isGame(kind) && published.value.version === 1 && first !== undefined && !overlays.some((o) => o.games.includes(game)))
    if (gameOf(kind)?.bodiless !== true) await web.store.overlays.place(session.channelId, first.id, game, placeOf(kind));
  await web.engine.reload(session.channelId);
  await web.engine.changed(session.channelId, { what: "published", id: game, revision: published.value.version, by: session.login });
  return published;
}

/** Where a game of this kind stands at first. */
export const placeOf = (kind: string): Place => ({ ...wholePlace, ...gameOf(kind)?.place });

/** The draft takes the settings of an older version; publishing it is a step of its own. */
export async function bringBack(web: WebServices, session: Session, game: string, version: number): Promise<Result<{ settings: unknown }>> {
  const settings = await web.store.games.versionSettings(session.channelId, game, version);
  return settings.ok ? ok({ settings: settings.value }) : settings;
}

/** A game of a kind, with its defaults or one of its ready set-ups; or as another one is set up, when `like` names it. */
export async function createGame(
  web: WebServices,
  session: Session,
  { kind, name, like, setUp }: Readonly<{ kind: string; name: string; like?: string | undefined; setUp?: string | undefined }>,
): Promise<Result<{ id: string }>> {
  const from = like === undefined ? null : await web.store.games.draft(session.channelId, like);
  const game = gameOf(from?.kind ?? kind);
  if (game === null || (like !== undefined && from === null)) return refused("game/unknown");
  if (from !== null && from.unreadable !== null) return refused("game/unreadable", { why: from.unreadable });
  const id = newToken();
  const ready = setUp === undefined ? null : game.setUps?.find((s) => s.id === setUp);
  if (ready === undefined) return refused("game/unknown");
  const settings = from?.settings ?? ((ready?.settings ?? game.defaults) as unknown);
  await web.store.games.create(session.channelId, { id, kind: game.kind, name, settings, by: session.login, nowMs: web.clock.now() });
  return ok({ id });
}

/** Takes a game away, or brings it back. What is no game (points, rules …) stays. */
export async function removeGame(web: WebServices, session: Session, id: string, away: boolean): Promise<Result<null>> {
  const { games } = web.store;
  const known = away
    ? (await games.games(session.channelId)).find((g) => g.id === id)
    : (await games.removed(session.channelId)).find((g) => g.id === id);
  if (known === undefined || !isGame(known.kind)) return refused("game/unknown");
  // What viewers put in would lie there, and nobody could decide it.
  if (away && (await games.pool(session.channelId, id)) !== 0) return refused("game/points-in-it");
  if (!(await games.setRemoved(session.channelId, id, away ? web.clock.now() : null))) return refused("game/unknown");
  await web.engine.reload(session.channelId);
  return ok(null);
}
