import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { PrepareTabs } from "../prepare-tabs";
import { Emotes } from "./emotes";

export const metadata: Metadata = { title: "Emotes" };

export default async function EmotesPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const emotes = await services().store.emotes.emotes(session.channelId);
  return (
    <PrepareTabs
      here="emotes"
      title="Emotes"
      about="The channel’s own pictures. Whoever writes an emote’s word in chat, in any capitals, sends its picture."
    >
      <Emotes first={emotes} />
    </PrepareTabs>
  );
}
