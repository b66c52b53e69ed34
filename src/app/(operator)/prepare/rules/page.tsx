import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { bookOf } from "../../../../server/web/books";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { loadAvailable } from "../_effects/load";
import { Unreadable } from "../_draft/unreadable";
import { PrepareNav } from "../prepare-tabs";
import { RulesEditor } from "./rules-editor";

export const metadata: Metadata = { title: "Rules" };

export default async function RulesPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock } = services();
  const draft = await bookOf(store, session.channelId, "rules", session.login, clock.now());
  const available = await loadAvailable(store, session.channelId);
  return (
    <>
      <PrepareNav here="rules" />
      {draft.unreadable !== null ? (
        <Unreadable name={draft.name} why={draft.unreadable} />
      ) : (
        <RulesEditor draft={draft} available={available} />
      )}
    </>
  );
}
