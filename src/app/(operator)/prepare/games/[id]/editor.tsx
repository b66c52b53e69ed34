"use client";
import { Box, Grid, Tabs, Text } from "@chakra-ui/react";
import Link from "next/link";
import { useMemo, useState } from "react";
import type { Sprite } from "../../../../../core/wire/messages";
import { sheets } from "../../../../../games/registry-sheets";
import type { GameDraft, OverlaySummary } from "../../../../../server/ports/operator-store";
import { SentenceForm } from "../../../../../ui/sentence-form";
import { type Act, useOffer } from "../../../../../ui/keys";
import { OverlayCards } from "../../overlays/overlay-cards";
import { GameName } from "./game-name";
import { Happened } from "./happened";
import { EmotePicker } from "./emote-picker";
import { Preview } from "./preview";
import { DraftBar } from "../../_draft/draft-bar";
import { useDraft } from "../../_draft/use-draft";

export function Editor({
  draft: first,
  overlays,
  sprites,
  owner,
  home,
}: Readonly<{ draft: GameDraft; overlays: readonly OverlaySummary[]; sprites: readonly Sprite[]; owner: boolean; home: string }>) {
  const { id, kind } = first;
  const sheet = sheets[kind];
  const draft = useDraft(id, first);
  const { settings, set } = draft;
  const [tab, setTab] = useState("rules");
  const standsOn = overlays.filter((o) => o.games.includes(id));
  const where =
    standsOn.length === 0
      ? overlays[0] === undefined
        ? ""
        : `“${overlays[0].name}”`
      : standsOn.length === 1
        ? `“${standsOn[0]?.name ?? ""}”`
        : `${standsOn.length} overlays`;

  const acts = useMemo(
    (): Act[] => [
      { id: "editor.rules", label: "Show the rules", group: "This game", run: () => setTab("rules") },
      { id: "editor.looks", label: "Show the looks", group: "This game", run: () => setTab("looks") },
      { id: "editor.overlay", label: "Show where it is seen", group: "This game", run: () => setTab("overlay") },
    ],
    [],
  );
  useOffer("editor", acts);
  if (sheet === undefined) return <Text p="8">This kind of game can’t be edited by this version of Izzam.</Text>;

  const facts = { ownEmotes: sprites.filter((s) => s.key.startsWith("own:")).length, home };
  const hints = sheet.hints(settings, facts);
  return (
    <Box>
      <DraftBar
        id={id}
        draft={draft}
        thing="game"
        where={where}
        lead={
          <>
            <Text color="inkSoft">
              <Link href="/prepare">Games</Link> ›
            </Text>
            <GameName id={id} name={first.name} />
            <Text color="inkSoft">{sheet.kindName}</Text>
          </>
        }
      />
      <Grid
        templateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 620px) minmax(0, 1fr)" }}
        gap="8"
        px="5"
        py="4"
        maxW="1480px"
        mx="auto"
      >
        <Preview kind={kind} sheet={sheet} settings={settings} sprites={sprites} showArea={tab === "looks"} home={home} />
        <Tabs.Root value={tab} onValueChange={(e) => setTab(e.value)} variant="line" colorPalette="ochre" lazyMount>
          <Tabs.List mb="4">
            <Tabs.Trigger value="rules" fontWeight="700">
              Rules
            </Tabs.Trigger>
            <Tabs.Trigger value="looks" fontWeight="700">
              Looks
            </Tabs.Trigger>
            <Tabs.Trigger value="overlay" fontWeight="700">
              Where it is seen
            </Tabs.Trigger>
            {sheet.keepsReigns === true && draft.published.version > 0 && (
              <Tabs.Trigger value="happened" fontWeight="700">
                What happened
              </Tabs.Trigger>
            )}
          </Tabs.List>
          <Tabs.Content value="rules" p="0">
            <SentenceForm
              sentences={sheet.sentences(settings, facts)}
              settings={settings}
              onChange={set}
              emotes={
                <EmotePicker
                  sprites={sprites.filter((s) => s.key.startsWith("own:"))}
                  settings={settings}
                  path="flock.chosen"
                  onChange={set}
                />
              }
            />
            {sheet.Extra !== undefined && <sheet.Extra settings={settings} sprites={sprites} onChange={set} />}
            <Box
              mt="5"
              pt="3"
              borderTopWidth="2px"
              borderTopStyle="dashed"
              borderColor="line"
              fontSize="15px"
              color="inkSoft"
              data-testid="viewer-words"
            >
              <b>Viewers will be told:</b> {sheet.rulesInWords(settings, facts)}
            </Box>
            {hints.map((hint) => (
              <Box key={hint.id} mt="4" bg="note" borderRadius="8px" px="4" py="3" fontSize="15.5px" data-hint={hint.id}>
                <b>Worth a look.</b> {hint.text}
              </Box>
            ))}
          </Tabs.Content>
          <Tabs.Content value="looks" p="0">
            <sheet.Looks settings={settings} sprites={sprites} onChange={set} />
          </Tabs.Content>
          <Tabs.Content value="happened" p="0">
            <Happened id={id} />
          </Tabs.Content>
          <Tabs.Content value="overlay" p="0">
            <Text color="inkSoft" mb="3">
              An overlay is a transparent page. Copy its link into a browser source of your broadcast software.
            </Text>
            <OverlayCards overlays={overlays} owner={owner} game={id} name={first.name} published={draft.published.version > 0} />
          </Tabs.Content>
        </Tabs.Root>
      </Grid>
    </Box>
  );
}
