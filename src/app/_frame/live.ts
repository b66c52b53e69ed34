"use client";
import { useEffect } from "react";
import { create } from "zustand";
import type { TimelineEvent } from "../../core/show/timeline";
import { useRehearsalHere } from "./rehearsal-here";
import { clearTalk, takeTalk } from "./talk";
import type { ToOperator, toOperatorSchema } from "../../core/wire/messages";
import { wireVersion } from "../../core/wire/version";

type Standing = Extract<ToOperator, { type: "standing" }>;
/** `what` is `linked` when the connection is new: whatever was told before it was missed. */
type Changed = Pick<Extract<ToOperator, { type: "changed" }>, "what" | "id" | "revision" | "by">;
/** `aheadMs`: how far the engine's clock is ahead of this computer's. `told`: a rehearsal's own time, which stands or runs fast. */
type Live = {
  linked: "connecting" | "yes" | "no" | "gone";
  standing: Standing | null;
  aheadMs: number;
  told: Readonly<{ nowMs: number; atMs: number; pace: number }> | null;
};

/** How everything stands, as the engine tells it over this page's one WebSocket. */
export const useLive = create<Live>(() => ({ linked: "connecting", standing: null, aheadMs: 0, told: null }));
/** The engine's time, as near as this page knows it. */
export const nowMs = (): number => {
  const { aheadMs, told } = useLive.getState();
  return told === null ? Date.now() + aheadMs : told.nowMs + (Date.now() - told.atMs) * told.pace;
};
const toldBy = (r: Standing["rehearsal"]): Live["told"] =>
  r === null ? null : { nowMs: r.nowMs, atMs: Date.now(), pace: r.state === "runs" ? r.pace : 0 };

const markListeners = new Set<(marks: readonly TimelineEvent[]) => void>();
/** Hears what comes onto the tape. */
export function useMarks(listener: (marks: readonly TimelineEvent[]) => void): void {
  useEffect(() => {
    markListeners.add(listener);
    return () => void markListeners.delete(listener);
  }, [listener]);
}

const listeners = new Set<(changed: Changed) => void>();
/** Hears what other tabs and operators change. */
export function useChanged(listener: (changed: Changed) => void): void {
  useEffect(() => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  }, [listener]);
}

/** Keeps the WebSocket open while mounted; a session that ended elsewhere leads to the sign-in page. */
export function useLiveLink(whenEnded = "/sign-in?ended=1", rehearsal = ""): void {
  useEffect(() => {
    // What was told of another stage is nothing to this one.
    useRehearsalHere.setState({ id: rehearsal });
    useLive.setState({ linked: "connecting", standing: null, told: null });
    clearTalk();
    let ended = false;
    let socket: WebSocket | null = null;
    let tries = 0;
    let timer = 0;
    let watch = 0;
    // The schemas come after the page: it can be read and used before the first word is heard.
    const load = (): void =>
      void import("../../core/wire/messages").then(
        ({ toOperatorSchema }) => void (ended || open(toOperatorSchema)),
        () => {
          if (ended) return;
          tries += 1;
          if (tries > 1) useLive.setState({ linked: "no" });
          timer = window.setTimeout(load, 2_000);
        },
      );
    const open = (schema: typeof toOperatorSchema): void => {
      const mine = new WebSocket(`${location.protocol === "https:" ? "wss" : "ws"}://${location.host}/ws`);
      socket = mine;
      const heard = (): void => {
        clearTimeout(watch);
        watch = window.setTimeout(() => mine.close(), 40_000);
      };
      heard();
      let fresh = true;
      mine.onopen = () => mine.send(JSON.stringify({ v: wireVersion, type: "watch", as: "operator", rehearsal }));
      mine.onmessage = (event) => {
        heard();
        const message = schema.safeParse(JSON.parse(String(event.data)));
        if (!message.success) return;
        tries = 0;
        if (message.data.type === "standing") {
          useLive.setState({ linked: "yes", standing: message.data, told: toldBy(message.data.rehearsal) });
          if (fresh) for (const listener of listeners) listener({ what: "linked", id: "", revision: 0, by: "" });
          fresh = false;
        } else if (message.data.type === "changed") for (const listener of listeners) listener(message.data);
        else if (message.data.type === "talk") takeTalk(message.data.epoch, message.data.items, message.data.left);
        else if (message.data.type === "marks") for (const listener of markListeners) listener(message.data.items);
        else if (message.data.type === "beat" && message.data.nowMs > 0) {
          // What a message takes to get here makes a jump of a moment; a clock that is wrong makes one of minutes.
          const aheadMs = message.data.nowMs - Date.now();
          if (Math.abs(aheadMs - useLive.getState().aheadMs) > 250) useLive.setState({ aheadMs });
        }
      };
      mine.onclose = (event) => {
        clearTimeout(watch);
        if (ended || socket !== mine) return;
        if (event.code === 4003) return void location.assign(whenEnded);
        // A rehearsal that is no more does not come back.
        if (event.code === 4006) return void useLive.setState({ linked: "gone" });
        tries += 1;
        if (tries > 1) useLive.setState({ linked: "no" });
        timer = window.setTimeout(() => open(schema), Math.min(5_000, 300 * 1.8 ** tries) * (0.7 + Math.random() * 0.3));
      };
    };
    load();
    return () => {
      ended = true;
      clearTimeout(timer);
      clearTimeout(watch);
      socket?.close();
    };
  }, [whenEnded, rehearsal]);
}
