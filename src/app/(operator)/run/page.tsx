import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../server/web/http";
import { Booth } from "./booth";
import { loadBooth } from "./load-booth";

export const metadata: Metadata = { title: "Run" };

export default async function RunPage({ searchParams }: Readonly<{ searchParams: Promise<{ game?: string | string[] }> }>) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { game } = await searchParams;
  return <Booth {...await loadBooth(session)} first={typeof game === "string" ? game : null} />;
}
