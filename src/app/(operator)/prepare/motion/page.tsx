import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { currentSession } from "../../../../server/web/http";
import { MotionWords } from "./motion-words";

export const metadata: Metadata = { title: "How things move" };

export default async function MotionPage() {
  if ((await currentSession()) === null) redirect("/sign-in");
  return <MotionWords />;
}
