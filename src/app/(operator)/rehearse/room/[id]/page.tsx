import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../../../server/web/http";
import { loadBooth } from "../../../run/load-booth";
import { Room } from "./room";

export const metadata: Metadata = { title: "Rehearsing" };

type Asked = Readonly<{ params: Promise<{ id: string }>; searchParams: Promise<{ game?: string | string[] }> }>;

export default async function RoomPage({ params, searchParams }: Asked) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { game } = await searchParams;
  return <Room id={(await params).id} {...await loadBooth(session)} first={typeof game === "string" ? game : null} />;
}
