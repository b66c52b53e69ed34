"use client";
import { Box, Button, chakra, Flex, Menu, Portal, Stack, Text } from "@chakra-ui/react";
import { ChevronDown, Plus } from "lucide-react";
import Papa from "papaparse";
import { useSearchParams } from "next/navigation";
import { useRef, useState } from "react";
import { commandsFromJson, commandsFromRows, commandsOut, rowsOut } from "../../../../core/commands/files";
import { type CommandBook, newCommand, type OwnCommand } from "../../../../core/commands/settings";
import type { GameDraft } from "../../../../server/ports/operator-store";
import { ListField } from "../../../../ui/list-field";
import { tell } from "../../../../ui/toaster";
import { useLive } from "../../../_frame/live";
import { DraftBar } from "../_draft/draft-bar";
import { useDraft } from "../_draft/use-draft";
import { Card } from "./command-card";

const freshId = (): string => `c${Array.from(crypto.getRandomValues(new Uint32Array(2)), (n) => n.toString(36)).join("")}`.slice(0, 26);

/** The channel's own chat commands. */
export function CommandsEditor({ draft: first }: Readonly<{ draft: GameDraft }>) {
  const draft = useDraft(first.id, first);
  // The server's schema has accepted what it handed over, and every change here keeps to its shape.
  const book = draft.settings as CommandBook;
  const [open, setOpen] = useState<string | null>(useSearchParams().get("open"));
  const [problems, setProblems] = useState<readonly string[]>([]);
  const file = useRef<HTMLInputElement>(null);
  const counts = useLive((s) => s.standing?.games.find((g) => g.kind === "commands")?.view["counts"]) as
    Readonly<Record<string, number>> | undefined;
  const put = (commands: readonly OwnCommand[]): void => draft.change({ ...book, commands: [...commands] });
  const set = (id: string, part: Partial<OwnCommand>): void => put(book.commands.map((c) => (c.id === id ? { ...c, ...part } : c)));
  const take = async (given: File): Promise<void> => {
    const text = await given.text();
    const brought = given.name.endsWith(".json")
      ? commandsFromJson(text, book, () => freshId())
      : commandsFromRows(Papa.parse<string[]>(text, { skipEmptyLines: "greedy" }).data, book, () => freshId());
    setProblems(brought.problems);
    if (brought.commands.length === 0) return;
    put([...book.commands, ...brought.commands]);
    tell(`${brought.commands.length} commands came in.`, draft.undo);
  };
  const save = (name: string, text: string, type: string): void => {
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([text], { type }));
    link.download = name;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <Box>
      <DraftBar
        id={first.id}
        draft={draft}
        thing="list of commands"
        where=""
        lead={
          <Flex gap="3" align="center">
            <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="19px">
              Commands
            </Text>
            <Menu.Root positioning={{ placement: "bottom-start" }}>
              <Menu.Trigger asChild>
                <Button size="xs" variant="ghost">
                  In and out <ChevronDown size={14} aria-hidden="true" />
                </Button>
              </Menu.Trigger>
              <Portal>
                <Menu.Positioner>
                  <Menu.Content>
                    <Menu.Item value="in" onClick={() => file.current?.click()}>
                      From a file, JSON or CSV
                    </Menu.Item>
                    <Menu.Item value="json" onClick={() => save("commands.json", commandsOut(book), "application/json")}>
                      As JSON
                    </Menu.Item>
                    <Menu.Item
                      value="csv"
                      onClick={() =>
                        save(
                          "commands.csv",
                          Papa.unparse(
                            rowsOut(book).map((r) => [...r]),
                            { escapeFormulae: true },
                          ),
                          "text/csv",
                        )
                      }
                    >
                      As CSV
                    </Menu.Item>
                  </Menu.Content>
                </Menu.Positioner>
              </Portal>
            </Menu.Root>
            <input
              ref={file}
              type="file"
              hidden
              accept=".json,.csv,.txt"
              aria-label="A file of commands"
              onChange={(e) => {
                const given = e.currentTarget.files?.[0];
                if (given !== undefined) void take(given);
                e.currentTarget.value = "";
              }}
            />
          </Flex>
        }
      />
      <Box px="5" py="4" maxW="1000px" mx="auto">
        <Text color="inkSoft" mb="3">
          Words that answer in chat. Those for points stand under Points, those that buy under Rewards, moderators’ own under Show. Viewers
          read the list on the viewer page.
        </Text>
        {problems.length > 0 && (
          <Box bg="note" borderRadius="8px" px="4" py="2.5" mb="3" role="alert" fontSize="15px">
            {problems.slice(0, 12).map((p) => (
              <Text key={p}>{p}</Text>
            ))}
            {problems.length > 12 && <Text>and {problems.length - 12} more.</Text>}
            <Button size="xs" variant="ghost" onClick={() => setProblems([])}>
              Read
            </Button>
          </Box>
        )}
        <Stack gap="2.5" role="list" aria-label="Commands">
          {book.commands.map((c) => (
            <Card
              key={c.id}
              command={c}
              times={counts?.[c.id] ?? 0}
              open={open === c.id}
              onOpen={() => setOpen(open === c.id ? null : c.id)}
              onSet={(part) => set(c.id, part)}
              onRemove={() => {
                put(book.commands.filter((x) => x.id !== c.id));
                tell(`${c.words[0] ?? "The command"} was taken out.`, draft.undo);
              }}
            />
          ))}
        </Stack>
        {book.commands.length === 0 && (
          <Text bg="raised" borderRadius="10px" p="4">
            There is no command of your own yet. Add one: a word, and what chat is told when somebody writes it.
          </Text>
        )}
        <Button
          mt="3"
          variant="outline"
          disabled={book.commands.length >= 300}
          onClick={() => {
            const id = freshId();
            put([...book.commands, newCommand(id, `!word${book.commands.length + 1}`, "…")]);
            setOpen(id);
          }}
        >
          <Plus size={16} aria-hidden="true" /> Add a command
        </Button>
        <Box mt="5" fontSize="15.5px">
          <chakra.label>
            Other programs that speak in this chat, which nothing here answers:{" "}
            <ListField
              list={book.bots}
              shape={{ apart: "commas", most: 30, letters: 60 }}
              width="320px"
              placeholder="their names, set apart by commas"
              onSet={(bots) => draft.change({ ...book, bots })}
            />
          </chakra.label>
        </Box>
      </Box>
    </Box>
  );
}
