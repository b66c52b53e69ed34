import type { ReactNode } from "react";
import { Providers } from "../_frame/providers";

export default function Layout({ children }: { children: ReactNode }) {
  return <Providers>{children}</Providers>;
}
