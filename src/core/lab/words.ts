import type { Refusal } from "../kernel/refusal";

/** What the odds lab can't do, in words. */
export function labRefusalInWords({ code, facts }: Refusal): string {
  switch (code) {
    case "lab/unknown":
      return "this question is not there any more";
    case "lab/gone":
      return "what is asked about is not there any more, or its settings can’t be read; bring it back under Prepare, or remove the question";
    case "lab/unreadable":
      return "this version of Izzam can’t read the question; ask it anew";
    case "lab/input":
    case "lab/setting":
      return `it can’t be asked so: ${String(facts["why"]).replace(/\.$/, "")}`;
    case "lab/no-setting":
      return "the setting that is asked about is not there any more; choose another";
    case "lab/no-shows":
      return "no show has left a log to learn from yet; ask about a ready-made evening, or come back after the first show";
    case "lab/no-chat":
      return "the chat from outside that it is asked about was removed; bring it back under Rehearsal, or ask about another evening";
    case "lab/too-many":
      return `there are ${String(facts["most"])} questions already; remove one first`;
    case "lab/too-many-wait":
      return `too many questions wait for their answer, ${String(facts["most"])}; let some be answered first`;
    case "lab/stopped":
      return "stopped before an evening was played";
    case "lab/broken":
      return "an evening of it could not be played to its end, so there is no answer; the log of Izzam says why";
    default:
      return code;
  }
}
