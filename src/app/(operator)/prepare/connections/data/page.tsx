import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";
import { PrepareTabs } from "../../prepare-tabs";
import { KeptData } from "./kept-data";

export const metadata: Metadata = { title: "Data" };

export default async function DataPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { data } = services().store;
  const [retention, months, sizes] = await Promise.all([data.retention(), data.months(session.channelId), data.sizes()]);
  return (
    <PrepareTabs here="data" title="Data" about="What Izzam keeps on this computer, for how long, and how much room it takes.">
      <KeptData retention={retention} months={months} sizes={sizes} owner={session.role === "owner"} />
    </PrepareTabs>
  );
}
