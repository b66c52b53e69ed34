import type { Metadata } from "next";
import { cookies, headers } from "next/headers";
import type { ReactNode } from "react";
import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "@fontsource-variable/atkinson-hyperlegible-mono/index.css";
import "@fontsource-variable/bricolage-grotesque/index.css";
import "../fonts/emoji.css";
import { nightByItself, surfaceCookie } from "./_frame/surface-of";

export const metadata: Metadata = {
  title: { default: "Izzam", template: "%s · Izzam" },
  description: "Viewer-driven games on the broadcast picture.",
};

/** Without the operator side's component library: the viewer page, which must be light, brings its own few styles. */
export default async function RootLayout({ children }: { children: ReactNode }) {
  const chosen = (await cookies()).get(surfaceCookie)?.value;
  const night = chosen === undefined ? nightByItself((await headers()).get("x-izzam-path") ?? "") : chosen === "night";
  return (
    <html lang="en" className={night ? "dark" : undefined} suppressHydrationWarning>
      <body>{children}</body>
    </html>
  );
}
