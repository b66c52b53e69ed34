import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { bookOf } from "../../../../server/web/books";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { Unreadable } from "../_draft/unreadable";
import { PrepareNav } from "../prepare-tabs";
import { CommandsEditor } from "./commands-editor";

export const metadata: Metadata = { title: "Commands" };

export default async function CommandsPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock } = services();
  const draft = await bookOf(store, session.channelId, "commands", session.login, clock.now());
  return (
    <>
      <PrepareNav here="commands" />
      {draft.unreadable !== null ? <Unreadable name={draft.name} why={draft.unreadable} /> : <CommandsEditor draft={draft} />}
    </>
  );
}
