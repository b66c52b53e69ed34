import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { cueHints } from "../../../../../core/rules/hints";
import type { CueBook } from "../../../../../core/cues/settings";
import { bookOf } from "../../../../../server/web/books";
import { currentSession } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";
import { loadAvailable } from "../../../prepare/_effects/load";
import { Room } from "./room";

export const metadata: Metadata = { title: "Rehearsing" };

export default async function RoomPage({ params }: Readonly<{ params: Promise<{ id: string }> }>) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock, env } = services();
  const { channelId, login } = session;
  const [cues, available] = await Promise.all([bookOf(store, channelId, "cues", login, clock.now()), loadAvailable(store, channelId)]);
  // What is published is what can be fired; its own schema has accepted it.
  const book = cues.published as CueBook | null;
  return (
    <Room
      id={(await params).id}
      emotes={available.emotes}
      props={available.props.map(({ id, name }) => ({ id, name }))}
      problems={book === null ? [] : cueHints(book.cues, { games: available.games, props: available.props })}
      lan={env.lan}
    />
  );
}
