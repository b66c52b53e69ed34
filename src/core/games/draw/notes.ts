import type { Note } from "../../module/module";
import { count, counted } from "../../words/sentence";

type Facts = Readonly<Record<string, unknown>>;
const n = (facts: Facts, key: string): number => Number(facts[key] ?? 0);
const refusals: Readonly<Record<string, (facts: Facts) => string>> = {
  "draw/off": () => "the draw is switched off",
  "draw/already-on": () => "the draw is on already",
  "draw/already-off": () => "the draw is off already",
  "draw/not-open": () => "nothing is open to enter",
  "draw/late": (f) => `it was locked ${count(n(f, "lateS"))} s before your message`,
  "draw/clearing": () => "everybody is being taken out just now: try again in a moment",
  "draw/role": () => "this draw is not for everybody",
  "draw/barred": () => "you can’t enter this channel’s draws",
  "draw/won-lately": (f) => `you won lately: again in ${counted(n(f, "shows"), "show")}`,
  "draw/not-chatted": (f) => `only who wrote within the last ${counted(n(f, "minutes"), "minute")} can enter`,
  "draw/no-room": () => "the draw is full",
  "draw/full": (f) => (n(f, "most") === 1 ? "you are in already" : `you hold all ${count(n(f, "most"))} tickets`),
  "draw/how-many": (f) => `say how many: 1 to ${count(n(f, "most"))}`,
  "draw/say-number": (f) => `say a number from ${count(n(f, "from"))} to ${count(n(f, "to"))}`,
  "draw/no-number": (f) => `that is no number: say one from ${count(n(f, "from"))} to ${count(n(f, "to"))}`,
  "draw/number-range": (f) => `the numbers go from ${count(n(f, "from"))} to ${count(n(f, "to"))}`,
  "draw/no-tries": (f) => `you named ${count(n(f, "guess"))}, and that stands`,
  "draw/too-poor": (f) => `that costs ${count(n(f, "price"))} ${String(f["name"])}, and you have ${count(n(f, "has"))}`,
  "draw/open-already": () => "it is open already",
  "draw/locked-already": () => "it is locked already",
  "draw/not-locked": () => "lock it first",
  "draw/shaking": () => "the drum is being shaken: wait a moment",
  "draw/none": () => "no draw is under way",
  "draw/all-drawn": () => "all winners are drawn",
  "draw/nobody": () => "nobody is in",
  "draw/not-in": (f) => `${String(f["viewer"])} is not in`,
  "draw/nobody-added": () => "nobody of these could be added: they are in already, or barred",
  "draw/secret-lost": () => "the secret of this draw can’t be read any more: cancel it, and points go back",
};

export function drawNoteInWords({ refusal: why, did, count: c, subject = "", facts = {} }: Note): string {
  if (why !== undefined) return Object.hasOwn(refusals, why.code) ? (refusals[why.code]?.(why.facts) ?? why.code) : why.code;
  switch (did) {
    case "draw/opened":
      return `${subject} was opened`;
    case "draw/entered":
      return n(facts, "most") === 1 ? "you are in" : `ticket ${count(n(facts, "tickets"))} of ${count(n(facts, "most"))}`;
    case "draw/guessed":
      return `${count(n(facts, "guess"))} it is`;
    case "draw/shook":
      return `${subject} shook the drum`;
    case "draw/shaken":
      return c === 0 ? "nobody shook the drum" : `${counted(c, "viewer")} shook the drum`;
    case "draw/locked":
      return `locked with ${counted(c, "viewer")} and ${counted(n(facts, "tickets"), "ticket")}`;
    case "draw/drawn":
      return `${subject} was drawn${facts["prize"] === "" ? "" : ` for ${String(facts["prize"])}`}`;
    case "draw/claimed":
      return `${subject} claimed it`;
    case "draw/passed":
      return `${subject} did not answer in time`;
    case "draw/closed":
      return `${subject} was closed with ${counted(c, "winner")}`;
    case "draw/cancelled":
      return "the draw was cancelled; points that were paid go back";
    case "draw/cleared":
      return `${counted(c, "viewer")} ${c === 1 ? "is" : "are"} taken out; points that were paid go back`;
    case "draw/removed":
      return `${subject} was taken out${n(facts, "paid") > 0 ? `; ${count(n(facts, "paid"))} went back` : ""}`;
    case "draw/added":
      return `${counted(c, "viewer")} ${c === 1 ? "was" : "were"} added${n(facts, "left") > 0 ? `; ${count(n(facts, "left"))} left out` : ""}`;
    case "draw/rules-told":
      return "chat was told the rules";
    case "draw/switched-on":
      return "the draw was switched on";
    case "draw/switched-off":
      return "the draw was switched off";
    default:
      return "";
  }
}
