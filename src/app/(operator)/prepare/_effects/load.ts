import { cueBookSchema } from "../../../../core/cues/settings";
import { soundFactsSchema } from "../../../../core/props/settings";
import type { ChannelId } from "../../../../core/kernel/ids";
import { rulebookSchema } from "../../../../core/rules/settings";
import { isGame } from "../../../../core/games/registry";
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
    games: games.filter((g) => isGame(g.kind)).map(({ id, kind, name }) => ({ id, kind, name })),
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
