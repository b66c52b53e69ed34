import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../server/web/http";
import { services } from "../../../server/web/services";
import { Rehearse } from "./rehearse";
import { RehearseNav } from "./rehearse-nav";

export const metadata: Metadata = { title: "Rehearse" };

export default async function RehearsePage({ searchParams }: Readonly<{ searchParams: Promise<Record<string, string | string[]>> }>) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store } = services();
  const [past, chats] = await Promise.all([store.shows.past(session.channelId, 30), store.chatLogs.list(session.channelId)]);
  const shows = past.filter((s) => !s.rehearsal);
  const asked = Number((await searchParams)["show"]);
  return (
    <>
      <RehearseNav here="rehearsal" />
      <Rehearse
        shows={shows.map(({ id, name, fromMs, toMs }) => ({ id, name, fromMs, minutes: Math.floor((toMs - fromMs) / 60_000) }))}
        chats={chats}
        begin={shows.some((s) => s.id === asked) ? asked : null}
      />
    </>
  );
}
