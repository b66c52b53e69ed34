import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../server/web/http";
import { services } from "../../../server/web/services";
import { AccountView } from "./account";

export const metadata: Metadata = { title: "Account" };

export default async function AccountPage() {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  const { store, clock } = services();
  const nowMs = clock.now();
  const owner = session.role === "owner";
  const [sessions, operators, invites] = await Promise.all([
    store.accounts.sessions(session.operatorId, nowMs),
    store.accounts.operators(session.channelId, nowMs),
    owner ? store.accounts.invites(session.channelId, nowMs) : Promise.resolve([]),
  ]);
  return (
    <AccountView
      me={session.operatorId}
      login={session.login}
      publicName={session.publicName}
      demo={session.demo}
      owner={owner}
      channel={session.channelName}
      sessions={sessions.map(({ tokenHash, ...s }) => ({ ...s, here: tokenHash === session.tokenHash }))}
      operators={operators}
      invites={invites}
    />
  );
}
