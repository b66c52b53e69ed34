import { commandRules } from "../../core/commands/rules";
import { cueBook } from "../../core/cues/cues";
import type { ChannelId } from "../../core/kernel/ids";
import { rulebook } from "../../core/rules/rules";
import { pointsRules } from "../../core/points/rules";
import { rewardsRules } from "../../core/rewards/rules";
import { showRules } from "../../core/show/rules";
import type { OperatorStore } from "../ports/operator-store";
import { newToken } from "../secrets";
import type { GameDraft } from "../ports/operator-store";

/** The rulebook, the cues and the show of a channel: one of each, made when first looked for. */
export type BookKind = "rules" | "cues" | "show" | "rewards" | "points" | "commands";
const defaults: Readonly<Record<BookKind, { name: string; settings: unknown }>> = {
  rules: { name: "Rules", settings: rulebook.defaults },
  cues: { name: "Cues", settings: cueBook.defaults },
  show: { name: "Show", settings: showRules.defaults },
  rewards: { name: "Rewards", settings: rewardsRules.defaults },
  commands: { name: "Commands", settings: commandRules.defaults },
  points: { name: "Points", settings: pointsRules.defaults },
};

/** The draft of the one module of a kind; null where the channel has none. */
export async function draftOf(store: OperatorStore, channel: ChannelId, kind: string): Promise<GameDraft | null> {
  const id = (await store.games.games(channel)).find((g) => g.kind === kind)?.id;
  return id === undefined ? null : store.games.draft(channel, id);
}

export async function bookOf(store: OperatorStore, channel: ChannelId, kind: BookKind, by: string, nowMs: number): Promise<GameDraft> {
  const there = await draftOf(store, channel, kind);
  if (there !== null) return there;
  const id = newToken();
  await store.games.create(channel, { id, kind, ...defaults[kind], by, nowMs });
  await store.games.publish(channel, id, { revision: 1, by, nowMs });
  const made = await draftOf(store, channel, kind);
  if (made === null) throw new Error("a book was made and is not there");
  return made;
}

/** In which currency the channel counts: what the published rulebook says. */
export async function homeCurrency(store: OperatorStore, channel: ChannelId): Promise<string> {
  const draft = await draftOf(store, channel, "rules");
  const book = rulebook.settings.safeParse(draft?.published);
  return book.success ? book.data.money.home : rulebook.defaults.money.home;
}
