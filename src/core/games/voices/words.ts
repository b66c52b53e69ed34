import { blanksOf, say } from "../../words/blanks";
import { rolesInWords, seconds, type Sentence } from "../../words/sentence";
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
          ", and what rules, rewards and cues order. A text that a game uses, such as the address of a clip, ",
          toggle("taken", "Whether a text that a game uses is read", "is read too", "is not read"),
          ".",
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
      s.tipLeast > 0 && s.links === "word" ? " (in tips they are left out), emotes " : ", emotes ",
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
