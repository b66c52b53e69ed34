import { Text } from "@chakra-ui/react";
import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { chatSettingsSchema, studioConnectionSchema } from "../../../../server/composition/web";
import { currentSession } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";
import { PrepareTabs } from "../prepare-tabs";
import { ChatForm } from "./chat-form";
import { EventsForm } from "./events-form";
import { StudioForm } from "./studio-form";
import { PracticeOffer } from "./practice-offer";

export const metadata: Metadata = { title: "Connections" };

export default async function ConnectionsPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, env } = services();
  const [kept, events, studioKept] = await Promise.all([
    store.chat.connection(session.channelId),
    store.events.secret(session.channelId),
    store.studio.connection(session.channelId),
  ]);
  const studio = studioConnectionSchema.safeParse(studioKept?.settings);
  const settings = chatSettingsSchema.safeParse(kept?.settings);
  return (
    <PrepareTabs
      here="connections"
      title="Connections"
      about="Where Izzam hears what viewers write and give. Any chat server that speaks IRC will do."
    >
      {env.practiceUrl !== "" && session.role === "owner" && (!settings.success || !settings.data.practice || events === null) && (
        <PracticeOffer instead={settings.success} />
      )}
      <ChatForm
        enabled={kept?.enabled ?? true}
        settings={settings.success ? settings.data : null}
        hasSecret={kept?.hasSecret ?? false}
        owner={session.role === "owner"}
        practice={env.practiceUrl}
      />
      <Text mb="2">
        What is kept of all that comes in, for how long and how much room it takes, stands under{" "}
        <a href="/prepare/connections/data">Data</a>.
      </Text>
      <EventsForm channel={session.channelId} set={events !== null} oldUntilMs={events?.oldUntilMs ?? 0} owner={session.role === "owner"} />
      <StudioForm
        enabled={studioKept?.enabled ?? true}
        settings={studio.success ? studio.data : null}
        hasSecret={studioKept?.hasSecret ?? false}
        owner={session.role === "owner"}
        practice={env.practiceUrl}
      />
    </PrepareTabs>
  );
}
