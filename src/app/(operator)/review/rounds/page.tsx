import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../../server/web/http";
import { pastRounds } from "../../../../server/web/past-rounds";
import { services } from "../../../../server/web/services";
import { ReviewNav } from "../review-nav";
import { Rounds } from "./rounds";

export const metadata: Metadata = { title: "Rounds and prizes" };

export default async function RoundsPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const rounds = await pastRounds(services(), session.channelId);
  return (
    <>
      <ReviewNav here="rounds" />
      <Rounds rounds={rounds} />
    </>
  );
}
