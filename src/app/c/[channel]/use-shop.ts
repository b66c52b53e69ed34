"use client";
import { useCallback, useEffect, useRef, useState } from "react";
import { wireVersion } from "../../../core/wire/version";
import { type OwnInGame, toViewerSchema, type ToViewer } from "../../../core/wire/to-viewer";
import type { Tag } from "../../../core/rewards/tags";
import type { ShopView } from "../../../server/ports/engine-link";

type Own = Extract<ToViewer, { type: "mine" }>["own"];
export type Live = Readonly<{
  head: ShopView["head"];
  tags: ReadonlyMap<string, Tag>;
  own: Own;
  games: readonly OwnInGame[];
  viewer: Readonly<{ name: string; balance: number }> | null;
  /** Where their own picture is; empty for nowhere. */
  face: string;
  /** What the server's clock is ahead of this one, milliseconds. */
  aheadMs: number;
  state: "joining" | "live" | "away";
}>;

/** The page's one WebSocket: comes back by itself, a little later each time. */
export function useShop(channel: string, first: ShopView, onMine: () => void): Live {
  const [live, setLive] = useState<Live>(() => ({
    head: first.head,
    tags: new Map(first.tags.map((t) => [t.id, t])),
    own: [],
    games: first.mine,
    viewer: first.viewer,
    face: first.face,
    aheadMs: 0,
    state: "joining",
  }));
  const tell = useRef(onMine);
  tell.current = onMine;
  const take = useCallback((message: ToViewer) => {
    if (message.type === "shop") {
      const { head, tags, nowMs } = message;
      setLive((was) => {
        const all = new Map(was.tags);
        for (const tag of tags) all.set(tag.id, tag);
        return { ...was, head: head ?? was.head, tags: all, aheadMs: nowMs - Date.now(), state: "live" };
      });
    }
    if (message.type === "games") setLive((was) => ({ ...was, games: message.games }));
    if (message.type === "mine") {
      const { name, balance, own, face } = message;
      setLive((was) => ({ ...was, viewer: { name, balance }, own, face }));
      tell.current();
    }
  }, []);
  useEffect(() => {
    let stopped = false;
    let waitMs = 500;
    let timer = 0;
    let ws: WebSocket | null = null;
    const open = (): void => {
      ws = new WebSocket(`${location.protocol === "https:" ? "wss" : "ws"}://${location.host}/ws`);
      ws.onopen = () => ws?.send(JSON.stringify({ v: wireVersion, type: "shop", channel }));
      ws.onmessage = (event) => {
        const parsed = toViewerSchema.safeParse(JSON.parse(String(event.data)));
        if (!parsed.success) return;
        waitMs = 500;
        take(parsed.data);
      };
      ws.onclose = () => {
        if (stopped) return;
        setLive((was) => ({ ...was, state: "away" }));
        timer = window.setTimeout(open, waitMs * (0.7 + 0.6 * ((performance.now() % 1000) / 1000)));
        waitMs = Math.min(waitMs * 2, 15_000);
      };
    };
    open();
    return () => {
      stopped = true;
      clearTimeout(timer);
      ws?.close();
    };
  }, [channel, take]);
  return live;
}
