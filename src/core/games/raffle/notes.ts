import type { Note } from "../../module/module";
import { count, counted } from "../../words/sentence";

type Facts = Readonly<Record<string, unknown>>;
const n = (facts: Facts, key: string): number => Number(facts[key] ?? 0);
const refusals: Readonly<Record<string, (facts: Facts) => string>> = {
  "raffle/off": () => "the draw is switched off",
  "raffle/already-on": () => "the draw is on already",
  "raffle/already-off": () => "the draw is off already",
  "raffle/not-open": () => "nothing is open to enter",
  "raffle/late": (f) => `it was locked ${count(n(f, "seconds"))} s before your message`,
  "raffle/clearing": () => "everybody is being taken out just now: try again in a moment",
  "raffle/role": () => "this draw is not for everybody",
  "raffle/barred": () => "you can’t enter this channel’s draws",
  "raffle/won-lately": (f) =>
    `you won lately: again in ${n(f, "shows") > 0 ? counted(n(f, "shows"), "show") : counted(n(f, "days"), "day")}`,
  "raffle/not-chatted": (f) => `only who wrote within the last ${counted(n(f, "minutes"), "minute")} can enter`,
  "raffle/no-room": () => "the draw is full",
  "raffle/full": (f) => (n(f, "most") === 1 ? "you are in already" : `you hold all ${count(n(f, "most"))} tickets`),
  "raffle/how-many": (f) => `say how many: 1 to ${count(n(f, "most"))}`,
  "raffle/say-number": (f) => `say a number from ${count(n(f, "from"))} to ${count(n(f, "to"))}`,
  "raffle/no-number": (f) => `that is no number: say one from ${count(n(f, "from"))} to ${count(n(f, "to"))}`,
  "raffle/number-range": (f) => `the numbers go from ${count(n(f, "from"))} to ${count(n(f, "to"))}`,
  "raffle/no-tries": (f) => `you named ${count(n(f, "guess"))}, and that stands`,
  "raffle/too-poor": (f) => `that costs ${count(n(f, "price"))} ${String(f["points"])}, and you have ${count(n(f, "has"))}`,
  "raffle/open-already": () => "it is open already",
  "raffle/locked-already": () => "it is locked already",
  "raffle/not-locked": () => "lock it first",
  "raffle/shaking": () => "the drum is being shaken: wait a moment",
  "raffle/not-in-yet": (f) => `you are not in: write ${String(f["word"])}`,
  "raffle/no-chance-said": (f) => `you named ${count(n(f, "guess"))}: whoever is nearest to the number wins`,
  "raffle/no-viewer": () => "nobody is there to be put in: this is for what a viewer does",
  "raffle/undrawn": () => "nobody was drawn: close it again within 20 s to end it so",
  "raffle/nobody-there": (f) => `nobody wrote within the last ${counted(n(f, "minutes"), "minute")}`,
  "raffle/nobody-on-top": (f) => `nobody has ${String(f["points"])} yet`,
  "raffle/too-many-barred": () => "500 are barred, and no more can be: let somebody in again first",
  "raffle/decided-already": () => "that was decided already",
  "raffle/no-prize": () => "that prize is not on the list any more",
  "raffle/none": () => "no draw is under way",
  "raffle/drawn-already": () => "a winner was drawn, so this draw can only be closed",
  "raffle/all-drawn": () => "all winners are drawn",
  "raffle/nobody": () => "nobody is in",
  "raffle/not-in": (f) => `${String(f["viewer"])} is not in`,
  "raffle/nobody-added": () => "nobody of these could be added: they are in already, or barred",
  "raffle/secret-lost": () => "the secret of this draw can’t be read any more: cancel it, and points go back",
};

export function raffleNoteInWords({ refusal: why, did, count: c, subject = "", facts = {} }: Note): string {
  if (why !== undefined) return Object.hasOwn(refusals, why.code) ? (refusals[why.code]?.(why.facts) ?? why.code) : why.code;
  switch (did) {
    case "raffle/opened":
      return `${subject} was opened`;
    case "raffle/entered":
      return n(facts, "most") === 1 ? "you are in" : `ticket ${count(n(facts, "tickets"))} of ${count(n(facts, "most"))}`;
    case "raffle/guessed":
      return `${count(n(facts, "guess"))} it is`;
    case "raffle/shook":
      return `${subject} shook the drum`;
    case "raffle/shaken":
      return c === 0 ? "nobody shook the drum" : `${counted(c, "viewer")} shook the drum`;
    case "raffle/locked":
      return `locked with ${counted(c, "viewer")} and ${counted(n(facts, "tickets"), "ticket")}`;
    case "raffle/drawn":
      return `${subject} was drawn${facts["prize"] === "" ? "" : ` for ${String(facts["prize"])}`}`;
    case "raffle/claimed":
      return `${subject} claimed it`;
    case "raffle/chance":
      return `your chance is ${String(facts["chance"])}, with ${counted(n(facts, "tickets"), "ticket")}`;
    case "raffle/was-barred":
      return `${subject} is barred`;
    case "raffle/unbarred":
      return `${subject} may enter again`;
    case "raffle/passed-over":
      return `${subject} was passed over`;
    case "raffle/prize":
      return `${subject}: ${String(facts["state"])}`;
    case "raffle/passed":
      return `${subject} did not answer in time`;
    case "raffle/closed":
      return `${subject} was closed with ${counted(c, "winner")}`;
    case "raffle/cancelled":
      return "the draw was cancelled; points that were paid go back";
    case "raffle/cleared":
      return `${counted(c, "viewer")} ${c === 1 ? "is" : "are"} taken out; points that were paid go back`;
    case "raffle/removed":
      return `${subject} was taken out${n(facts, "paid") > 0 ? `; ${count(n(facts, "paid"))} went back` : ""}`;
    case "raffle/added":
      return `${counted(c, "viewer")} ${c === 1 ? "was" : "were"} added${n(facts, "left") > 0 ? `; ${count(n(facts, "left"))} left out` : ""}`;
    case "raffle/rules-told":
      return "chat was told the rules";
    case "raffle/switched-on":
      return "the draw was switched on";
    case "raffle/switched-off":
      return "the draw was switched off";
    default:
      return "";
  }
}

export function raffleNoteInShort({ refusal: why, did, count: c, subject = "", facts = {} }: Note): string | null {
  if (why !== undefined) return why.code === "raffle/late" ? `${count(n(why.facts, "seconds"))} s late` : null;
  switch (did) {
    case "raffle/entered":
      return `ticket ${count(n(facts, "tickets"))} of ${count(n(facts, "most"))}`;
    case "raffle/guessed":
      return `says ${count(n(facts, "guess"))}`;
    case "raffle/shook":
      return `shook, ${count(c)}`;
    case "raffle/drawn":
      return `${subject.slice(0, 24)} was drawn`;
    case "raffle/claimed":
      return "claimed";
    default:
      return null;
  }
}
