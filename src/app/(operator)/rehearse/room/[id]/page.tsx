import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../../../server/web/http";
import { loadBooth } from "../../../run/load-booth";
import { Room } from "./room";

export const metadata: Metadata = { title: "Rehearsing" };

export default async function RoomPage({ params }: Readonly<{ params: Promise<{ id: string }> }>) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  return <Room id={(await params).id} {...await loadBooth(session)} />;
}
