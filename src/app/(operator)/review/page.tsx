import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../server/web/http";
import { services } from "../../../server/web/services";
import { PastShows } from "./past-shows";
import { ReviewNav } from "./review-nav";

export const metadata: Metadata = { title: "Review" };

export default async function ReviewPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store } = services();
  const [shows, outside] = await Promise.all([store.shows.past(session.channelId, 50), store.outsideShows.list(session.channelId)]);
  return (
    <>
      <ReviewNav here="shows" />
      <PastShows shows={shows} outside={outside} />
    </>
  );
}
