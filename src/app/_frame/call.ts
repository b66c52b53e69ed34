"use client";
import { rehearsalHere } from "./rehearsal-here";

export type Answer<T> =
  Readonly<{ ok: true; value: T }> | Readonly<{ ok: false; code: string; words: string; facts: Readonly<Record<string, unknown>> }>;

/** One action of the operator side. Never throws: what went wrong comes back in words. */
export async function call<T>(method: "GET" | "POST" | "PUT" | "PATCH" | "DELETE", path: string, body: unknown = {}): Promise<Answer<T>> {
  try {
    const form = body instanceof FormData;
    const here = rehearsalHere();
    const where: Record<string, string> = here === "" ? {} : { "x-izzam-rehearsal": here };
    const response = await fetch(`/api${path}`, {
      method,
      ...(method === "GET"
        ? {}
        : form
          ? { body }
          : { body: JSON.stringify(body), headers: { "content-type": "application/json", ...where } }),
    });
    // What is no JSON fails here, and is told below.
    return answerOf<T>(await response.json());
  } catch {
    return noAnswer;
  }
}

/** What a route handler of ours said. */
export function answerOf<T>(json: unknown): Answer<T> {
  const said = json as { ok: boolean; value?: T; refusal?: { code: string; facts: Record<string, unknown> }; words?: string };
  if (said.ok) return { ok: true, value: said.value as T };
  return {
    ok: false,
    code: said.refusal?.code ?? "defect",
    words: said.words ?? "Something went wrong.",
    facts: said.refusal?.facts ?? {},
  };
}
export const noAnswer: Answer<never> = {
  ok: false,
  code: "web/away",
  words: "Izzam does not answer. Check that it is running; what you changed stays on this page.",
  facts: {},
};
