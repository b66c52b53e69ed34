import { randomUUID } from "node:crypto";
import { emoteIndex, findEmotes } from "../../core/chat/emotes";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { type ChatLog, ratesOfChat, readChatLog } from "../../core/rehearsal/chat-log";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";

export type ChatLogAdded = Readonly<{ id: string; lines: number; people: number; left: number; problems: ChatLog["problems"] }>;
const anyEmote = { marked: false, own: true, emoji: true };

/** Takes past chat in from a file. Lines that can't be used are told, and keep none of the others out. */
export async function addChatLog(
  { store, clock }: Pick<WebServices, "store" | "clock">,
  session: Session,
  file: Readonly<{ name: string; text: string }>,
): Promise<Result<ChatLogAdded>> {
  const log = readChatLog(file.text);
  const { lines, people, ms, left, problems } = log;
  const first = problems[0];
  if (lines.length === 0)
    return refused("chat-log/empty", { why: first === undefined ? "there is nothing in it" : `line ${first.line}: ${first.says}` });
  const emotes = await store.emotes.emotes(session.channelId);
  const index = emoteIndex(emotes.map((e) => ({ id: e.id, word: e.word })));
  const rates = ratesOfChat(log, (text) => findEmotes(text, [], index, anyEmote).length > 0);
  const id = randomUUID();
  const name = (file.name.replace(/\.[a-z0-9]{1,8}$/i, "").trim() || "Past chat").slice(0, 120);
  const row = { id, channel: session.channelId, name, by: session.login, people, ms, rates };
  const added = await store.chatLogs.add(row, lines, clock.now());
  return added.ok ? ok({ id, lines: lines.length, people, left, problems }) : added;
}

export async function actOnChatLog(
  { store, clock }: Pick<WebServices, "store" | "clock">,
  channel: ChannelId,
  id: string,
  act: Readonly<{ do: "remove" | "restore" }> | Readonly<{ do: "rename"; name: string }>,
): Promise<Result<null>> {
  if (act.do === "restore") return store.chatLogs.restore(channel, id);
  const done =
    act.do === "rename" ? await store.chatLogs.rename(channel, id, act.name) : await store.chatLogs.remove(channel, id, clock.now());
  return done ? ok(null) : refused("chat-log/unknown");
}

/** The same as JSON Lines, as it is read again: a copy for elsewhere. */
export async function chatLogOut({ store }: Pick<WebServices, "store">, channel: ChannelId, id: string) {
  const chat = await store.chatLogs.lines(channel, id);
  if (chat === null) return null;
  const text = chat.lines.map(({ afterMs, name, text: said }) => JSON.stringify({ at: afterMs, name, text: said })).join("\n");
  return { name: chat.name, text: `${text}\n` };
}
