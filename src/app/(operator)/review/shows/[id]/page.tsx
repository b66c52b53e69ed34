import type { Metadata } from "next";
import { notFound, redirect } from "next/navigation";
import { currentSession } from "../../../../../server/web/http";
import { reviewView } from "../../../../../server/web/review";
import { recordIn } from "../../../../../server/web/show-names";
import { services } from "../../../../../server/web/services";
import { ReviewNav } from "../../review-nav";
import { PastShowPage } from "./past-show-page";

export const metadata: Metadata = { title: "A past show" };

export default async function ShowPage({ params }: Readonly<{ params: Promise<{ id: string }> }>) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const view = await reviewView(services(), session.channelId, recordIn((await params).id));
  if (view === null) notFound();
  return (
    <>
      <ReviewNav here="shows" />
      <PastShowPage key={view.show.id} view={view} />
    </>
  );
}
