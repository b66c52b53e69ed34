import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { pointsSchema } from "../../../../core/points/settings";
import { bookOf } from "../../../../server/web/books";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { loadAvailable } from "../_effects/load";
import { Unreadable } from "../_draft/unreadable";
import { PrepareNav } from "../prepare-tabs";
import { RewardsEditor } from "./rewards-editor";

export const metadata: Metadata = { title: "Rewards" };

export default async function RewardsPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock } = services();
  const { channelId, login } = session;
  // One after another: each is made when it is first looked for.
  const draft = await bookOf(store, channelId, "rewards", login, clock.now());
  const points = pointsSchema.safeParse((await bookOf(store, channelId, "points", login, clock.now())).settings);
  const available = await loadAvailable(store, channelId);
  return (
    <>
      <PrepareNav here="rewards" />
      {draft.unreadable !== null ? (
        <Unreadable name={draft.name} why={draft.unreadable} />
      ) : (
        <RewardsEditor draft={draft} available={available} pointsName={points.success ? points.data.name : "points"} channel={channelId} />
      )}
    </>
  );
}
