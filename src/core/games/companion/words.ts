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
