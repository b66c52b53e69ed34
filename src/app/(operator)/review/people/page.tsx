import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { pointsSchema } from "../../../../core/points/settings";
import { bookOf } from "../../../../server/web/books";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { ReviewNav } from "../review-nav";
import { People } from "./people";

export const metadata: Metadata = { title: "People" };

export default async function PeoplePage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock } = services();
  const points = pointsSchema.safeParse((await bookOf(store, session.channelId, "points", session.login, clock.now())).settings);
  return (
    <>
      <ReviewNav here="people" />
      <People
        first={await store.points.people(session.channelId, "", 60)}
        name={points.success ? points.data.name : "points"}
        owner={session.role === "owner"}
      />
    </>
  );
}
