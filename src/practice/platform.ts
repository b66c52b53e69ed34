import { randomUUID } from "node:crypto";
import { formatLine } from "../core/chat/line";
import type { Person } from "./viewers";

/**
 * What a chat platform adds to what was said: who it is, and where its own emotes stand, counted in
 * Unicode code points as docs/protocols.md says.
 */
export function marksOf(text: string, emotes: readonly string[]): string {
  const marks: string[] = [];
  let at = 0;
  for (const word of text.split(" ")) {
    const length = [...word].length;
    if (emotes.includes(word)) marks.push(`${at}+${length}=${word}`);
    at += length + 1;
  }
  return marks.join(",");
}

export function saidLine(
  person: Person,
  channel: string,
  text: string,
  emotes: readonly string[],
  id: string = randomUUID(),
  paid = "",
): string {
  const marks = marksOf(text, emotes);
  const tags = {
    account: person.nick,
    "izzam/name": person.name,
    msgid: id,
    ...(person.badges.length > 0 ? { "izzam/roles": person.badges.join(",") } : {}),
    ...(paid !== "" ? { "izzam/paid": paid } : {}),
    ...(marks !== "" ? { "izzam/emotes": marks } : {}),
  };
  return formatLine("PRIVMSG", [channel, text], { from: `${person.nick}!${person.nick}@practice.invalid`, tags });
}
