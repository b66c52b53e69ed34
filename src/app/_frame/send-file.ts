"use client";
import { tooLargeInWords } from "../../core/props/sizes";
import { sendForm } from "../../ui/send-form";
import { type Answer, answerOf, noAnswer } from "./call";

type How = Readonly<{
  method?: "POST" | "PUT";
  /** A larger file is not sent at all. */
  most: number;
  onShare?: (share: number) => void;
  signal?: AbortSignal;
}>;

/** `call` for a file, with its progress. Never throws; null when the operator cancelled it. */
export async function sendFile<T>(path: string, file: File, { most, ...how }: How): Promise<Answer<T> | null> {
  if (file.size > most) return { ok: false, code: "file/too-large", words: tooLargeInWords(most), facts: {} };
  const sent = await sendForm(`/api${path}`, "file", file, how);
  if (sent === "cancelled") return null;
  return sent === "no-answer" ? noAnswer : answerOf<T>(sent.answer);
}
