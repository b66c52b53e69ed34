import type { Metadata } from "next";
import { notFound, redirect } from "next/navigation";
import { isGame } from "../../../../../core/games/fronts";
import { currentSession } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";
import { loadAvailable } from "../../_effects/load";
import { Unreadable } from "../../_draft/unreadable";
import { Editor } from "./editor";

export const metadata: Metadata = { title: "Game" };

export default async function GamePage({ params }: { params: Promise<{ id: string }> }) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store } = services();
  const draft = await store.games.draft(session.channelId, (await params).id);
  if (draft === null || !isGame(draft.kind)) notFound();
  if (draft.unreadable !== null) return <Unreadable name={draft.name} why={draft.unreadable} />;
  const { channelId, role } = session;
  const [overlays, available] = await Promise.all([store.overlays.overlays(channelId), loadAvailable(store, channelId)]);
  return (
    <Editor
      draft={draft}
      overlays={overlays}
      sprites={[...available.emotes, ...available.pictures]}
      owner={role === "owner"}
      available={available}
    />
  );
}
