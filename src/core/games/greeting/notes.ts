import type { Note } from "../../module/module";
import { ordinal } from "../../words/sentence";

const lists: Readonly<Record<string, string>> = {
  fresh: "as somebody new",
  away: "as somebody who was away",
  moderator: "as a moderator",
  guest: "as a guest",
  member: "as a member",
  own: "with their own entrance",
};

export function greetingNoteInWords({ refusal: why, did, count, subject = "", facts = {} }: Note): string {
  if (why !== undefined) {
    const name = String(why.facts["name"] ?? "");
    switch (why.code) {
      case "greeting/off":
        return "greetings are switched off";
      case "greeting/ignored":
        return "not greeted: the name is on the list of those who are not";
      case "greeting/streamer":
        return "not greeted: it is the streamer’s own channel";
      case "greeting/no-line":
        return "not greeted: no list that applies has a line";
      case "greeting/unknown":
        return name === "" ? "nobody was named" : `nobody called ${name} is known here`;
      case "greeting/nothing-shown":
        return "nobody is being greeted just now";
      case "greeting/nobody-waits":
        return "nobody waits to be greeted";
      case "greeting/not-greeted":
        return name === "" ? "nobody was named" : `${name} was not greeted in this show`;
      case "greeting/entrances-full":
        return `there are ${String(why.facts["most"])} entrances, and no more are kept`;
      case "greeting/no-picture":
        return "the picture is not there any more";
      case "greeting/no-sound":
        return "the sound is not there any more";
      case "greeting/empty-entrance":
        return "an entrance needs a line, a picture or a sound";
      case "greeting/no-entrance":
        return name === "" ? "there is no entrance to take away" : `${name} has no entrance of their own`;
      case "greeting/already-on":
        return "greetings are on already";
      case "greeting/already-off":
        return "greetings are off already";
      default:
        return why.code;
    }
  }
  switch (did) {
    case "greeting/greeted":
      return `${subject} is greeted ${lists[String(facts["list"])] ?? "like everybody"}: “${String(facts["line"] ?? "")}” (${ordinal(count)} show)`;
    case "greeting/with-raid":
      return `${subject} is greeted together with all who came with ${String(facts["raider"])}`;
    case "greeting/skipped":
      return `the greeting of ${subject} was ended`;
    case "greeting/cleared":
      return "who waited to be greeted was dropped";
    case "greeting/forgot-all":
      return "it was forgotten who was greeted: whoever writes next is greeted again";
    case "greeting/forgot":
      return `${subject} is greeted again with their next word`;
    case "greeting/entrance-given":
      return `${subject} has an entrance of their own now`;
    case "greeting/entrance-taken":
      return `the entrance of ${subject} was taken away`;
    case "greeting/switched-on":
      return "greetings were switched on";
    case "greeting/switched-off":
      return "greetings were switched off";
    default:
      return "";
  }
}

export function greetingNoteInShort({ did, facts = {} }: Note): string | null {
  if (did === "greeting/greeted") return String(facts["list"]) === "fresh" ? "greeted: new" : "greeted";
  return did === "greeting/with-raid" ? "came with the raid" : null;
}
