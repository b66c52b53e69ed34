import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../server/web/http";
import { services } from "../../../server/web/services";
import { Coming } from "../../_frame/coming";
import { PastShows } from "./past-shows";

export const metadata: Metadata = { title: "Review" };

export default async function ReviewPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const shows = await services().store.shows.past(session.channelId, 50);
  return (
    <>
      <Coming
        title="Review is not built yet"
        about="Here you will find what happened in each show: results, winners and prizes to hand over, points in and out, charts and exports. Izzam keeps the log of every message from the first day, so nothing of today will be missing then."
      />
      <PastShows shows={shows} />
    </>
  );
}
