import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../server/web/http";
import { Booth } from "./booth";
import { loadBooth } from "./load-booth";

export const metadata: Metadata = { title: "Run" };

export default async function RunPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  return <Booth {...await loadBooth(session)} />;
}
