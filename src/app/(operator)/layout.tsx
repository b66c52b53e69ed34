import { redirect } from "next/navigation";
import type { ReactNode } from "react";
import { allGames } from "../../core/games/registry";
import { currentSession } from "../../server/web/http";
import { Follow } from "../_frame/follow";
import { Hands } from "../_frame/hands";
import { Providers } from "../_frame/providers";
import { SkipLink } from "../_frame/skip-link";
import { TopBar } from "../_frame/top-bar";

export default async function OperatorLayout({ children }: { children: ReactNode }) {
  const session = await currentSession();
  if (session === null) redirect("/sign-in");
  // Here on the server, so that no page need know every game for its search.
  const kinds = allGames()
    .map((game) => game.name)
    .join(" ");
  return (
    <Providers>
      <SkipLink />
      <Follow />
      <TopBar channel={session.channelName} login={session.login} role={session.role} />
      <main id="content" data-region="" tabIndex={-1} style={{ outline: "none" }}>
        {children}
      </main>
      <Hands kinds={kinds} />
    </Providers>
  );
}
