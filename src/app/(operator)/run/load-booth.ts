import type { CueBook } from "../../../core/cues/settings";
import { cueHints } from "../../../core/rules/hints";
import type { Session } from "../../../server/ports/operator-store";
import { bookOf } from "../../../server/web/books";
import { services } from "../../../server/web/services";
import { loadAvailable } from "../prepare/_effects/load";
import type { BoothProps } from "./booth";

/** What a booth needs beside what it is told live, the channel's or a rehearsal's. */
export async function loadBooth({ channelId, login }: Session): Promise<Omit<BoothProps, "above">> {
  const { store, clock, env } = services();
  const [cues, available] = await Promise.all([bookOf(store, channelId, "cues", login, clock.now()), loadAvailable(store, channelId)]);
  // What is published is what can be fired; its own schema has accepted it.
  const book = cues.published as CueBook | null;
  return {
    emotes: available.emotes,
    props: available.props.map(({ id, name }) => ({ id, name })),
    problems: book === null ? [] : cueHints(book.cues, { games: available.games, props: available.props }),
    lan: env.lan,
  };
}
