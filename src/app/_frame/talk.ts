"use client";
import { create } from "zustand";
import type { TalkItem } from "../../core/wire/messages";

/** The talk of this page, oldest first: what chat said and signals brought, as far back as is kept here. */
export const mostTalk = 2_000;
type Talk = Readonly<{ epoch: string; items: readonly TalkItem[]; left: number }>;
export const useTalk = create<Talk>(() => ({ epoch: "", items: [], left: 0 }));

/** Items that are there already are passed over: after a reconnection the engine tells its last again. */
export function withTalk(now: Talk, epoch: string, came: readonly TalkItem[], left: number): Talk {
  const known = now.epoch === epoch ? (now.items[now.items.length - 1]?.n ?? 0) : 0;
  const fresh = came.filter((item) => item.n > known);
  if (fresh.length === 0 && left === 0 && now.epoch === epoch) return now;
  // An engine that was restarted counts anew; what was said before stays to be read.
  return { epoch, items: [...now.items, ...fresh].slice(-mostTalk), left: now.left + left };
}
export const takeTalk = (epoch: string, items: readonly TalkItem[], left: number): void =>
  useTalk.setState((now) => withTalk(now, epoch, items, left));
/** Another stage is looked at: what was said on the one before is not said here. */
export const clearTalk = (): void => useTalk.setState({ epoch: "", items: [], left: 0 });
