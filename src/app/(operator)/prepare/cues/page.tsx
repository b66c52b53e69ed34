import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { bookOf } from "../../../../server/web/books";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { loadAvailable } from "../_effects/load";
import { Unreadable } from "../_draft/unreadable";
import { PrepareNav } from "../prepare-tabs";
import { CuesEditor } from "./cues-editor";

export const metadata: Metadata = { title: "Cues" };

export default async function CuesPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock } = services();
  const { channelId, login, role } = session;
  const [draft, available, linked] = await Promise.all([
    bookOf(store, channelId, "cues", login, clock.now()),
    loadAvailable(store, channelId),
    store.events.triggers(channelId),
  ]);
  return (
    <>
      <PrepareNav here="cues" />
      {draft.unreadable !== null ? (
        <Unreadable name={draft.name} why={draft.unreadable} />
      ) : (
        <CuesEditor draft={draft} available={available} linked={linked} owner={role === "owner"} />
      )}
    </>
  );
}
