import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { pointsSchema } from "../../../../core/points/settings";
import { bookOf } from "../../../../server/web/books";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { ReviewNav } from "../review-nav";
import { Charts } from "./charts";

export const metadata: Metadata = { title: "Points in review" };

export default async function PointsReview() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock } = services();
  const points = pointsSchema.safeParse((await bookOf(store, session.channelId, "points", session.login, clock.now())).settings);
  return (
    <>
      <ReviewNav here="points" />
      <Charts charts={await store.points.charts(session.channelId, clock.now())} name={points.success ? points.data.name : "points"} />
    </>
  );
}
