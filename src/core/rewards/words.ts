import type { Refusal } from "../kernel/refusal";
import type { Note, NoteWords } from "../module/module";
import { count } from "../words/sentence";

const wait = (s: number): string => (s < 90 ? `${s} s` : s < 5_400 ? `${Math.ceil(s / 60)} min` : `${Math.ceil(s / 3_600)} h`);

/** Why a reward was not sold, for the one who wanted it: one reason, the first that applies. */
export function rewardRefusalInWords({ code, facts }: Refusal): string {
  const name = String(facts["reward"] ?? "this");
  const n = (key: string): string => count(Number(facts[key] ?? 0));
  switch (code) {
    case "reward/off":
      return `${name} is not sold at the moment`;
    case "reward/empty":
      return `${name} does nothing yet, so nobody can buy it`;
    case "reward/hushed":
      return "buying pauses at the moment; nothing was paid";
    case "reward/gone":
      return "this is not sold any more; nothing was paid";
    case "reward/gone-thing":
      return `“${String(facts["reward"])}” can’t be had: it needs a ${String(facts["what"])} that is not there any more`;
    case "reward/game-rests":
      return `${name} needs ${String(facts["game"])}, which is stopped at the moment; nothing was paid`;
    case "reward/near":
      return `did you mean ${String(facts["word"])}?`;
    case "reward/which":
      return `say which: ${String(facts["word"])} and the name`;
    case "reward/no-partner":
      return `“${String(facts["title"])}” was bought on the platform and is tied to no reward here`;
    case "reward/detail":
      return `${name} needs something private that only the owner reads: ${String(facts["asks"])}`;
    case "reward/page-only":
      return `${name} is bought on the viewer page, because it needs something private`;
    case "reward/off-air":
      return `${name} is sold during the show only`;
    case "reward/kept":
      return `${name} is kept for somebody else`;
    case "reward/role":
      return `${name} is not for your role`;
    case "reward/text":
      return `${name} needs a text after its word${facts["asks"] === "" ? "" : `: ${String(facts["asks"])}`}`;
    case "reward/show-limit":
      return `${name} was sold ${Number(facts["most"]) === 1 ? "once" : `${n("most")} times`} in this show; that is all for today`;
    case "reward/own-limit":
      return `${name} is sold to each viewer ${Number(facts["most"]) === 1 ? "once" : `${n("most")} times`} a show`;
    case "reward/sold-out":
      return `${name} is sold out`;
    case "reward/own-rest":
      return `you can have ${name} again in ${wait(Number(facts["freeInS"]))}`;
    case "reward/rest":
      return `${name} is on cooldown for ${wait(Number(facts["freeInS"]))} more`;
    case "reward/dearer":
      return `${name} costs ${n("price")} by now; nothing was paid`;
    case "reward/too-poor":
      return `${name} costs ${n("price")}; you have ${n("has")} ${String(facts["name"] ?? "")}, ${n("lacks")} too few`.replace(" ,", ",");
    case "sale/settled-already":
      return "somebody has settled this already";
    case "sale/unknown":
      return "this sale is not there any more";
    case "sale/decided-by": {
      const who = String(facts["by"] ?? "") || "somebody";
      const did = facts["state"] === "done" ? "did it" : facts["state"] === "refunded" ? "gave its points back" : "made it wait again";
      return `${who} ${did}, a moment ago; nothing was changed`;
    }
    case "sale/refunded-already":
      return "its points were given back already";
    case "sale/not-refunded":
      return "its points were not given back";
    case "sale/spent-since":
      return `${String(facts["viewer"])} has ${n("has")} left, and it costs ${n("price")}`;
    case "sale/rehearsing":
      return "a rehearsal touches no points: decide it when it has ended";
    case "sale/not-done":
      return "it was not done";
    case "sale/done-already":
      return "it was done already";
    case "sale/none-waits":
      return "none of it waits";
    default:
      return code;
  }
}

const left = ({ facts = {} }: Note): string =>
  (facts["code"] === true ? "; its code stands on the viewer page" : "") +
  (typeof facts["left"] === "number" ? `; ${count(facts["left"])} ${String(facts["name"] ?? "")} left` : "");

export function rewardNoteInWords(note: Note): string {
  if (note.refusal !== undefined) return rewardRefusalInWords(note.refusal);
  const subject = note.subject ?? "";
  switch (note.did) {
    case "reward/bought":
      return `${subject} for ${count(note.count)}${left(note)}`;
    case "reward/asked":
      return `${subject} for ${count(note.count)}; it waits for a yes${left(note)}`;
    case "reward/undone":
      return `${String(note.facts?.["reward"])} of ${subject} waits again`;
    case "reward/played":
      return `${String(note.facts?.["reward"])} of ${subject} is played once more`;
    case "reward/again":
      return `${subject} paid ${count(note.count)} again for ${String(note.facts?.["reward"])}`;
    case "reward/listed": {
      const { has = 0, name = "points", list = "", more = 0 } = note.facts ?? {};
      const start = `you have ${count(Number(has))} ${String(name)}`;
      if (note.count === 0) return `${start}; nothing can be had for it now`;
      return `${start}: ${String(list)}${Number(more) > 0 ? ` and ${String(more)} more` : ""}`;
    }
    case "reward/costs":
      if (typeof note.facts?.["waitS"] === "number")
        return `${subject} costs ${count(note.count)} ${String(note.facts["name"] ?? "")}; ${note.facts["own"] === true ? "you can have it again" : "it can be had again"} in ${wait(note.facts["waitS"])}`;
      return `${subject} costs ${count(note.count)} ${String(note.facts?.["name"] ?? "")}${note.facts?.["word"] ? `: write ${String(note.facts["word"])}` : ""}`;
    case "reward/done":
      return `${String(note.facts?.["reward"])} of ${subject} was done`;
    case "reward/settled":
      return `what ${subject} bought on the platform is settled there`;
    case "reward/refunded":
      return `${subject} got ${count(note.count)} back for ${String(note.facts?.["reward"])}`;
    case "reward/refunded-all":
      return `${count(note.count)} who asked for ${subject} got their points back`;
    default:
      return "";
  }
}

export function rewardNoteInShort({ did, count: n, subject = "" }: Note): string | null {
  switch (did) {
    case "reward/bought":
      return `${subject} −${count(n)}`;
    case "reward/asked":
      return `asked: ${subject}`;
    case "reward/refunded":
      return `+${count(n)} back`;
    default:
      return null;
  }
}

export const rewardsFront: NoteWords = {
  kind: "rewards",
  takeBack: ({ did, count: price, subject = "", facts = {} }) => {
    const sale = facts["sale"];
    if ((did !== "reward/bought" && did !== "reward/asked") || typeof sale !== "string") return [];
    const back = price === 0 ? "Take it back" : `Refund ${count(price)}`;
    return [{ label: back, did: `${subject} was refunded.`, command: { do: "sale", sale, what: "refund" } }];
  },
  noteInWords: rewardNoteInWords,
  noteInShort: rewardNoteInShort,
};
