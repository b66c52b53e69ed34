import type { Metadata, Viewport } from "next";
import { currentRemote, currentSession } from "../../server/web/http";
import { services } from "../../server/web/services";
import { Pair } from "./pair";
import { Remote } from "./remote";

export const metadata: Metadata = { title: "Remote", robots: "noindex" };
export const viewport: Viewport = { width: "device-width", initialScale: 1, viewportFit: "cover" };

/** The phone's page: who is paired, or signed in, has the hands of the booth; everyone else types the code. */
export default async function RemotePage() {
  const session = (await currentRemote()) ?? (await currentSession());
  if (session === null) return <Pair />;
  const props = await services().store.props.props(session.channelId);
  return (
    <Remote
      channel={session.channelName}
      login={session.login}
      paired={session.remote}
      props={props.map(({ id, name }) => ({ id, name }))}
    />
  );
}
