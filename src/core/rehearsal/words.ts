import type { Refusal } from "../kernel/refusal";

/** What a rehearsal can't do, and why one is over, in words. */
export function rehearsalRefusalInWords({ code, facts }: Refusal): string {
  switch (code) {
    case "rehearsal/unknown":
      return "this rehearsal is not there any more: it ended some time ago, or Izzam was restarted; nothing of it was kept";
    case "rehearsal/over":
      return "this rehearsal is over; begin another";
    case "rehearsal/show-runs":
      return "the show is on, and the picture, the chat and this machine are its; rehearse when it has ended";
    case "rehearsal/too-many":
      return `there are ${String(facts["most"])} rehearsals running already; end one first`;
    case "rehearsal/one-begins":
      return "one is being made ready just now; try again in a moment";
    case "rehearsal/overlays-lent":
      return `the overlays show the rehearsal of ${String(facts["by"])}; begin without them, or let that one give them back`;
    case "rehearsal/minute":
      return `that show is over by then: it lasted ${String(facts["most"])} minutes`;
    case "rehearsal/no-file":
      return "this chat log is not there any more; bring it in again";
    case "rehearsal/gave-way":
      return "the show began, so the rehearsal gave way: picture, chat and machine are the show’s";
    case "rehearsal/played":
      return "all that was written down has been played";
    case "rehearsal/long":
      return "no rehearsal is longer than 26 hours";
    case "rehearsal/lonely":
      return "nobody looked at it for half an hour";
    case "rehearsal/gone":
      return "its channel does not run here any more";
    case "rehearsal/broken":
      return "something in it failed; the log of Izzam says what";
    default:
      return code;
  }
}
