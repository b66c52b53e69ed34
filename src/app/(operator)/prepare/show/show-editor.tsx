"use client";
import { IconButton } from "../../../../ui/icon-button";
import { RolesBlank } from "../../../../ui/roles-blank";
import { Box, Button, chakra, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { Plus, Trash2 } from "lucide-react";
import { withValueAt } from "../../../../core/words/sentence";
import { commandEffects, gameEffects, type ModeratorWord, type ShowSettings } from "../../../../core/show/settings";
import { commandEffectWords, showSentences } from "../../../../core/show/words";
import type { GameDraft } from "../../../../server/ports/operator-store";
import { frontOf } from "../../../../core/games/fronts";
import { actionOf } from "../../../../core/games/words";
import { numberField } from "../../../../core/module/field-of";
import { Pick } from "../../../../ui/pick";
import { SentenceForm } from "../../../../ui/sentence-form";
import { DraftBar } from "../_draft/draft-bar";
import { useDraft } from "../_draft/use-draft";
import { Rundown } from "./rundown";
import type { Available } from "../_effects/available";
import type { Named, NamedGame } from "./plan-line";

/** The show: its rundown, how it begins and ends, and what moderators may do by chat word. */
export function ShowEditor({
  draft: first,
  cues,
  available,
}: Readonly<{ draft: GameDraft; cues: readonly Named[]; available: Available }>) {
  const { games } = available;
  const draft = useDraft(first.id, first);
  // The server's schema has accepted what it handed over, and every change here keeps to its shape.
  const settings = draft.settings as ShowSettings;
  const put = (commands: ModeratorWord[]): void => draft.change({ ...settings, commands });
  return (
    <Box maxW="1180px" mx="auto">
      <Rundown cues={cues} games={games} available={available} />
      <Box borderTopWidth="1px" borderColor="line" mt="6">
        <DraftBar
          id={first.id}
          draft={draft}
          thing="show"
          where=""
          lead={
            <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="19px">
              How a show goes
            </Text>
          }
        />
      </Box>
      <Box px="5" py="4">
        <SentenceForm
          sentences={showSentences(settings)}
          settings={settings}
          onChange={(path, value) => draft.change(withValueAt(settings, path, value))}
        />
        <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px" mt="6">
          Chat commands for moderators
        </Text>
        <Text color="inkSoft" mb="3">
          Who types one of these words in chat does the same as a hand in the booth, and chat hears what came of it. The words are yours to
          choose. Cues have their words under Cues.
        </Text>
        <Stack gap="2" role="list" aria-label="Chat commands">
          {settings.commands.map((command) => (
            <CommandLine
              key={command.id}
              command={command}
              games={games}
              onSet={(part) => put(settings.commands.map((c) => (c.id === command.id ? { ...c, ...part } : c)))}
              onRemove={() => put(settings.commands.filter((c) => c.id !== command.id))}
            />
          ))}
        </Stack>
        {settings.commands.length === 0 && (
          <Text bg="raised" borderRadius="10px" p="4">
            There is none yet. Add one, choose its word and what it does, and publish.
          </Text>
        )}
        <Button
          mt="3"
          variant="outline"
          disabled={settings.commands.length >= 60}
          onClick={() => {
            const id = `w${Date.now().toString(36)}`;
            put([
              ...settings.commands,
              { id, word: `!word${settings.commands.length + 1}`, does: "hush", game: "", act: "", roles: ["moderator", "streamer"] },
            ]);
          }}
        >
          <Plus size={16} aria-hidden="true" /> Add a command
        </Button>
      </Box>
    </Box>
  );
}

function CommandLine({
  command,
  games,
  onSet,
  onRemove,
}: Readonly<{ command: ModeratorWord; games: readonly NamedGame[]; onSet: (part: Partial<ModeratorWord>) => void; onRemove: () => void }>) {
  const kind = games.find((g) => g.id === command.game)?.kind ?? "";
  const action = command.does === "act" ? actionOf(kind, command.act) : null;
  const wants = gameEffects.includes(command.does);
  const there = games.some((g) => g.id === command.game) && (command.does !== "act" || action !== null);
  // What a game can do stands with its name; starting and stopping asks for one.
  const value = command.does === "act" ? `${command.game}/${command.act}` : command.does;
  const options = [
    ...commandEffects.filter((d) => d !== "act").map((d) => ({ value: d as string, words: commandEffectWords[d] })),
    ...games.flatMap((g) =>
      Object.entries(frontOf(g.kind)?.actions ?? {})
        .filter(([, a]) => a.onlyThere !== true)
        .map(([act, a]) => ({ value: `${g.id}/${act}`, words: `${g.name}: ${a.label.toLowerCase()}` })),
    ),
  ];
  return (
    <Flex
      role="listitem"
      bg="raised"
      borderRadius="8px"
      px="3"
      py="2"
      gap="2"
      align="center"
      wrap="wrap"
      fontSize="15.5px"
      data-command={command.id}
    >
      <Input
        size="sm"
        width="120px"
        bg="ground"
        fontFamily="mono"
        aria-label="Word of the command"
        value={command.word}
        maxLength={30}
        onChange={(e) => onSet({ word: e.currentTarget.value.replace(/\s/g, "") })}
      />
      {action !== null && numberField(action.input) !== null && (
        <chakra.span fontFamily="mono" color="inkSoft">
          50
        </chakra.span>
      )}
      <Pick
        label="What the command does"
        value={value}
        options={options}
        onSet={(chosen) => {
          const [game = "", act = ""] = chosen.split("/");
          const does = commandEffects.find((d) => d === chosen);
          if (does === undefined) onSet({ does: "act", game, act });
          else onSet({ does, act: "", game: gameEffects.includes(does) ? command.game : "" });
        }}
      />
      {wants && command.does !== "act" && (
        <Pick
          label="Of which game"
          value={command.game}
          options={games.map((g) => ({ value: g.id, words: g.name }))}
          onSet={(game) => onSet({ game })}
        />
      )}
      <Box>
        for <RolesBlank label="Who may use it" roles={command.roles} onSet={(roles) => onSet({ roles })} />
      </Box>
      {wants && !there && (
        <Text color="brickText" fontSize="15px">
          Choose a game, or it does nothing.
        </Text>
      )}
      <Box flex="1" />
      <IconButton label={`Take ${command.word} out`} onClick={onRemove}>
        <Trash2 size={15} />
      </IconButton>
    </Flex>
  );
}
