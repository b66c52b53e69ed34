import { isGame, rulesOf } from "../../core/games/registry";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { Session } from "../ports/operator-store";
import { newToken } from "../secrets";
import type { WebServices } from "../composition";
import { firstProblem } from "./problem";

/** Saves a draft. Settings are checked by the game's own schema, so that every draft can be published. */
export async function saveDraft(
  web: WebServices,
  session: Session,
  game: string,
  revision: number,
  given: unknown,
): Promise<Result<{ revision: number }>> {
  const draft = await web.store.games.draft(session.channelId, game);
  const rules = draft === null ? null : rulesOf(draft.kind);
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
    await web.store.overlays.place(session.channelId, first.id, game, true);
  await web.engine.reload(session.channelId);
  await web.engine.changed(session.channelId, { what: "published", id: game, revision: published.value.version, by: session.login });
  return published;
}

/** The draft takes the settings of an older version; publishing it is a step of its own. */
export async function bringBack(web: WebServices, session: Session, game: string, version: number): Promise<Result<{ settings: unknown }>> {
  const settings = await web.store.games.versionSettings(session.channelId, game, version);
  return settings.ok ? ok({ settings: settings.value }) : settings;
}

export async function createGame(web: WebServices, session: Session, kind: string, name: string): Promise<Result<{ id: string }>> {
  const rules = isGame(kind) ? rulesOf(kind) : null;
  if (rules === null) return refused("game/unknown");
  const id = newToken();
  await web.store.games.create(session.channelId, { id, kind, name, settings: rules.defaults, by: session.login, nowMs: web.clock.now() });
  return ok({ id });
}
