import type { Metadata } from "next";
import { cookies } from "next/headers";
import { notFound } from "next/navigation";
import { services } from "../../../server/web/services";
import { channelOf, mineOf, pageToken } from "../../../server/web/viewers";
import { ViewerPage } from "./viewer-page";

type Props = Readonly<{ params: Promise<{ channel: string }> }>;

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const channel = channelOf((await params).channel);
  const shop = channel === null ? null : await services().engine.shop(channel, "");
  return { title: shop?.ok === true ? shop.value.head.channel : "Viewer page" };
}

/** Points, price tags, games: whole without script, live with it. */
export default async function Page({ params }: Props) {
  const channel = channelOf((await params).channel);
  if (channel === null) notFound();
  const { engine } = services();
  const token = await pageToken();
  const shop = await engine.shop(channel, token).catch(() => null);
  if (shop === null || !shop.ok) {
    if (shop !== null && shop.refusal.code === "channel/unknown") notFound();
    return (
      <main className="shop-away">
        {/* It comes by itself, with script and without. */}
        <meta httpEquiv="refresh" content="3" />
        <h1>{shop?.refusal.code === "engine/starting" ? "Izzam is starting" : "Izzam isn’t answering"}</h1>
        <p>Your points are safe. This page tries again by itself.</p>
      </main>
    );
  }
  const { viewer } = shop.value;
  // A page with a token that is tied to nobody yet has asked for its code.
  const code = viewer === null && token !== "" ? await engine.code(channel, token) : null;
  return (
    <ViewerPage
      channel={channel}
      shop={shop.value}
      mine={viewer === null ? null : await mineOf(channel, viewer.id).catch(() => null)}
      code={code?.ok === true ? code.value.code : ""}
      said={(await cookies()).get("izzam_said")?.value ?? ""}
    />
  );
}
