import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../../server/web/http";
import { propsWithUses } from "../../../../server/web/props";
import { services } from "../../../../server/web/services";
import { PrepareTabs } from "../prepare-tabs";
import { Props } from "./props";

export const metadata: Metadata = { title: "Props" };

export default async function PropsPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  return (
    <PrepareTabs
      here="props"
      title="Props"
      about="Pictures, moving pictures and sounds that rules, cues and games use. The files you add are never changed: every cut and trim can be taken back."
    >
      <Props first={await propsWithUses(services(), session.channelId)} />
    </PrepareTabs>
  );
}
