"use client";
import { Box, Button, chakra, Flex, Menu, Portal, Stack, Text } from "@chakra-ui/react";
import { ChevronDown, Plus, Trash2 } from "lucide-react";
import Papa from "papaparse";
import { useRef, useState } from "react";
import { commandsFromJson, commandsFromRows, commandsOut, rowsOut } from "../../../../core/commands/files";
import { type CommandBook, commandBookSchema, commandVariables, newCommand, type OwnCommand } from "../../../../core/commands/settings";
import type { GameDraft } from "../../../../server/ports/operator-store";
import { Blank } from "../../../../ui/blank";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { Stub } from "../../../../ui/stub";
import { TemplateField } from "../../../../ui/template-field";
import { tell } from "../../../../ui/toaster";
import { useLive } from "../../../_frame/live";
import { DraftBar } from "../_draft/draft-bar";
import { useDraft } from "../_draft/use-draft";
import { inputLook } from "../../../../ui/input-look";

const freshId = (): string => `c${Array.from(crypto.getRandomValues(new Uint32Array(2)), (n) => n.toString(36)).join("")}`.slice(0, 26);

/** The channel's own chat commands. */
export function CommandsEditor({ draft: first }: Readonly<{ draft: GameDraft }>) {
  const draft = useDraft(first.id, first);
  // The server's schema has accepted what it handed over, and every change here keeps to its shape.
  const book = draft.settings as CommandBook;
  const [open, setOpen] = useState<string | null>(null);
  const [problems, setProblems] = useState<readonly string[]>([]);
  const file = useRef<HTMLInputElement>(null);
  const counts = useLive((s) => s.standing?.games.find((g) => g.kind === "commands")?.view["counts"]) as
    Readonly<Record<string, number>> | undefined;
  const problem = commandBookSchema.safeParse(book);
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
        {!problem.success && (
          <Box bg="blank" borderRadius="8px" px="4" py="2.5" mb="3" role="alert" fontSize="15.5px">
            <b>Not saved yet.</b> {problem.error.issues[0]?.message}
          </Box>
        )}
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
            <chakra.input
              {...inputLook}
              width="320px"
              placeholder="their names, set apart by commas"
              defaultValue={book.bots.join(", ")}
              onBlur={(e) =>
                draft.change({
                  ...book,
                  bots: e.currentTarget.value
                    .split(",")
                    .map((b) => b.trim().slice(0, 60))
                    .filter((b) => b !== "")
                    .slice(0, 30),
                })
              }
            />
          </chakra.label>
        </Box>
      </Box>
    </Box>
  );
}

