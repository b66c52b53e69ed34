import type { Metadata } from "next";
import { notFound, redirect } from "next/navigation";
import { currentSession } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";
import { ReviewNav } from "../../review-nav";
import { OutsidePage } from "./outside-page";

export const metadata: Metadata = { title: "A show from outside" };

export default async function OutsideShowPage({ params }: Readonly<{ params: Promise<{ id: string }> }>) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { id } = await params;
  const found = await services().store.outsideShows.show(session.channelId, id.slice(0, 40));
  if (found === null) notFound();
  return (
    <>
      <ReviewNav here="shows" />
      <OutsidePage key={id} id={id} name={found.name} show={found.show} />
    </>
  );
}
