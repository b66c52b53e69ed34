import type { Reason } from "./ledger";

/** Why points came or went, for whoever looks at a history. */
const words: Readonly<Record<Reason, string>> = {
  presence: "for being there",
  signal: "earned",
  gift: "between viewers",
  adjusted: "corrected",
  bought: "bought",
  asked: "asked for",
  done: "done",
  refunded: "given back",
  opening: "brought along",
  merged: "from another name",
  staked: "put in",
  won: "won",
  reversed: "taken back",
  repaid: "paid back",
};
const signals: Readonly<Record<string, string>> = {
  follow: "for following",
  membership: "for membership",
  gift: "for memberships given away",
  tip: "for a tip",
  reaction: "for paid reactions",
  raid: "for a raid",
  host: "for hosting",
};

export function historyInWords(reason: Reason, about: string): string {
  if (reason === "signal") return signals[about] ?? words.signal;
  if (reason === "presence") return words.presence;
  return about === "" ? words[reason] : `${words[reason]}: ${about}`;
}
