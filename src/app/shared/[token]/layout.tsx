import type { ReactNode } from "react";
import "../../c/[channel]/shop.css";
import "../shared.css";

export default function SharedLayout({ children }: { children: ReactNode }) {
  return <div className="shop">{children}</div>;
}
