import { houseOf } from "../../../server/web/accounts";
import { does, reads, type Routes } from "../../../server/web/route-kit";
import { type Result, ok, refused } from "../../../core/kernel/refusal";
import { commandSchema } from "../../../core/signals/signal";
import { type Version } from "../../../server/ports/operator-store";
import { findThings } from "../../../server/web/find";
import { bringBack, createGame, publish, removeGame, saveDraft } from "../../../server/web/games";
import { replaceGame } from "../../../server/web/replace-game";
import { mayRemoteCommand } from "../../../server/web/rights";
import { services } from "../../../server/web/services";
import { usesOfGame } from "../../../server/web/uses";
import { z } from "zod";

const draftBody = z.object({ revision: z.int().min(0), settings: z.unknown() });

const recordKind = z.string().regex(/^[a-z-]{1,24}$/);

const nameBody = z.object({ name: z.string().trim().min(1, "The game’s name is missing.").max(80, "A name has at most 80 characters.") });

/** `instead` names a game of the same kind that stands in its place from then on, wherever it was used. */
const removal = z.object({ instead: z.string().max(26).optional() });

type Answer = { settings: unknown } | { versions: readonly Version[] };
const versionBody = z.object({ version: z.int().min(1).optional() });

const newGameBody = z.object({
  kind: z.string().max(40),
  name: z.string().trim().min(1, "The game’s name is missing.").max(80),
  /** Another game, to begin as it is set up. */
  like: z.string().max(26).optional(),
  /** One of the kind’s ready set-ups. */
  setUp: z.string().max(40).optional(),
});

export const gamesRoutes: Routes = {
  /** All that the channel has, by name, for the search. */
  "GET /find": reads("signed-in", async ({ session }) => {
    return ok(await findThings(services().store, session.channelId));
  }),
  "POST /games/:id/command": does(
    "command",
    z.object({ command: commandSchema, id: z.string().min(8).max(80) }),
    async ({ session, stage, params, body: { command, id }, audit }) => {
      if (session.remote && !mayRemoteCommand(command.do)) return refused("access/desk");
      const done = await services().engine.command(stage, params["id"] ?? "", session.login, id, command, houseOf(session));
      if (!done.ok && done.refusal.code === "game/unknown") return refused("game/not-running");
      if (done.ok) await audit({ game: params["id"], command: command.do });
      return done;
    },
  ),
  "PUT /games/:id/draft": does("game.edit", draftBody, ({ session, params, body }) =>
    saveDraft(services(), session, params["id"] ?? "", body.revision, body.settings),
  ),
  /** The draft as it stands now, for who is told that somebody else changed it. */
  "POST /games/:id/draft": does(
    "game.edit",
    z.object({}),
    async ({
      session,
      params,
    }): Promise<Result<{ settings: unknown; revision: number; by: string; version: number; published: unknown }>> => {
      const draft = await services().store.games.draft(session.channelId, params["id"] ?? "");
      return draft === null
        ? refused("game/unknown")
        : ok({ settings: draft.settings, revision: draft.revision, by: draft.by, version: draft.version, published: draft.published });
    },
  ),
  /** How a fight goes since a time: health after each hit, who leads, the pace. */
  "GET /games/:id/fight": reads("signed-in or paired", async ({ session, params, query }) => {
    const { store, clock, engine } = services();
    const since = Number(query.get("since") ?? "0");
    const sinceMs = Number.isSafeInteger(since) && since >= 0 ? since : 0;
    // In the booth of a rehearsal: its own blows, which are stored nowhere.
    const rehearsal = (query.get("rehearsal") ?? "").slice(0, 26);
    const game = (params["id"] ?? "").slice(0, 40);
    if (rehearsal !== "") return engine.rehearsal.fight(session.channelId, rehearsal, { game, sinceMs });
    return ok(await store.shows.fight(session.channelId, game, sinceMs, clock.now()));
  }),
  "POST /games/:id/publish": does("game.publish", z.object({ revision: z.int().min(0) }), async ({ session, params, body, audit }) => {
    const done = await publish(services(), session, params["id"] ?? "", body.revision);
    if (done.ok) await audit({ game: params["id"], version: done.value.version });
    return done;
  }),
  /** What a game kept for good under a name of its own, newest first. */
  "GET /games/:id/records": reads("signed-in", async ({ session, params, query }) => {
    const kind = recordKind.safeParse(query.get("kind"));
    if (!kind.success) return refused("input/invalid", { why: "There is no such list." });
    return ok({ records: await services().store.events.records(session.channelId, params["id"] ?? "", kind.data, 100) });
  }),
  "POST /games/:id/restore": does("game.edit", z.object({}), async ({ session, params, audit }) => {
    const done = await removeGame(services(), session, params["id"] ?? "", false);
    if (done.ok) await audit({ game: params["id"], removed: false });
    return done;
  }),
  "PATCH /games/:id": does("game.edit", nameBody, async ({ session, params, body: { name }, audit }) => {
    const done = await services().store.games.rename(session.channelId, params["id"] ?? "", name);
    if (!done) return refused("game/unknown");
    await audit({ game: params["id"], name });
    return ok(null);
  }),
  "DELETE /games/:id": does("game.edit", removal, async ({ session, params, body: { instead }, audit }) => {
    const game = params["id"] ?? "";
    const put = instead === undefined ? ok({ left: [] as readonly string[] }) : await replaceGame(services(), session, game, instead);
    if (!put.ok) return put;
    const done = await removeGame(services(), session, game, true);
    if (!done.ok) return done;
    await audit({ game, removed: true, ...(instead === undefined ? {} : { instead }) });
    return put;
  }),
  /** Where a game is used, before it is taken away. */
  "GET /games/:id/uses": reads("signed-in", async ({ session, params }) => {
    return ok(await usesOfGame(services().store, session.channelId, params["id"] ?? ""));
  }),
  /** Without a version: the list. With one: its settings, to be made the draft. */
  "POST /games/:id/versions": does("game.edit", versionBody, async ({ session, params, body: { version } }): Promise<Result<Answer>> => {
    const web = services();
    const game = params["id"] ?? "";
    if (version !== undefined) return bringBack(web, session, game, version);
    return ok({ versions: await web.store.games.versions(session.channelId, game) });
  }),
  "POST /games": does("game.create", newGameBody, async ({ session, body: asked, audit }) => {
    const made = await createGame(services(), session, asked);
    if (made.ok) await audit({ game: made.value.id, name: asked.name });
    return made;
  }),
};
