import type { Note } from "../../module/module";
import { blanksOf, say } from "../../words/blanks";
import { counted, rolesInWords, seconds, type Sentence } from "../../words/sentence";
import { type VoicesSettings, voicesSettingsSchema } from "./settings";

const hows = { spoken: "spoken", shown: "shown on the picture", both: "spoken, and shown on the picture" };

export function voicesSentences(s: VoicesSettings, home: string): readonly Sentence[] {
  const { whole, time, toggle, choice, money, roles } = blanksOf(voicesSettingsSchema, s);
  const words = s.words.map((w) => `“${w.word}”`).join(", ");
  return [
    say(
      "what",
      toggle(
        "every",
        "Whether every message counts",
        "Every message",
        s.words.length === 0 ? "No message" : `A message that begins with ${words}`,
      ),
      s.every && s.words.length > 0 ? `, and what begins with ${words},` : "",
      " of ",
      roles("roles", "Whose messages"),
      " is ",
      choice("how", "Spoken or shown", hows),
      ".",
    ),
    s.tipLeast === 0
      ? say("tips", "Texts of tips are not: from ", money("tipLeast", "Least tip", home), " on they would be.")
      : say(
          "tips",
          "So is the text of a tip of at least ",
          money("tipLeast", "Least tip", home),
          ", and what rules, rewards and cues order.",
        ),
    say(
      "rests",
      "One viewer waits ",
      time("ownRestMs", "Pause of one viewer"),
      " until their next, all together ",
      time("sharedRestMs", "Pause of all"),
      ".",
    ),
    say(
      "long",
      "Of what is longer than ",
      whole("mostLetters", "Most letters"),
      " letters ",
      choice("tooLong", "What is too long", { refused: "nothing is read", cut: "what stands before is read, to the end of a sentence" }),
      ".",
    ),
    say(
      "lane",
      "One after another, with ",
      time("gapMs", "Pause between two"),
      " between; at most ",
      whole("mostWaiting", "How many may wait"),
      " wait. Each waits ",
      time("delayMs", "Time before it is said"),
      " first, and ",
      toggle("approve", "Whether somebody must say yes", "until somebody lets it through", "is then said by itself"),
      ".",
    ),
    say("named", toggle("named", "Whether names are said", "“Name says” comes first", "Names are not said"), "."),
    say(
      "clean",
      "Addresses ",
      choice("links", "Addresses", { word: "become “a link”", nothing: "are left out" }),
      ", emotes ",
      choice("emotes", "Emotes", { word: "are said by their words", once: "are said once each", nothing: "are left out" }),
      ", emoji ",
      choice("emoji", "Emoji", { name: "are said by their names", nothing: "are left out" }),
      ". Texts with a hidden word are left out whole.",
    ),
  ];
}
export function voicesToViewers(s: VoicesSettings): readonly string[] {
  const words = s.words.map((w) => `“${w.word}”`).join(" or ");
  const who = s.roles.includes("viewer") ? "" : ` of ${rolesInWords(s.roles)}`;
  const lines = s.every
    ? [`Every message${who} is ${hows[s.how]}.`]
    : s.words.length === 0
      ? ["What rewards and the channel order is spoken."]
      : [`Begin a message${who} with ${words}, and it is ${hows[s.how]}.`];
  if (s.ownRestMs > 0) lines.push(`Once every ${seconds(s.ownRestMs)}.`);
  return lines;
}

export function voicesNoteInWords({ refusal: why, did, subject = "", facts = {} }: Note): string {
  const who = subject === "" ? "a text" : `what ${subject} wrote`;
  if (why !== undefined) {
    const name = String(why.facts["name"] ?? "");
    switch (why.code) {
      case "voices/off":
        return "voices are switched off";
      case "voices/role":
        return "not spoken: it is for others here";
      case "voices/hidden":
        return "not spoken: there is a word in it that is never said";
      case "voices/empty":
        return "not spoken: nothing is left to say";
      case "voices/own-rest":
        return `not yet: once more in ${String(why.facts["freeInS"])} s`;
      case "voices/shared-rest":
        return `not yet: somebody else was just heard; in ${String(why.facts["freeInS"])} s`;
      case "voices/too-long":
        return `too long to be read: ${String(why.facts["letters"])} letters, and ${String(why.facts["most"])} are read`;
      case "voices/full":
        return `${counted(Number(why.facts["most"]), "text")} may wait, and no more`;
      case "voices/engine":
        return `the voice could not speak${name === "" ? "" : ` what ${name} wrote`}; it was skipped`;
      case "voices/nothing-said":
        return "nothing is being said just now";
      case "voices/nothing-waits":
        return "nothing waits to be said";
      case "voices/decided-already":
        return "this was decided already, or said";
      case "voices/held-already":
        return "voices are held already";
      case "voices/not-held":
        return "voices are not held";
      case "voices/unknown":
        return name === "" ? "nobody was named" : `nobody called ${name} is known here`;
      case "voices/no-voice":
        return `there is no voice called ${String(why.facts["voice"])}`;
      case "voices/too-many-own":
        return `there are ${String(why.facts["most"])} voices of viewers’ own, and no more are kept`;
      case "voices/already-on":
        return "voices are on already";
      case "voices/already-off":
        return "voices are off already";
      default:
        return why.code;
    }
  }
  switch (did) {
    case "voices/taken":
      return `${who} waits to be said`;
    case "voices/asks":
      return `${who} waits for somebody’s yes`;
    case "voices/said":
      return `${who} is said`;
    case "voices/skipped":
      return `${who} was skipped`;
    case "voices/cleared":
      return "what waited to be said was dropped";
    case "voices/dropped":
      return `${who} was dropped`;
    case "voices/approved":
      return `${who} was let through`;
    case "voices/held":
      return "voices are held: nothing more begins";
    case "voices/goes-on":
      return "voices go on";
    case "voices/given":
      return facts["voice"] === ""
        ? `${subject} speaks in the usual voice again`
        : `${subject} speaks in the voice ${String(facts["voice"])} from now on`;
    case "voices/switched-on":
      return "voices were switched on";
    case "voices/switched-off":
      return "voices were switched off";
    default:
      return "";
  }
}
export const voicesNoteInShort = ({ did }: Note): string | null =>
  did === "voices/taken" ? "to be said" : did === "voices/asks" ? "asks for a yes" : did === "voices/said" ? "said" : null;
