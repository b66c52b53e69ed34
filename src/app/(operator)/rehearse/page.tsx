import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../server/web/http";
import { labView } from "../../../server/web/lab";
import { services } from "../../../server/web/services";
import { Lab } from "./lab";

export const metadata: Metadata = { title: "Odds lab" };

export default async function RehearsePage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  return <Lab first={await labView(services(), session.channelId)} />;
}
