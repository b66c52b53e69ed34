import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../../server/web/http";
import { labView } from "../../../../server/web/lab";
import { services } from "../../../../server/web/services";
import { RehearseNav } from "../rehearse-nav";
import { Lab } from "./lab";

export const metadata: Metadata = { title: "Odds lab" };

export default async function LabPage({ searchParams }: Readonly<{ searchParams: Promise<Record<string, string | string[]>> }>) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { about } = await searchParams;
  return (
    <>
      <RehearseNav here="lab" />
      <Lab first={await labView(services(), session.channelId)} about={typeof about === "string" ? about : ""} />
    </>
  );
}
