import { cueBookSchema } from "../../../../core/cues/settings";
import { soundFactsSchema } from "../../../../core/props/settings";
import type { ChannelId } from "../../../../core/kernel/ids";
import { rulebookSchema } from "../../../../core/rules/settings";
import { gameOf, isGame } from "../../../../core/games/registry";
import type { OperatorStore } from "../../../../server/ports/operator-store";
import { homeCurrency } from "../../../../server/web/books";
import { pictureSprites } from "../../../../server/web/prop-sprites";
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
    props: props.map(({ id, name, kind, url, facts }) => {
      const sound = soundFactsSchema.safeParse(facts);
      return { id, name, kind, url, ms: sound.success ? sound.data.ms : 0 };
    }),
    emotes: emotes.map((e) => e.sprite),
    pictures: pictureSprites(props),
    queues: rulebook.success ? rulebook.data.queues : [],
    cues: cues.success ? cues.data.cues.map(({ id, name }) => ({ id, name })) : [],
    home,
  };
}

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
