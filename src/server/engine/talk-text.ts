import { moneyInWords } from "../../core/signals/money-words";
import type { Signal } from "../../core/signals/signal";
import { count, counted, ordinal } from "../../core/words/sentence";

/** What a signal says, or how much of what it is: told beside the name in the talk. */
export function talkText(signal: Signal): string {
  switch (signal.kind) {
    case "message":
      return signal.text;
    case "follow":
      return "followed";
    case "membership":
      return signal.months > 1 ? `joined for month ${count(signal.months)}` : "joined as a member";
    case "gift":
      return `gave ${counted(signal.count, "membership")} away`;
    case "tip":
      return `tipped ${moneyInWords(signal.amountMinor, signal.currency)}${signal.text === "" ? "" : ` “${signal.text}”`}`;
    case "reaction":
      return `sent ${count(signal.count)} ${signal.reaction}`;
    case "raid":
      return `raided with ${count(signal.viewers)}`;
    case "host":
      return `hosts with ${count(signal.viewers)}`;
    case "arrival":
      // Asked about, and not told yet for the how-manieth time: what came of it stands beside it.
      if (signal.shows === 0) return "is here";
      return signal.shows === 1 ? "is here for the first time" : `is here for the ${ordinal(signal.shows)} time`;
    case "purchase-request":
      return "on the viewer page";
    case "here":
      return "";
    case "purchase":
      return `bought “${signal.title}” on the platform${signal.text === "" ? "" : `: ${signal.text}`}`;
    case "redemption":
      return `bought ${signal.reward} for ${count(signal.price)}`;
    case "forecast":
      return `On the platform: “${signal.title}”: ${signal.state}`;
    case "live":
      return "The platform says: live";
    case "ended":
      return "The platform says: ended";
    case "cue":
    case "command":
    case "timer":
    case "happened":
      return "";
  }
}
