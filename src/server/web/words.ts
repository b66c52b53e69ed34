import type { Refusal } from "../../core/kernel/refusal";
import { labRefusalInWords } from "../../core/lab/words";
import { rehearsalRefusalInWords } from "../../core/rehearsal/words";
import { pointsRefusalInWords } from "../../core/points/notes";
import { rewardRefusalInWords } from "../../core/rewards/words";
import { pictureRefusalInWords } from "../pictures/words";
import { engineRefusalInWords } from "../../core/notes";
import { showRefusalInWords } from "../../core/show/notes";
import { soundRefusalInWords } from "../sounds/sound";
import { videoRefusalInWords } from "../video/words";

function fileRefusalInWords(code: string): string {
  switch (code) {
    case "file/too-heavy":
      return "Opening this file took too long or too much memory, so it was given up. Make it simpler or smaller and add it again.";
    case "file/too-many":
      return "Too many files wait to be opened. Wait until they are done, then add this one again.";
    case "file/undecodable":
      return "This file can’t be opened: it is damaged, or not what its name says.";
    default:
      return code;
  }
}

function reviewRefusalInWords(code: string): string {
  switch (code) {
    case "review/moment":
      return "a moment begins before it ends, and lies within its show";
    case "review/moments":
      return "too many moments of this show are decided already, 500; put some back first";
    default:
      return "there is no such show, or it was a rehearsal";
  }
}

const sentence = (words: string): string => `${words[0]?.toUpperCase() ?? ""}${words.slice(1)}.`;

