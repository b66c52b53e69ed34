import type { Metadata } from "next";
import { redirect } from "next/navigation";
import type { CueBook } from "../../../../core/cues/settings";
import { bookOf } from "../../../../server/web/books";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { loadAvailable } from "../_effects/load";
import { Unreadable } from "../_draft/unreadable";
import { PrepareNav } from "../prepare-tabs";
import { ShowEditor } from "./show-editor";

export const metadata: Metadata = { title: "Show" };

export default async function ShowPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock } = services();
  const { channelId, login } = session;
  const [draft, cues, available] = await Promise.all([
    bookOf(store, channelId, "show", login, clock.now()),
    bookOf(store, channelId, "cues", login, clock.now()),
    loadAvailable(store, channelId),
  ]);
  // What is published is what a rundown can fire; its own schema has accepted it.
  const book = cues.published as CueBook | null;
  return (
    <>
      <PrepareNav here="show" />
      {draft.unreadable !== null ? (
        <Unreadable name={draft.name} why={draft.unreadable} />
      ) : (
        <ShowEditor draft={draft} cues={(book?.cues ?? []).map(({ id, name }) => ({ id, name }))} available={available} />
      )}
    </>
  );
}
