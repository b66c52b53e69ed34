"use client";
import { Box, Button, chakra, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { Download, Pencil, Trash2 } from "lucide-react";
import { useRef, useState } from "react";
import { count, counted } from "../../../core/words/sentence";
import type { ChatLogRow } from "../../../server/ports/chat-log-store";
import type { ChatLogAdded } from "../../../server/web/chat-logs";
import { useDrop } from "../../../ui/drop-area";
import { IconButton } from "../../../ui/icon-button";
import { tell, tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { clockOf } from "../../../core/words/clock";

/** Past chat from outside: a crowd for a channel that has no show behind it yet. */
export function ChatLogs({ chats, onChats }: Readonly<{ chats: readonly ChatLogRow[]; onChats: (chats: readonly ChatLogRow[]) => void }>) {
  const [busy, setBusy] = useState(false);
  const [added, setAdded] = useState<ChatLogAdded | null>(null);
  const [naming, setNaming] = useState<Readonly<{ id: string; name: string }> | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const look = async (): Promise<void> => {
    const said = await call<{ logs: readonly ChatLogRow[] }>("GET", "/chat-logs");
    if (said.ok) onChats(said.value.logs);
  };
  const bring = async (files: readonly File[]): Promise<void> => {
    setBusy(true);
    setAdded(null);
    for (const file of files) {
      const form = new FormData();
      form.set("file", file);
      const said = await call<ChatLogAdded>("POST", "/chat-logs", form);
      if (said.ok) setAdded(said.value);
      else tellTrouble(said.words);
    }
    await look();
    setBusy(false);
  };
  const act = async (id: string, body: Readonly<{ do: string; name?: string }>, done?: string): Promise<void> => {
    const said = await call("POST", `/chat-logs/${id}`, body);
    if (!said.ok) tellTrouble(said.words);
    else if (done !== undefined) tell(done);
    setNaming(null);
    await look();
  };
  const { over, handlers } = useDrop((files) => void bring(files));
  const here = chats.filter((c) => c.removedMs === null);
  const removed = chats.filter((c) => c.removedMs !== null);
  return (
    <Box
      as="section"
      aria-labelledby="chat-from-outside"
      {...handlers}
      borderRadius="10px"
      outline={over ? "2px dashed" : "none"}
      outlineColor="ochre.solid"
      outlineOffset="6px"
      data-testid="chat-logs"
    >
      <Text as="h2" id="chat-from-outside" fontFamily="heading" fontWeight="700" fontSize="19px" mb="1">
        Chat from outside
      </Text>
      <Text color="inkSoft" fontSize="15px" mb="2">
        No show behind you yet? Bring in a log of past chat: lines like{" "}
        <chakra.code fontSize="14px">[19:03:11] &lt;name&gt; text</chakra.code>, IRC messages, or JSON Lines. It plays along here, and the
        odds lab can be asked about evenings like it.
      </Text>
      <chakra.input
        ref={field}
        type="file"
        accept=".log,.txt,.jsonl,.ndjson,.json,text/plain"
        aria-label="A log of past chat"
        position="absolute"
        width="1px"
        height="1px"
        overflow="hidden"
        opacity="0"
        onChange={(e) => {
          const files = [...(e.currentTarget.files ?? [])];
          e.currentTarget.value = "";
          void bring(files);
        }}
      />
      <Button size="sm" variant="outline" loading={busy} onClick={() => field.current?.click()}>
        Bring in a chat log
      </Button>
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
      <Stack as="ul" gap="0" mt="2" aria-label="Chat from outside">
        {here.map((c) => (
          <Flex as="li" key={c.id} listStyleType="none" align="center" gap="2" py="1" borderBottomWidth="1px" borderColor="line">
            {naming?.id === c.id ? (
              <chakra.form
                flex="1"
                display="flex"
                gap="2"
                onSubmit={(e) => {
                  e.preventDefault();
                  void act(c.id, { do: "rename", name: naming.name });
                }}
              >
                <Input
                  size="sm"
                  autoFocus
                  aria-label="What this chat is called"
                  value={naming.name}
                  maxLength={120}
                  onChange={(e) => setNaming({ id: c.id, name: e.target.value })}
                />
                <Button size="sm" type="submit">
                  Keep
                </Button>
              </chakra.form>
            ) : (
              <Text flex="1" minW="0" truncate fontWeight="600">
                {c.name}
              </Text>
            )}
            <Text color="inkSoft" fontSize="14.5px" whiteSpace="nowrap">
              {count(c.lines)} lines, {clockOf(c.ms)}
            </Text>
            <IconButton label={`Call ${c.name} something else`} onClick={() => setNaming({ id: c.id, name: c.name })}>
              <Pencil size={16} />
            </IconButton>
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
            <IconButton
              label={`Remove ${c.name}`}
              onClick={() => void act(c.id, { do: "remove" }, "Removed. It can be brought back for a week.")}
            >
              <Trash2 size={16} />
            </IconButton>
          </Flex>
        ))}
      </Stack>
      {removed.map((c) => (
        <Flex key={c.id} align="center" gap="3" mt="2" fontSize="15px" color="inkSoft">
          <Text flex="1" minW="0" truncate>
            {c.name} was removed.
          </Text>
          <Button
            size="xs"
            variant="outline"
            aria-label={`Bring back ${c.name}`}
            onClick={() => void act(c.id, { do: "restore" }, "It is back.")}
          >
            Bring back
          </Button>
        </Flex>
      ))}
    </Box>
  );
}
