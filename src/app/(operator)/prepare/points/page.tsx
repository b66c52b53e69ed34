import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { bookOf, homeCurrency } from "../../../../server/web/books";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { Unreadable } from "../_draft/unreadable";
import { PrepareNav } from "../prepare-tabs";
import { PointsEditor } from "./points-editor";

export const metadata: Metadata = { title: "Points" };

export default async function PointsPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock } = services();
  const draft = await bookOf(store, session.channelId, "points", session.login, clock.now());
  return (
    <>
      <PrepareNav here="points" />
      {draft.unreadable !== null ? (
        <Unreadable name={draft.name} why={draft.unreadable} />
      ) : (
        <PointsEditor draft={draft} home={await homeCurrency(store, session.channelId)} />
      )}
    </>
  );
}