/** Every refusal of the operator side in words: what happened, what it means, what to do. */
export function refusalInWords({ code, facts }: Refusal): string {
  if (code.startsWith("sound/")) return soundRefusalInWords(code);
  const video = code.startsWith("video/") ? videoRefusalInWords(code, facts) : null;
  if (video !== null) return video;
  if (code.startsWith("file/")) return fileRefusalInWords(code);
  if (code.startsWith("picture/")) return pictureRefusalInWords(code);
  const common = engineRefusalInWords({ code, facts });
  if (common !== null) return sentence(common);
  if (code.startsWith("show/")) return sentence(showRefusalInWords({ code, facts }));
  if (code.startsWith("reward/") || code.startsWith("sale/")) return sentence(rewardRefusalInWords({ code, facts }));
  if (code.startsWith("review/")) return sentence(reviewRefusalInWords(code));
  if (code.startsWith("rehearsal/")) return sentence(rehearsalRefusalInWords({ code, facts }));
  if (code.startsWith("lab/")) return sentence(labRefusalInWords({ code, facts }));
  if (code.startsWith("points/")) return sentence(pointsRefusalInWords({ code, facts }));
  switch (code) {
    case "address/unknown":
      return "There is nothing at this address. Reload the page: it may be older than Izzam is now.";
    case "address/method":
      return "This address is not used that way. Reload the page: it may be older than Izzam is now.";
    case "practice/none":
      return "Izzam was started without the practice rig. Start it again without --no-practice.";
    case "practice/away":
      return "Chat and events are set to the practice rig, but it does not answer. Restart Izzam, then look at the connection again.";
    case "access/signed-out":
      return "You are signed out. Sign in again; what you typed stays on this page.";
    case "access/role":
      return "Only the channel’s owner may do this. Ask the owner, or sign in as the owner.";
    case "viewer/not-proven":
      return "This page is tied to no chat name yet. Type its code in chat, then try again.";
    case "access/desk":
      return "Points are corrected at a desk, not by a paired phone. Sign in there.";
    case "access/foreign":
      return "This request did not come from an Izzam page, so nothing was done.";
    case "input/invalid":
      return `${String(facts["why"])} Nothing was changed.`;
    case "sign-in/wrong":
      return "Name and password don’t match. Check both and try again.";
    case "sign-in/too-often":
      return `Too many tries. Wait ${facts["waitS"]} s, then try again.`;
    case "sign-in/no-demo":
      return "This installation has no demo data, so there is no demo sign-in.";
    case "sign-in/demo-elsewhere":
      return "The demo’s accounts work on the computer that Izzam runs on only: everybody knows their passwords. There, give the account a password of your own, or pair a phone.";
    case "setup/done":
      return "The owner was created already. Sign in instead.";
    case "account/wrong-password":
      return "That is not your current password. Nothing was changed.";
    case "account/public-login":
      return "Somebody signs in by this name, so it must stay secret. Choose another.";
    case "session/unknown":
      return "This session has ended already.";
    case "operator/unknown":
      return "Nobody of this channel goes by that any more.";
    case "operator/oneself":
      return "Nobody removes themselves. Another owner can.";
    case "operator/last-owner":
      return "A channel keeps at least one owner.";
    case "operator/name-taken":
      return "This name is taken. Names count as the same without regard to capitals, accents and spaces. Choose another.";
    case "invite/unknown":
      return "This invitation can’t be used: it was used already, ended, or is older than a week. Ask for a new one.";
    case "data/no-month":
      return "There is no log of this month here.";
    case "setup/code":
      return "This is not the set-up code. It stands in the window in which ./start runs.";
    case "draft/changed-elsewhere":
      return `${String(facts["by"]) || "Somebody"} changed this game in another tab. Nothing of yours is lost: choose below which of the two to keep.`;
    case "chat-log/empty":
      return `No line of this file can be used: ${String(facts["why"])}. A chat log has lines like [19:03:11] <name> text, IRC messages, or JSON with name and text.`;
    case "chat-log/too-large":
      return "This file is larger than 12 MB. Bring in the chat of some evenings, not of a year.";
    case "chat-log/too-many":
      return `There are ${String(facts["most"])} chat logs already. Remove one first.`;
    case "chat-log/unknown":
      return "This chat log is not there any more.";
    case "outside/no-manifest":
      return "This is no show of Izzam: a ZIP that Review makes has a manifest, and this has none that can be read.";
    case "outside/newer":
      return `A newer version of Izzam made this file (${String(facts["format"])}). Open it there, or bring this installation up to it.`;
    case "outside/too-large":
      return "This show is larger than 80 MB as a ZIP. Only smaller ones can be looked at here.";
    case "outside/too-many":
      return `There are ${String(facts["most"])} shows from outside already. Remove one first.`;
    case "outside/unknown":
      return "This show is not there any more.";
    case "round/unknown":
      return "There is no round of this name, or it is not over yet.";
    case "game/unknown":
      return "This game is not there any more.";
    case "game/points-in-it":
      return "Points of viewers lie in it. End or cancel what runs in it; then it can be removed.";
    case "game/said":
      return String(facts["words"] ?? "The game said no.");
    case "game/cannot":
      return "This game has nothing of the kind.";
    case "font/none":
      return "This is no WOFF2 font. Fonts for the web end in .woff2; other kinds can be converted to it.";
    case "font/damaged":
      return "This font file is damaged: it is not as long as it says, or holds nothing.";
    case "font/too-large":
      return "This font is larger than 2 MB. One with fewer languages in it is smaller.";
    case "game/rehearsing":
      return "The channel is rehearsing at the moment. Try again when the show is on.";
    case "game/unreadable":
      return `${sentence(String(facts["why"]))} Nothing of it was changed. Start the newer version again, or bring back a backup.`;
    case "game/bad-settings":
      return `${String(facts["why"])} Nothing was changed.`;
    case "game/other-kind":
      return "Only a game of the same kind can stand in its place: what is done with it could not be done with another.";
    case "game/not-running":
      return "This game is not running: it is not published yet, or it was removed. Publish it, or bring it back, first.";
    case "version/unreadable":
      return `${sentence(String(facts["why"]))} It stays as it is.`;
    case "version/unknown":
      return "This version is not there any more.";
    case "overlay/unknown":
      return "This overlay is not there any more.";
    case "overlay/no-link":
      return "This overlay has no link. Make a new one first.";
    case "overlay/key-changed":
      return "The link was kept with another key and can’t be read. Make a new link.";
    case "emote/unknown":
      return "This emote is not there any more.";
    case "emote/word-taken":
      return `The word ${String(facts["word"])} is taken. Words count as the same without regard to capitals and accents. Choose another.`;
    case "emote/same-picture":
      return `This picture is there already, as ${String(facts["word"])}.`;
    case "emote/too-many":
      return `A channel may have ${facts["most"]} emotes. Remove some first.`;
    case "cue/unknown":
      return "This cue is not there any more. It may not be published yet.";
    case "cue/cooling":
      return `This cue is on cooldown for ${facts["freeInS"]} s more.`;
    case "cue/no-link":
      return "This cue has no trigger address. Make one first.";
    case "queue/nothing-plays":
      return "Nothing plays there at the moment.";
    case "events/none":
      return "There is no secret yet. Make one first.";
    case "prop/unknown":
      return "This prop is not there any more.";
    case "prop/same":
      return `This file is there already, as ${String(facts["name"])}.`;
    case "prop/too-many":
      return `A channel may have ${facts["most"]} props. Remove some first.`;
    case "prop/other-kind":
      return "A picture can only be replaced by a picture, a sound by a sound.";
    case "prop/too-large":
      return `The file is larger than ${facts["mostMb"]} MB.`;
    case "prop/nothing-in-zip":
      return "There is no picture and no sound in this ZIP file.";
    case "studio/away":
      return "The studio does not answer. The scene stays as it is.";
    case "studio/refused":
      return `The studio would not switch: ${sentence(String(facts["why"])).toLowerCase()}`;
    case "figure/no-manifest":
      return "A figure brings a figure.json in its ZIP file, and there is none in this one.";
    case "figure/bad-manifest":
      return `What figure.json says can’t be used: ${String(facts["where"])}${sentence(String(facts["why"]))} Nothing was added.`;
    case "figure/no-file":
      return `The figure.json names “${String(facts["file"])}”, which is not in the ZIP file. Nothing was added.`;
    case "figure/bad-file":
      return `The file “${String(facts["file"])}” can’t be used. ${sentence(String(facts["why"]))} Nothing was added.`;
    case "figure/no-part":
      return `The figure.json names the part “${String(facts["part"])}”, and no group of the drawing bears this id, or it is empty. Nothing was added.`;
    case "figure/too-many-frames":
      return `A figure may have ${facts["most"]} frames in all; this one has ${facts["frames"]}. Nothing was added.`;
    case "prop/bad-zip":
      return "The ZIP file is damaged, or unpacks to more than is allowed.";
    case "prop/bad-address":
      return "This is no address of the web: it begins with http:// or https://.";
    case "prop/address-inside":
      return "This address leads into this computer or its network, so Izzam does not fetch it.";
    case "prop/address-failed":
      return `The address did not answer with a file: ${String(facts["why"])}.`;
    case "layout/changed-elsewhere":
      return "This stage was changed in another tab. It is shown as it is now; nothing was overwritten.";
    case "css/leaves-its-box":
      return `The style sheet may not hold ${String(facts["what"])}: it could reach out of its overlay.`;
    case "speech/none":
    case "speech/late":
    case "speech/failed":
      return "This voice could not be heard. Is its engine installed? ./start installs what it needs.";
    case "upload/broken":
      return "The file did not arrive completely, so nothing was saved. Send it again.";
    case "page/closed":
      return "This page is not open any more.";
    case "page/silent":
      return "This page does not answer. Refresh the browser source. If that does not help, check the computer it runs on.";
    case "engine/away":
      return "The engine does not answer, so nothing was done. It starts again by itself; try once more in a moment.";
    case "store/away":
      return "The database does not answer at the moment, so nothing was changed. Izzam reconnects by itself; try again in a moment.";
    case "stored/newer":
      return "A newer Izzam stored this, so this one does not touch it. Start the version that stored it.";
    case "stored/unreadable":
      return "What is stored of this can’t be read, so it is left as it is.";
    case "store/unfit":
      return "This could not be stored, and nothing was changed. The log of the engine says why.";
    case "command/twin":
      return `${String(facts["by"])} did just that, a moment ago. It was done once.`;
    case "alert/decided-already":
      return "This was decided already.";
    case "chat/cannot-say":
      return "Chat is not connected, or too much waits to be said. Nothing was sent.";
    case "pairing/wrong":
      return "This code is not valid: it was used, or it is older than ten minutes. Make a new one in the booth.";
    case "viewer/codes-out":
      return "Too many people are asking for a code right now. Try again in a minute.";
    case "viewer/unknown":
      return "Nothing is known of this viewer yet.";
    case "remote/unknown":
      return "This phone is not paired any more.";
    case "signal/duplicate":
      return "This was done already.";
    case "engine/starting":
      return "Izzam is starting, so nothing was done yet. Try again in a moment.";
    case "channel/unknown":
      return "There is no such channel. Check the address.";
    default:
      return code;
  }
}
