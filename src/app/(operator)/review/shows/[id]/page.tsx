import type { Metadata } from "next";
import { notFound, redirect } from "next/navigation";
import { gameOf } from "../../../../../core/games/registry";
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
  // What was put before the audience has a list of its own.
  const drawn = view.rounds.filter((r) => gameOf(r.kind)?.aired === undefined);
  return (
    <>
      <ReviewNav here="shows" />
      <PastShowPage key={view.show.id} view={view} drawn={drawn} />
    </>
  );
}
