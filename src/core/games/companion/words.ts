import type { Note } from "../../module/module";
import { blanksOf, say } from "../../words/blanks";
import { counted, type Sentence } from "../../words/sentence";
import { type CompanionSettings, companionSettingsSchema } from "./settings";

export function companionSentences(s: CompanionSettings): readonly Sentence[] {
  const { whole, time, toggle } = blanksOf(companionSettingsSchema, s);
  const yes = (path: Parameters<typeof toggle>[0], label: string, thing: string) => toggle(path, label, thing, `not ${thing}`);
  return [
    say(
      "hello",
      s.hello.length === 0
        ? `${s.name} greets nobody: no line is written.`
        : `${s.name} greets whoever writes for the first time in a show, in ${counted(s.hello.length, "line")} that do not come again until all were said.`,
    ),
    say("words", s.answers.length === 0 ? "It answers no word of chat." : `It answers ${s.answers.map((a) => `“${a.word}”`).join(", ")}.`),
    say(
      "cheers",
      "It cheers at: ",
      yes("cheers.follow", "Whether follows", "follows"),
      ", ",
      yes("cheers.membership", "Whether memberships", "memberships"),
      ", ",
      yes("cheers.gift", "Whether gifts", "gifts"),
      ", ",
      yes("cheers.tip", "Whether tips", "tips"),
      ", ",
      yes("cheers.luck", "Whether luck in other games", "somebody’s luck in another game"),
      ".",
    ),
    say(
      "startles",
      "It jumps at: ",
      yes("startles.raid", "Whether raids", "raids"),
      ", ",
      yes("startles.blow", "Whether heavy blows", "heavy blows in other games"),
      ".",
    ),
    say("bubble", "What it says stands there for ", time("bubbleMs", "Seconds of a bubble"), "."),
    s.sleepMin === 0
      ? say("sleep", "It never falls asleep by itself: it would after ", whole("sleepMin", "Quiet minutes"), " quiet minutes.")
      : say("sleep", "It falls asleep after ", whole("sleepMin", "Quiet minutes"), " quiet minutes, and wakes with the next word."),
    say(
      "mood",
      "Its mood falls by ",
      whole("moodPerHour", "Mood lost in an hour"),
      " of a hundred in an hour of show; food gives it back.",
    ),
    say(
      "walks",
      toggle("walks", "Whether it walks about", "It walks about", "It stays where it is"),
      ", and ",
      toggle("dances", "Whether it dances to sounds", "dances while a sound plays", "does not dance to sounds"),
      ".",
    ),
  ];
}
export const companionToViewers = (s: CompanionSettings): readonly string[] =>
  s.answers.filter((a) => a.roles.includes("viewer")).length === 0
    ? [`${s.name} lives on the picture.`]
    : [`${s.name} lives on the picture, and answers ${s.answers.flatMap((a) => (a.roles.includes("viewer") ? [a.word] : [])).join(", ")}.`];

export function companionNoteInWords({ refusal: why, did, subject = "it", facts = {} }: Note): string {
  if (why !== undefined) {
    switch (why.code) {
      case "companion/off":
        return "the companion is switched off";
      case "companion/busy":
        return "it has enough to do just now";
      case "companion/role":
        return "this word is for others";
      case "companion/rests":
        return `not yet: it answers that again in ${String(why.facts["freeInS"])} s`;
      case "companion/dancing-already":
        return "it is dancing already";
      case "companion/not-dancing":
        return "it is not dancing";
      case "companion/asleep-already":
        return "it sleeps already";
      case "companion/already-on":
        return "the companion is on already";
      case "companion/already-off":
        return "the companion is off already";
      default:
        return why.code;
    }
  }
  const name = subject === "" ? "it" : subject;
  switch (did) {
    case "companion/greets":
      return `${name} says hello`;
    case "companion/cheers":
      return `${name} cheers`;
    case "companion/startles":
      return `${name} jumps`;
    case "companion/answers":
      return `${name} answers`;
    case "companion/does":
      return `${name} does what it was asked`;
    case "companion/eats":
      return `${name} eats; its mood is ${String(facts["mood"] ?? "")}`;
    case "companion/dances":
      return `${name} dances until told otherwise`;
    case "companion/calms":
      return `${name} stops dancing`;
    case "companion/sleeps":
      return `${name} falls asleep`;
    case "companion/wakes":
      return `${name} wakes up`;
    case "companion/switched-on":
      return "the companion was switched on";
    case "companion/switched-off":
      return "the companion was switched off";
    default:
      return "";
  }
}
export const companionNoteInShort = ({ did, subject = "" }: Note): string | null =>
  did === "companion/greets" ? `${subject} said hello` : did === "companion/eats" ? `${subject} was fed` : null;
