import { fillTemplate } from "../../words/template";
import type { Order } from "../../module/order";
import { type At, type Outcome } from "./outcome";
import { type ReplyKey, replyKeys } from "./replies";
import type { RaffleSettings } from "./settings";

/** A text of the draw's own where somebody wrote one, else the usual words. */
export const inOwnWords = (
  settings: RaffleSettings,
  key: ReplyKey,
  values: Readonly<Record<string, string | number>>,
  usual: string,
): string => {
  const own = settings.replies[key] ?? "";
  return own === "" ? usual : fillTemplate(own, values);
};

/** What came of it is told to who asked, as far as the settings say so. */
export function answered(at: At, to: string, outcome: Outcome): Outcome {
  const settings = at.durable.round?.settings ?? at.settings;
  const [note] = outcome.notes;
  if (note === undefined || settings.answers === "nothing" || (settings.answers === "refusals" && note.refusal === undefined))
    return outcome;
  const code = (note.refusal?.code ?? note.did ?? "").replace("raffle/", "");
  const key = replyKeys.find((k) => k === code);
  const own = key === undefined ? "" : (settings.replies[key] ?? "");
  // Facts are texts and numbers of the draw's own notes.
  const facts = { ...(note.refusal?.facts ?? note.facts) } as Record<string, string | number>;
  const order: Order = own === "" ? { do: "answer", to, note } : { do: "say", text: `@${to} ${fillTemplate(own, facts)}` };
  return { ...outcome, orders: [...(outcome.orders ?? []), order] };
}
