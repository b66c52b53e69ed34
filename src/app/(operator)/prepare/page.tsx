import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { isGame } from "../../../core/games/registry";
import { currentSession } from "../../../server/web/http";
import { services } from "../../../server/web/services";
import { GamesList } from "./games-list";
import { PrepareTabs } from "./prepare-tabs";

export const metadata: Metadata = { title: "Prepare" };

export default async function PreparePage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, env } = services();
  const [games, overlays] = await Promise.all([store.games.games(session.channelId), store.overlays.overlays(session.channelId)]);
  return (
    <PrepareTabs
      here="games"
      title="Games"
      about="Set a game up beside its live preview, try it, publish it, and copy the link of the overlay it stands on."
    >
      <GamesList games={games.filter((g) => isGame(g.kind))} overlays={overlays} practice={env.practiceUrl} />
    </PrepareTabs>
  );
}
