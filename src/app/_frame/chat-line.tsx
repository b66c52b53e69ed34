"use client";
import { Text } from "@chakra-ui/react";
import Link from "next/link";
import { counted } from "../../core/words/sentence";
import { useLive } from "./live";
import { When } from "../../ui/when";
import { StatusLine } from "./status-line";

/** One line that says how chat stands: the first thing to know before anything can fly. */
export function ChatLine({ practice = "" }: { practice?: string }) {
  const { linked, standing } = useLive();
  const chat = standing?.chat;
  const state = linked === "no" ? "lost" : (chat?.state ?? "asking");
  const good = state === "connected";
  return (
    <StatusLine
      id="chat"
      state={state}
      colour={good ? "mossText" : state === "asking" || state === "connecting" ? "ochreText" : "brickText"}
      aside={
        good && practice !== "" ? (
          <a href={practice} target="_blank" rel="noreferrer">
            Chat as a viewer
          </a>
        ) : !good && state !== "asking" && state !== "lost" ? (
          <Link href="/prepare/connections">{state === "off" ? "Connect chat" : "Look at the connection"}</Link>
        ) : null
      }
    >
      {good && chat !== undefined && (
        <>
          <b>Chat is connected</b>
          {chat.room !== "" && ` to ${chat.room}`}
          {chat.sinceMs !== null && (
            <>
              , since <When atMs={chat.sinceMs} />
            </>
          )}
          . {chat.heardMs === null ? "Nobody wrote yet. " : ""}
          {chat.heardMs !== null && (
            <>
              Last heard <When atMs={chat.heardMs} />;{" "}
            </>
          )}
          {counted(chat.perMinute, "message")} in the last minute.
          {chat.lastTrouble !== null && (
            <Text as="span" color="inkSoft">
              {" "}
              Last trouble <When atMs={chat.lastTrouble.atMs} />: {chat.lastTrouble.words}
            </Text>
          )}
        </>
      )}
      {state === "waiting" && (
        <>
          <b>Chat is not connected.</b> {chat?.lastError} Izzam keeps trying.
        </>
      )}
      {state === "connecting" && <b>Connecting to chat…</b>}
      {state === "off" && (
        <>
          <b>No chat is set up yet.</b> Emotes fly once Izzam hears the channel’s chat.
        </>
      )}
      {state === "lost" && <b>This page lost its connection to Izzam. It reconnects by itself.</b>}
      {state === "asking" && "Asking how chat stands…"}
    </StatusLine>
  );
}
