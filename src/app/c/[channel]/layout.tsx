import type { ReactNode } from "react";
import "./shop.css";

/** The viewer page stands without the operator side's component library, so that it is light on a phone. */
export default function ViewerLayout({ children }: { children: ReactNode }) {
  return <div className="shop">{children}</div>;
}
