import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { services } from "../../server/web/services";
import { SetUp } from "./set-up";

export const metadata: Metadata = { title: "Set up" };
export const dynamic = "force-dynamic";

export default async function SetUpPage() {
  if (await services().store.accounts.anyOperator()) redirect("/sign-in");
  return <SetUp />;
}
