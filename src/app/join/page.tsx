import type { Metadata } from "next";
import { Join } from "./join";

export const metadata: Metadata = { title: "Join as a moderator" };

export default function JoinPage() {
  return <Join />;
}
