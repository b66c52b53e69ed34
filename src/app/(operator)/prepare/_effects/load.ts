import { cueBookSchema } from "../../../../core/cues/settings";
import { z } from "zod";
import { usesOf } from "../../../../core/props/kinds";
import { videoFactsSchema } from "../../../../core/props/video";
import type { ChannelId } from "../../../../core/kernel/ids";
import { rulebookSchema } from "../../../../core/rules/settings";
import { gameOf } from "../../../../core/games/registry";
import { isGame } from "../../../../core/games/fronts";
import type { OperatorStore } from "../../../../server/ports/operator-store";
import { homeCurrency } from "../../../../server/web/books";
import { pictureSprites } from "../../../../server/props/sprites";
import type { Available } from "./available";

/** What the editors of rules and cues can name, read on the server. */
export async function loadAvailable(store: OperatorStore, channel: ChannelId): Promise<Available> {
  const [games, props, emotes, home] = await Promise.all([
    store.games.games(channel),
    store.props.props(channel),
    store.emotes.emotes(channel),
    homeCurrency(store, channel),
  ]);
  const bookOf = async (kind: string) => {
    const id = games.find((g) => g.kind === kind)?.id;
    return id === undefined ? null : store.games.draft(channel, id);
  };
  const [cueBook, rules] = await Promise.all([bookOf("cues"), bookOf("rules")]);
  const cues = cueBookSchema.safeParse(cueBook?.settings);
  // Queues are kept in the rulebook, as it is published.
  const rulebook = rulebookSchema.safeParse(rules?.published);
  return {
    games: await Promise.all(
      games
        .filter((g) => isGame(g.kind))
        .map(async ({ id, kind, name }) => ({ id, kind, name, lists: await listsOf(store, channel, id, kind) })),
    ),
    // A moving picture stands among pictures, and among sounds where there is something to hear.
    props: props.flatMap(({ id, name, kind, url, facts }) =>
      usesOf(kind, facts).map((use) => ({ id, name, kind: use, url: use === "sound" ? soundUrl(url, facts) : url, ms: lengthIn(facts) })),
    ),
    emotes: emotes.map((e) => e.sprite),
    pictures: pictureSprites(props),
    queues: rulebook.success ? rulebook.data.queues : [],
    cues: cues.success ? cues.data.cues.map(({ id, name }) => ({ id, name })) : [],
    home,
  };
}

const lengthIn = (facts: unknown): number => {
  const told = z.object({ ms: z.number() }).safeParse(facts);
  return told.success ? told.data.ms : 0;
};
const soundUrl = (url: string, facts: unknown): string => {
  const video = videoFactsSchema.safeParse(facts);
  return video.success ? video.data.sound : url;
};

/** What fields of a game's actions can be picked from, by its settings as they are being set up. */
async function listsOf(
  store: OperatorStore,
  channel: ChannelId,
  id: string,
  kind: string,
): Promise<Readonly<Record<string, readonly string[]>>> {
  const game = gameOf(kind);
  if (game?.lists === undefined) return {};
  const settings = game.settings.safeParse((await store.games.draft(channel, id))?.settings);
  return settings.success ? game.lists(settings.data) : {};
}
