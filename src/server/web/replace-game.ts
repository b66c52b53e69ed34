import { isDeepStrictEqual } from "node:util";
import { isGame } from "../../core/games/fronts";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { putInPlace } from "../../core/rules/put-in-place";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";
import { draftOf } from "./books";
import { placeOf, publish, saveDraft } from "./games";

/** What names games, and how each is called. */
const books = [
  { kind: "rules", name: "rules" },
  { kind: "cues", name: "cues" },
  { kind: "rewards", name: "rewards" },
  { kind: "show", name: "show" },
] as const;

/**
 * Puts another game of the same kind where one is named now, so that it can go. What was as published is published
 * again at once; where somebody has changes that wait, it is done in those, and `left` says which wait to be published.
 * What can't be saved refuses all the rest; what was done by then is right, and asking again does what is left.
 */
export async function replaceGame(
  web: WebServices,
  session: Session,
  from: string,
  to: string,
): Promise<Result<{ left: readonly string[] }>> {
  const games = await web.store.games.games(session.channelId);
  const [one, other] = [from, to].map((id) => games.find((g) => g.id === id));
  if (one === undefined || other === undefined || from === to) return refused("game/unknown");
  if (one.kind !== other.kind) return refused("game/other-kind");
  const left: string[] = [];
  const named = games.filter((g) => isGame(g.kind) && g.id !== from);
  const drafts = [
    ...(await Promise.all(books.map(async ({ kind, name }) => ({ name, draft: await draftOf(web.store, session.channelId, kind) })))),
    // Games whose own settings do something with it.
    ...(await Promise.all(named.map(async (g) => ({ name: g.name, draft: await web.store.games.draft(session.channelId, g.id) })))),
  ];
  for (const { name, draft } of drafts) {
    if (draft === null || draft.unreadable !== null) continue;
    const next = putInPlace(draft.settings, from, to);
    if (next === draft.settings) continue;
    const asPublished = isDeepStrictEqual(draft.settings, draft.published);
    const saved = await saveDraft(web, session, draft.id, draft.revision, next);
    if (!saved.ok) return saved;
    if (!asPublished) left.push(name);
    else {
      const done = await publish(web, session, draft.id, saved.value.revision);
      if (!done.ok) return done;
    }
  }
  for (const overlay of await web.store.overlays.overlays(session.channelId)) {
    if (!overlay.games.includes(from) || overlay.games.includes(to)) continue;
    const places = (await web.store.overlays.layout(session.channelId, overlay.id))?.places ?? [];
    await web.store.overlays.place(session.channelId, overlay.id, to, places.find((p) => p.game === from)?.place ?? placeOf(other.kind));
  }
  return ok({ left });
}
