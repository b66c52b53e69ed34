import { Box } from "@chakra-ui/react";
import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { isGame } from "../../../core/games/fronts";
import { homeCurrency } from "../../../server/web/books";
import { currentSession } from "../../../server/web/http";
import { pictureSprites } from "../../../server/props/sprites";
import { services } from "../../../server/web/services";
import { Gallery } from "./gallery";
import { PrepareNav } from "./prepare-tabs";

export const metadata: Metadata = { title: "Prepare" };

export default async function PreparePage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, env } = services();
  const { channelId } = session;
  const [games, overlays, removed, emotes, props, home] = await Promise.all([
    store.games.games(channelId),
    store.overlays.overlays(channelId),
    store.games.removed(channelId),
    store.emotes.emotes(channelId),
    store.props.props(channelId),
    homeCurrency(store, channelId),
  ]);
  const shown = await Promise.all(
    games
      .filter((g) => isGame(g.kind))
      .map(async (g) => {
        const draft = await store.games.draft(channelId, g.id);
        return {
          ...g,
          // What can’t be read has no picture, and says so on its own page.
          settings: draft === null || draft.unreadable !== null ? null : (draft.published ?? draft.settings),
          where: overlays.filter((o) => o.games.includes(g.id)).map((o) => o.name),
        };
      }),
  );
  return (
    <Box>
      <PrepareNav here="games" />
      <Gallery
        games={shown}
        removed={removed.filter((r) => isGame(r.kind))}
        overlays={overlays}
        sprites={[...emotes.map((e) => e.sprite), ...pictureSprites(props)]}
        home={home}
        practice={env.practiceUrl}
      />
    </Box>
  );
}
