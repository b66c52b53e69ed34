import { redirect } from "next/navigation";
import type { ReactNode } from "react";
import { currentSession } from "../../server/web/http";
import { Hands } from "../_frame/hands";
import { Providers } from "../_frame/providers";
import { SkipLink } from "../_frame/skip-link";
import { TopBar } from "../_frame/top-bar";

export default async function OperatorLayout({ children }: { children: ReactNode }) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  return (
    <Providers>
      <SkipLink />
      <TopBar channel={session.channelName} login={session.login} role={session.role} />
      <main id="content" data-region="" tabIndex={-1} style={{ outline: "none" }}>
        {children}
      </main>
      <Hands />
    </Providers>
  );
}
