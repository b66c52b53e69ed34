"use client";
import { Box, chakra, Text } from "@chakra-ui/react";
import { Download } from "lucide-react";
import { useState } from "react";
import { mostChatLogBytes } from "../../../core/props/sizes";
import { count, counted } from "../../../core/words/sentence";
import type { ChatLogRow } from "../../../server/ports/chat-log-store";
import type { ChatLogAdded } from "../../../server/web/chat-logs";
import { tellTrouble } from "../../../ui/toaster";
import { BringIn, BroughtIn } from "../../_frame/brought-in";
import { type Answer, call } from "../../_frame/call";
import { clockOf } from "../../../core/words/clock";

/** Past chat from outside: a crowd for a channel that has no show behind it yet. */
export function ChatLogs({ chats, onChats }: Readonly<{ chats: readonly ChatLogRow[]; onChats: (chats: readonly ChatLogRow[]) => void }>) {
  const [added, setAdded] = useState<ChatLogAdded | null>(null);
  const look = async (): Promise<void> => {
    const said = await call<{ logs: readonly ChatLogRow[] }>("GET", "/chat-logs");
    if (said.ok) onChats(said.value.logs);
  };
  const came = (said: Answer<ChatLogAdded>): void => {
    setAdded(said.ok ? said.value : null);
    if (!said.ok) tellTrouble(said.words);
  };
  return (
    <BringIn
      aria-labelledby="chat-from-outside"
      data-testid="chat-logs"
      label="A log of past chat"
      button="Bring in a chat log"
      accept=".log,.txt,.jsonl,.ndjson,.json,text/plain"
      path="/chat-logs"
      most={mostChatLogBytes}
      onAnswer={came}
      onDone={look}
    >
      {(button) => (
        <>
          <Text as="h2" id="chat-from-outside" fontFamily="heading" fontWeight="700" fontSize="19px" mb="1">
            Chat from outside
          </Text>
          <Text color="inkSoft" fontSize="15px" mb="2">
            No show behind you yet? Bring in a log of past chat: lines like{" "}
            <chakra.code fontSize="14px">[19:03:11] &lt;name&gt; text</chakra.code>, IRC messages, or JSON Lines. It plays along here, and
            the odds lab can be asked about evenings like it.
          </Text>
          {button}
          {added !== null && (
            <Box role="status" mt="2" fontSize="15px">
              <Text fontWeight="600">
                {counted(added.lines, "line")} by {counted(added.people, "person", "people")} came in
                {added.left === 0 ? "." : `; ${counted(added.left, "line was", "lines were")} left out:`}
              </Text>
              {added.problems.map((p) => (
                <Text key={p.line} color="inkSoft">
                  Line {p.line}: {p.says}
                </Text>
              ))}
            </Box>
          )}
          <BroughtIn
            items={chats}
            label="Chat from outside"
            fieldLabel="What this chat is called"
            path="/chat-logs"
            name={(c) => c.name}
            facts={(c) => `${count(c.lines)} lines, ${clockOf(c.ms)}`}
            more={(c) => (
              <chakra.a
                href={`/api/chat-logs/${c.id}`}
                download
                aria-label={`Save a copy of ${c.name}`}
                title="Save a copy"
                p="2"
                color="ink"
              >
                <Download size={16} aria-hidden="true" />
              </chakra.a>
            )}
            onChanged={look}
          />
        </>
      )}
    </BringIn>
  );
}
