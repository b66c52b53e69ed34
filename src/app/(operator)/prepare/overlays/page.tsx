import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { PrepareTabs } from "../prepare-tabs";
import { NewOverlay } from "./new-overlay";
import { RemovedOverlays } from "./overlay-name";
import { OverlayCards } from "./overlay-cards";

export const metadata: Metadata = { title: "Overlays" };

export default async function OverlaysPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { overlays: store } = services().store;
  const [overlays, removed] = await Promise.all([store.overlays(session.channelId), store.removed(session.channelId)]);
  return (
    <PrepareTabs
      here="overlays"
      title="Overlays"
      about="Transparent pages for your broadcast software. Each has one secret link and shows the games that stand on it."
    >
      <OverlayCards overlays={overlays} owner={session.role === "owner"} />
      {session.role === "owner" && <NewOverlay />}
      {session.role === "owner" && <RemovedOverlays removed={removed} />}
    </PrepareTabs>
  );
}
