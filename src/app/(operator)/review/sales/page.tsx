import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { pointsSchema } from "../../../../core/points/settings";
import { bookOf } from "../../../../server/web/books";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { ReviewNav } from "../review-nav";
import { Sales } from "./sales";

export const metadata: Metadata = { title: "Sales" };

export default async function SalesPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock } = services();
  const points = pointsSchema.safeParse((await bookOf(store, session.channelId, "points", session.login, clock.now())).settings);
  const first = await store.points.sales(session.channelId, { state: "waiting", reward: "", limit: 200 });
  return (
    <>
      <ReviewNav here="sales" />
      <Sales first={first} owner={session.role === "owner"} name={points.success ? points.data.name : "points"} />
    </>
  );
}
