import { drawTicket } from "../../chance/scheme";
import type { Round } from "./settings";

/** The number that was to be guessed, from the secret and the closed list alone; the same however often it is asked for. */
export function targetOf(round: Round, secret: Uint8Array): NonNullable<Round["target"]> {
  const { from, to } = round.settings.number;
  const key = { secret, round: round.id, list: round.listHash, shake: round.shakeHash };
  const drawn = drawTicket(key, 0, to - from + 1);
  // The range is never empty: settings see to it.
  return drawn.ok ? { number: from + drawn.value.ticket, attempts: drawn.value.attempts } : { number: from, attempts: 0 };
}
