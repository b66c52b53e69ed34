import type { Metadata } from "next";
import { notFound, redirect } from "next/navigation";
import { gameOf } from "../../../../../core/games/registry";
import { isGame } from "../../../../../core/games/fronts";
import { currentSession } from "../../../../../server/web/http";
import { pictureSprites } from "../../../../../server/props/sprites";
import { services } from "../../../../../server/web/services";
import { PrepareNav } from "../../prepare-tabs";
import { StageEditor } from "./stage-editor";
import type { StageGame } from "./stage-list";

export const metadata: Metadata = { title: "Stage" };

export default async function StagePage({ params }: { params: Promise<{ id: string }> }) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store } = services();
  const { channelId, role } = session;
  const layout = await store.overlays.layout(channelId, (await params).id);
  if (layout === null) notFound();
  const [games, props, emotes] = await Promise.all([
    store.games.games(channelId),
    store.props.props(channelId),
    store.emotes.emotes(channelId),
  ]);
  const shown = await Promise.all(
    games
      .filter((g) => isGame(g.kind) && gameOf(g.kind)?.bodiless !== true)
      .map(async (g): Promise<StageGame | null> => {
        const rules = gameOf(g.kind);
        const draft = await store.games.draft(channelId, g.id);
        const settings = rules?.settings.safeParse(draft?.published ?? draft?.settings);
        if (rules === null || settings?.success !== true) return null;
        // As it looks at its beginning: enough to place it by.
        return {
          id: g.id,
          kind: g.kind,
          name: g.name,
          view: { ...rules.view(settings.data, rules.freshDurable(settings.data), "overlay") },
        };
      }),
  );
  return (
    <>
      <PrepareNav here="overlays" />
      <StageEditor
        layout={layout}
        games={shown.filter((g) => g !== null)}
        sprites={[...emotes.map((e) => e.sprite), ...pictureSprites(props)]}
        owner={role === "owner"}
      />
    </>
  );
}
