import type { Refusal } from "../kernel/refusal";
import type { Note, NoteWords } from "../module/module";

export function showRefusalInWords({ code, facts }: Refusal, subject = ""): string {
  const what = subject === "" ? "this" : `“${subject}”`;
  switch (code) {
    case "show/on-already":
      return "the show is on air already";
    case "show/rehearsing-already":
      return "a rehearsal is running already";
    case "show/on-air":
      return "the show is on air; end it before you rehearse";
    case "show/off":
      return "no show is running; go on air or rehearse first";
    case "show/started-already":
      return `${what} was started or skipped already`;
    case "show/no-item":
      return "this is not in the rundown any more";
    case "show/nothing-next":
      return "nothing is left in the rundown";
    case "show/plan-changed":
      return `${String(facts["by"]) || "somebody"} changed the rundown meanwhile; it is shown as it is now`;
    case "show/too-many-muted":
      return `at most ${String(facts["most"])} viewers can be muted; let some speak again first`;
    case "show/nobody":
      return "nobody was named";
    case "show/face-shown-already":
      return "the picture is shown already";
    case "show/face-hidden-already":
      return "initials stand for them already";
    case "show/face-forbidden":
      return "the channel shows initials for you; only it can change that";
    case "show/too-many-faces":
      return `at most ${String(facts["most"])} pictures can be hidden`;
    case "show/template-name":
      return "a template needs a name";
    case "show/too-many-templates":
      return `there are at most ${String(facts["most"])} templates; remove one first`;
    case "show/no-template":
      return "this template is not there any more";
    case "show/decided-already":
      return "this was decided already";
    case "command/role":
      return `${what} is not for this role`;
    case "command/amount":
      return `say how much: ${String(facts["word"])} and a whole number`;
    case "command/no-game":
      return `${what} belongs to no game yet`;
    default:
      return code;
  }
}

export function showNoteInWords(note: Note): string {
  const subject = note.subject ?? "";
  if (note.refusal !== undefined) return showRefusalInWords(note.refusal, subject);
  switch (note.did) {
    case "show/on":
      return "the show is on air";
    case "show/rehearsing":
      return "a rehearsal began; when it ends, every game stands as before";
    case "show/ended":
      return note.facts?.["how"] === "silence" ? "the show ended by itself: it was silent for long" : "the show ended";
    case "show/rehearsed":
      return "the rehearsal ended; every game stands as before";
    case "show/started":
      return note.facts?.["itself"] === true ? `“${subject}” started by itself` : `“${subject}” started`;
    case "show/skipped":
      return `“${subject}” was skipped`;
    case "show/back":
      return `“${subject}” is planned again`;
    case "show/planned":
      return "the rundown was changed";
    case "show/face-shown":
      return `the picture of ${subject} is shown again`;
    case "show/face-hidden":
      return `initials stand for ${subject} from now on`;
    case "show/muted":
      return `${subject} is muted in games`;
    case "show/unmuted":
      return `${subject} counts in games again`;
    case "show/template-saved":
      return `the template “${subject}” was saved`;
    case "show/template-used":
      return `the rundown is now “${subject}”`;
    case "show/template-removed":
      return `the template “${subject}” was removed`;
    case "show/hushed":
      return "everything is hushed";
    case "show/released":
      return "the hush is released";
    case "command/done":
      return `command ${subject}`;
    default:
      return "";
  }
}

export const showFront: NoteWords = { kind: "show", noteInWords: showNoteInWords };
