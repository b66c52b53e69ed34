import { mostViewerFilmBytes, tooLargeInWords } from "../../../core/props/sizes";
import { sendForm } from "../../../ui/send-form";
import { purchaseRequestOf } from "./purchase-request";

type Said = Readonly<{ ok: boolean; value?: { words: string }; words?: string; refusal?: { code: string } }>;

/** Said by what stands before a request's turn: the door, a limit, a process that is away or starting. */
const beforeItsTurn = /^(access|address|channel|engine|store|web|sign-in|input|defect)(\/|$)|^viewer\/not-proven$/;

/**
 * Whether this is the answer to this very request: it was done, or its own turn refused it. Everything else says nothing
 * of an earlier try, which may have been written: the next one is the same request then, so that nobody pays twice.
 */
export const isDefinite = (status: number, answer: Said): boolean =>
  answer.ok ? status === 200 : status < 500 && answer.refusal !== undefined && !beforeItsTurn.test(answer.refusal.code);

/** Sends what a viewer does; the same request again while no answer came. Whether it went through; what came of it is said. */
export async function send(
  channel: string,
  where: "buy" | "act",
  about: string,
  body: Readonly<Record<string, unknown>>,
  say: (words: string, good: boolean) => void,
): Promise<boolean> {
  const request = purchaseRequestOf(channel, about);
  try {
    const response = await fetch(`/api/viewer/${channel}/${where}`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ ...body, id: request.id }),
    });
    const answer = (await response.json()) as Said;
    if (isDefinite(response.status, answer)) request.answered();
    say(answer.ok ? (answer.value?.words ?? "") : (answer.words ?? "That did not work."), answer.ok);
    return answer.ok;
  } catch {
    say("No answer came, so it may or may not be paid. Try again: you hear what came of it, and it is never paid twice.", false);
    return false;
  }
}

/** Sends a film ahead, by whose hash it is asked for afterwards; null when it was not taken, which is said. */
export async function sendFilm(channel: string, film: File, say: (words: string, good: boolean) => void): Promise<string | null> {
  if (film.size > mostViewerFilmBytes) {
    say(tooLargeInWords(mostViewerFilmBytes), false);
    return null;
  }
  say("Sending the film …", true);
  const onShare = (share: number): void =>
    say(share < 1 ? `Sending the film: ${Math.floor(share * 100)} %` : "The film is looked at …", true);
  const sent = await sendForm(`/api/viewer/${channel}/film`, "film", film, { onShare });
  if (typeof sent === "string") {
    say("No answer came, so the film is not there. Nothing was paid; try again.", false);
    return null;
  }
  // Our own route handlers answer in this shape.
  const answer = sent.answer as { ok: boolean; value?: { source: string }; words?: string };
  if (answer.ok) return answer.value?.source ?? null;
  say(answer.words ?? "The film was not taken.", false);
  return null;
}
