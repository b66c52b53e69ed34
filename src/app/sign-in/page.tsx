import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { isLocal } from "../../server/web/cookie";
import { currentSession } from "../../server/web/http";
import { services } from "../../server/web/services";
import { SignIn } from "./sign-in";

export const metadata: Metadata = { title: "Sign in" };

export default async function SignInPage({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  if ((await currentSession()) !== null) redirect("/prepare");
  const { store, env } = services();
  if (!(await store.accounts.anyOperator())) redirect("/set-up");
  return <SignIn demo={env.demo && (await isLocal())} ended={(await searchParams)["ended"] === "1"} practice={env.practiceUrl} />;
}
