import type { Note } from "../../module/module";
import { moneyInWords } from "../../signals/money-words";
import { count, counted } from "../../words/sentence";

const refusals: Readonly<Record<string, (facts: Readonly<Record<string, unknown>>) => string>> = {
  "clips/off": () => "clips are switched off",
  "clips/barred": () => "no clips are taken from them here",
  "clips/role": () => "clips are for others here",
  "clips/hidden": () => "there is a word in it that is never shown",
  "clips/rest": (f) => `not yet: once more in ${String(f["freeInS"])} s`,
  "clips/same": () => "the same clip waits already",
  "clips/barred-file": () => "this film is not shown here",
  "clips/full": (f) => `${counted(Number(f["most"]), "clip")} may wait, and no more`,
  "clips/no-address": (f) => `write where the film is: ${String(f["word"])} https://… 0:07 12s`,
  "clips/no-points": () => "no clips are sold for points here",
  "clips/no-tips": () => "no clips are sold for money here",
  "clips/no-film-named": () => "say where the film is: an address that begins with https://, or a file",
  "clips/no-place": () => "where to start is a time like 0:07",
  "clips/no-length": () => "say how many seconds, as a whole number",
  "clips/too-poor": (f) =>
    `${counted(Number(f["seconds"]), "second")} cost ${count(Number(f["price"]))} ${String(f["name"])}, and ${count(Number(f["has"]))} are there`,
  "clips/too-little": (f) => `too little for a clip: it takes ${moneyInWords(Number(f["takes"]), String(f["currency"]))}`,
  "clips/no-rate": (f) => `nobody knows what ${String(f["currency"])} is worth here: it buys no seconds`,
  "clips/too-slow": () => "the film did not come in time",
  "clips/flashes": (f) => `it flashes too fast from ${String(f["atS"])} s on: some people can’t bear that`,
  "clips/black": () => "it is black all through",
  "clips/silent": () => "there is nothing to hear in it",
  "clips/gone": () => "this clip is not there any more",
  "clips/decided": () => "this was decided already",
  "clips/nothing": () => "no clip plays just now",
  "clips/nothing-waits": () => "no clip waits",
  "clips/nothing-lately": () => "no clip played lately",
  "clips/plays-already": () => "a clip plays already",
  "clips/shown-already": () => "it is shown already",
  "clips/hidden-already": () => "it is hidden already",
  "clips/no-film": () => "there is no moving picture of this name in the library",
  "clips/held-already": () => "clips are held already",
  "clips/not-held": () => "clips are not held",
  "clips/already-on": () => "clips are on already",
  "clips/already-off": () => "clips are off already",
  "clips/unknown": (f) => (f["name"] === "" ? "nobody was named" : `nobody called ${String(f["name"])} is known here`),
  "clips/not-barred": (f) => `clips of ${String(f["name"])} are taken`,
  "video/broken": () => "the film can’t be read",
  "video/no-video": () => "there is no film at this address",
  "video/no-picture": () => "there is no moving picture in it",
  "video/too-long": (f) => `the film is longer than ${String(f["mostS"])} s`,
  "video/too-short": () => "there is nothing to see in it",
  "video/ends-before": (f) => `the film ends after ${String(f["atS"])} s, before the place to start`,
  "video/too-many-pixels": (f) => `its picture is wider or higher than ${String(f["most"])} pixels`,
  "video/too-many-tracks": () => "the film has more tracks than any needs",
  "file/too-heavy": () => "opening the film took too long",
  "file/too-many": () => "too many films wait to be opened: try again in a while",
  "prop/bad-address": () => "this is no address of the web",
  "prop/address-inside": () => "this address leads into the channel’s own network",
  "prop/address-failed": (f) => `the film can’t be fetched: ${String(f["why"])}`,
  "prop/too-large": (f) => `the film is larger than ${String(f["mostMb"])} MB`,
  "prop/unknown": () => "the file is not there any more",
  "store/away": () => "it can’t be taken just now: try again in a while",
};

const deeds: Readonly<Record<string, (who: string) => string>> = {
  "clips/taken": (who) => `${who} is taken and looked at`,
  "clips/asks": (who) => `${who} waits for somebody’s yes`,
  "clips/made": (who) => `${who} waits its turn`,
  "clips/waits": (who) => `${who} waits its turn`,
  "clips/approved": (who) => `${who} was let through`,
  "clips/dropped": (who) => `${who} was left out, and given back`,
  "clips/withdrawn": (who) => `${who} was taken back by its sender`,
  "clips/plays": (who) => `${who} plays`,
  "clips/unseen": (who) => `no page showed ${who}: it was given back`,
  "clips/shown": (who) => `${who} is shown`,
  "clips/hidden": (who) => `${who} is hidden`,
  "clips/skipped": (who) => `${who} was skipped`,
  "clips/held": () => "clips are held",
  "clips/goes-on": () => "clips go on",
  "clips/moved": (who) => `${who} has another turn`,
  "clips/settled": (who) => `what was owed for ${who} is paid back`,
  "clips/credited": (who) => `what was owed for ${who} counts for their next`,
  "clips/barred": (who) => `no more clips are taken: ${who}`,
  "clips/let-back": (who) => `clips are taken again: ${who}`,
  "clips/barred-file": () => "this film is shown no more",
  "clips/let-file": () => "this film may be shown again",
  "clips/switched-on": () => "clips were switched on",
  "clips/switched-off": () => "clips were switched off",
};

export function clipsNoteInWords({ refusal: why, did = "", subject = "", facts = {} }: Note): string {
  if (why !== undefined) {
    const said = Object.hasOwn(refusals, why.code) ? (refusals[why.code]?.(why.facts) ?? why.code) : why.code;
    return facts["keptForNext"] === true ? `${said}; what was given counts for the next` : said;
  }
  const who = subject === "" ? "a clip" : did === "clips/barred" || did === "clips/let-back" ? subject : `the clip of ${subject}`;
  const said = Object.hasOwn(deeds, did) ? (deeds[did]?.(who) ?? did) : did;
  const paid = facts["by"] === "points" && Number(facts["paid"]) > 0 ? `, for ${count(Number(facts["paid"]))}` : "";
  return did === "clips/taken" ? `${said}: ${counted(Number(facts["seconds"]), "second")}${paid}` : said;
}

const short: Readonly<Record<string, string>> = {
  "clips/taken": "clip taken",
  "clips/asks": "clip asks",
  "clips/made": "clip waits",
  "clips/plays": "clip plays",
  "clips/approved": "let through",
  "clips/dropped": "given back",
  "clips/skipped": "skipped",
  "clips/unseen": "given back",
};

export function clipsNoteInShort({ refusal: why, did = "" }: Note): string | null {
  if (why !== undefined) return why.code.startsWith("clips/") ? null : "clip refused";
  return Object.hasOwn(short, did) ? (short[did] ?? null) : null;
}
