import type { Note } from "../../module/module";
import { kindOfSignalInWords } from "../../signals/kinds";
import { count, counted } from "../../words/sentence";

export function brimfulNoteInWords(note: Note): string {
  const { refusal: why, facts = {}, subject, count: n } = note;
  if (why !== undefined) {
    const kind = kindOfSignalInWords(String(why.facts["kind"]));
    switch (why.code) {
      case "brimful/off":
        return "the vessel is switched off";
      case "brimful/no-drop":
        return `${kind} drops nothing here`;
      case "brimful/below":
        return `${kind} of this amount drops nothing: no tier is for it`;
      case "brimful/nothing":
        return why.facts["kind"] === "command" ? "of nothing, nothing falls" : `${kind} of this amount drops nothing`;
      case "brimful/not-yet":
        return "too little for a piece yet; it is kept and added to the viewer’s next one";
      case "brimful/gift-counted":
        return "not counted again: the gift it came from was";
      case "brimful/currency":
        return `the channel has no rate for ${String(why.facts["currency"])}, so it drops nothing`;
      case "brimful/no-face":
        return "nobody’s face: this came from no viewer";
      case "brimful/stands-fast":
        return "it stands fast; let it slide and tip over in its rules first";
      case "brimful/lies-already":
        return "it lies on its side already";
      case "brimful/stands-already":
        return "it stands already";
      case "brimful/empty-already":
        return "it is empty already";
      case "brimful/gone":
        return "its pieces are not in the vessel any more, or so deep that they can’t be told apart";
      case "brimful/already-on":
        return "it is running already";
      case "brimful/already-off":
        return "it is switched off already";
      default:
        return why.code;
    }
  }
  const full = facts["percent"] === undefined ? "" : `, ${String(facts["percent"])} % full`;
  const by = subject === undefined || subject === "" ? "" : ` by ${subject}`;
  switch (note.did) {
    case "brimful/dropped":
      return `${counted(n, "piece")}${by}${full}`;
    case "brimful/waits":
      return `${counted(n, "piece")}${by} ${n === 1 ? "waits" : "wait"} until the vessel stands again`;
    case "brimful/brimmed":
      return `it brims over with ${counted(n, "piece")}${by}`;
    case "brimful/left-out":
      return `${counted(n, "piece")} left out: one signal fills it at most ${count(Number(facts["brims"] ?? 0))} times`;
    case "brimful/goal":
      return `the line “${subject ?? ""}” at ${count(n)} % was reached`;
    case "brimful/tipped":
      return `it tipped over${by}, ${counted(n, "piece")} spilled`;
    case "brimful/upright":
      return n === 0 ? "it stands again" : `it stands again, and ${counted(n, "piece")} that waited fall`;
    case "brimful/shaken":
      return `it was shaken${by}`;
    case "brimful/emptied":
      return `it was emptied${by}`;
    case "brimful/removed":
      return `${counted(n, "piece")} taken out${full}`;
    case "brimful/switched-on":
      return "the vessel was switched on";
    case "brimful/switched-off":
      return "the vessel was switched off";
    case "brimful/rules-told":
      return "chat was told how full it is, and the rules";
    default:
      return "";
  }
}

export function brimfulNoteInShort({ did, refusal: why, count: n, facts = {} }: Note): string | null {
  if (why?.code === "brimful/not-yet") return "kept for later";
  switch (did) {
    case "brimful/dropped":
      return `${counted(n, "piece")}, ${String(facts["percent"] ?? 0)} %`;
    case "brimful/waits":
      return `${counted(n, "piece")} waiting`;
    case "brimful/brimmed":
      return "brims over";
    case "brimful/tipped":
      return "tips over";
    case "brimful/removed":
      return `${counted(n, "piece")} out`;
    default:
      return null;
  }
}