function Card({
  command,
  times,
  open,
  onOpen,
  onSet,
  onRemove,
}: Readonly<{
  command: OwnCommand;
  times: number;
  open: boolean;
  onOpen: () => void;
  onSet: (part: Partial<OwnCommand>) => void;
  onRemove: () => void;
}>) {
  return (
    <Stub
      role="listitem"
      data-command={command.words[0]}
      end={
        <Button size="sm" variant="outline" aria-expanded={open} onClick={onOpen}>
          {open ? "Done" : "Change"}
        </Button>
      }
    >
      <Flex gap="3" align="baseline" wrap="wrap">
        <Text fontFamily="mono" fontWeight="700">
          {command.words.join(" ")}
        </Text>
        {!open && (
          <Text color="inkSoft" flex="1" minW="0" truncate>
            {command.answers[0]}
            {command.answers.length > 1 ? ` · one of ${command.answers.length}` : ""}
          </Text>
        )}
        {command.counts && (
          <Text fontSize="15px" color="inkSoft">
            {times}×
          </Text>
        )}
        {!command.on && <Text color="inkSoft">off</Text>}
      </Flex>
      {open && (
        <Stack gap="3" mt="2" fontSize="15.5px" lineHeight="2">
          <Box>
            <Blank
              blank={{
                path: "roles",
                label: "Whom it answers",
                text: command.roles.includes("viewer")
                  ? "Everyone"
                  : command.roles.length === 1
                    ? "One role"
                    : `${command.roles.length} roles`,
                field: { kind: "roles" },
              }}
              value={command.roles}
              onChange={(roles) => onSet({ roles: roles as OwnCommand["roles"] })}
            />{" "}
            who writes{" "}
            <chakra.input
              {...inputLook}
              aria-label="Words of the command, set apart by spaces"
              width="190px"
              fontFamily="mono"
              defaultValue={command.words.join(" ")}
              onBlur={(e) =>
                onSet({
                  words: e.currentTarget.value
                    .split(/[\s,]+/)
                    .filter((w) => w !== "")
                    .map((w) => w.slice(0, 30))
                    .slice(0, 6),
                })
              }
            />{" "}
            is answered. Then it rests for{" "}
            <NumberField
              label="Rests for everyone"
              value={command.cooldownMs}
              min={0}
              max={86_400_000}
              scale={1000}
              unit="s"
              onSet={(cooldownMs) => onSet({ cooldownMs })}
            />
            , for the one who wrote it{" "}
            <NumberField
              label="Rests for who wrote it"
              value={command.ownCooldownMs}
              min={0}
              max={86_400_000}
              scale={1000}
              unit="s"
              onSet={(ownCooldownMs) => onSet({ ownCooldownMs })}
            />
            . It{" "}
            <Pick
              label="Whether it counts"
              value={command.counts ? "yes" : "no"}
              options={[
                { value: "no", words: "does not count" },
                { value: "yes", words: "counts how often" },
              ]}
              onSet={(v) => onSet({ counts: v === "yes" })}
            />{" "}
            and gives{" "}
            <Pick
              label="Which answer"
              value={command.how}
              options={[
                { value: "first", words: "its answer" },
                { value: "random", words: "one of its answers, by chance" },
                { value: "in-turn", words: "its answers in turn" },
              ]}
              onSet={(how) => onSet({ how: how === "random" || how === "in-turn" ? how : "first" })}
            />
            .
          </Box>
          <Stack gap="2" role="list" aria-label="Answers">
            {command.answers.map((answer, i) => (
              <Flex key={i} role="listitem" gap="2" align="start">
                <Box flex="1">
                  <TemplateField
                    label={`Answer ${i + 1}`}
                    value={answer}
                    variables={commandVariables}
                    placeholder="what chat is told"
                    onSet={(text) => onSet({ answers: command.answers.map((a, k) => (k === i ? text : a)) })}
                  />
                </Box>
                {command.answers.length > 1 && (
                  <Button
                    size="xs"
                    variant="ghost"
                    px="1"
                    aria-label={`Take answer ${i + 1} out`}
                    onClick={() => onSet({ answers: command.answers.filter((_, k) => k !== i) })}
                  >
                    <Trash2 size={15} />
                  </Button>
                )}
              </Flex>
            ))}
          </Stack>
          <Flex gap="2" align="center" wrap="wrap">
            <Button
              size="xs"
              variant="outline"
              disabled={command.answers.length >= 100}
              onClick={() => onSet({ answers: [...command.answers, ""], how: command.how === "first" ? "random" : command.how })}
            >
              <Plus size={14} aria-hidden="true" /> Another answer
            </Button>
            <chakra.input
              {...inputLook}
              aria-label="What viewers read about it"
              flex="1"
              minW="220px"
              maxLength={120}
              placeholder="what viewers read in the list; empty for not listed"
              value={command.about}
              onChange={(e) => onSet({ about: e.currentTarget.value })}
            />
            <Button size="xs" variant="outline" aria-pressed={command.on} onClick={() => onSet({ on: !command.on })}>
              {command.on ? "On" : "Off"}
            </Button>
            <Button size="xs" variant="ghost" px="1" aria-label="Take this command out" onClick={onRemove}>
              <Trash2 size={15} />
            </Button>
          </Flex>
        </Stack>
      )}
    </Stub>
  );
}
