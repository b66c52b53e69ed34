"use client";
import { Box, Grid, Tabs, Text } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useSearchParams } from "next/navigation";
import { useCallback, useMemo, useState } from "react";
import { dressDefaults } from "../../../../../core/dress/dress";
import { variablesOf } from "../../../../../core/rules/effects";
import type { Sprite } from "../../../../../core/wire/messages";
import { type AnyGame, wordsForViewers } from "../../../../../core/module/game";
import { useShown } from "../../../../../games/registry-shown";
import type { GameDraft, OverlaySummary } from "../../../../../server/ports/operator-store";
import { SentenceForm } from "../../../../../ui/sentence-form";
import { useScenes } from "../../../../_frame/use-scenes";
import { type Act, useOffer } from "../../../../../ui/keys";
import { PreviewPlace } from "./preview-place";
import { OverlayCards } from "../../overlays/overlay-cards";
import type { EffectsEditor, GameShown } from "../../../../../games/shown";
import type { Available } from "../../_effects/available";
import { EffectList } from "../../_effects/effect-list";
import { GameName } from "./game-name";
import { History } from "./history";
import { EmotePicker } from "./emote-picker";
import { DraftBar } from "../../_draft/draft-bar";
import { useLive } from "../../../../_frame/live";
import { useDraft } from "../../_draft/use-draft";
import { useGame } from "../../use-game";

// The picture and all that draws it come after the rules, which can be read and changed meanwhile.
const Preview = dynamic(() => import("./preview").then((m) => m.Preview), { ssr: false, loading: PreviewPlace });

type EditorProps = Readonly<{
  draft: GameDraft;
  overlays: readonly OverlaySummary[];
  sprites: readonly Sprite[];
  owner: boolean;
  available: Available;
}>;

/** What one sets a game to; its rules come with its kind. */
export function Editor(props: EditorProps) {
  const { name, kind } = props.draft;
  const game = useGame(kind);
  const shown = useShown(kind);
  if (game === undefined)
    return (
      <Box p="5" aria-busy="true">
        <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="20px">
          {name}
        </Text>
      </Box>
    );
  if (game === null || shown === null) return <Text p="8">This kind of game can’t be edited by this version of Izzam.</Text>;
  return <Open {...props} game={game} shown={shown} />;
}

function Open({
  draft: first,
  overlays,
  sprites,
  owner,
  available,
  game,
  shown,
}: EditorProps & Readonly<{ game: AnyGame; shown: GameShown | undefined }>) {
  const { home } = available;
  const { id, kind } = first;
  const points = useLive((s) => s.standing?.sales.points) ?? "points";
  const draft = useDraft(id, first);
  const { settings, set } = draft;
  const asked = useSearchParams();
  const [tab, setTab] = useState(asked.get("tab") === "overlay" ? "overlay" : "rules");
  const standsOn = overlays.filter((o) => o.games.includes(id));
  // What changes the broadcast software’s picture stands on none of ours.
  const bodiless = game.bodiless === true;
  const where = bodiless
    ? ""
    : standsOn.length === 0
      ? overlays[0] === undefined
        ? ""
        : `“${overlays[0].name}”`
      : standsOn.length === 1
        ? `“${standsOn[0]?.name ?? ""}”`
        : `${standsOn.length} overlays`;

  const acts = useMemo(
    (): Act[] => [
      { id: "editor.rules", label: "Show the rules", group: "This game", run: () => setTab("rules") },
      ...(bodiless
        ? []
        : [
            { id: "editor.looks", label: "Show the appearance", group: "This game", run: () => setTab("looks") },
            { id: "editor.overlay", label: "Show where it is seen", group: "This game", run: () => setTab("overlay") },
          ]),
    ],
    [bodiless],
  );
  useOffer("editor", acts);
  const scenes = useScenes();
  const Effects = useCallback<EffectsEditor>(
    ({ label, effects, what, onSet }) => (
      <EffectList
        label={label}
        effects={effects}
        asked={{ when: "happened", what }}
        variables={variablesOf["happened"] ?? []}
        available={available}
        onSet={onSet}
      />
    ),
    [available],
  );
  const facts = { ownEmotes: sprites.filter((s) => s.key.startsWith("own:")).length, home, points };
  const hints = game.hints?.(settings, facts) ?? [];
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
            <GameName id={id} name={first.name} fresh={asked.get("name") !== null} />
            <Text color="inkSoft">{game.name}</Text>
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
        <Preview
          game={game}
          area={shown?.area}
          settings={settings}
          sprites={sprites}
          showArea={tab === "looks"}
          home={home}
          dress={standsOn[0]?.dress ?? dressDefaults}
        />
        <Tabs.Root value={tab} onValueChange={(e) => setTab(e.value)} variant="line" colorPalette="ochre" lazyMount>
          <Tabs.List mb="4">
            <Tabs.Trigger value="rules" fontWeight="700">
              Rules
            </Tabs.Trigger>
            {!bodiless && (
              <>
                <Tabs.Trigger value="looks" fontWeight="700">
                  Appearance
                </Tabs.Trigger>
                <Tabs.Trigger value="overlay" fontWeight="700">
                  Where it is seen
                </Tabs.Trigger>
              </>
            )}
            {shown?.History !== undefined && draft.published.version > 0 && (
              <Tabs.Trigger value="happened" fontWeight="700">
                What happened
              </Tabs.Trigger>
            )}
          </Tabs.List>
          <Tabs.Content value="rules" p="0">
            <SentenceForm
              sentences={game.sentences(settings, facts)}
              settings={settings}
              onChange={set}
              emotes={(path) => (
                <EmotePicker sprites={sprites.filter((s) => s.key.startsWith("own:"))} settings={settings} path={path} onChange={set} />
              )}
            />
            {shown?.Extra !== undefined && (
              <shown.Extra settings={settings} sprites={sprites} onChange={set} Effects={Effects} home={home} scenes={scenes} />
            )}
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
              <b>Viewers will be told:</b> {wordsForViewers(game, settings, facts).join(" ")}
            </Box>
            {hints.map((hint) => (
              <Box key={hint.id} mt="4" bg="note" borderRadius="8px" px="4" py="3" fontSize="15.5px" data-hint={hint.id}>
                <b>Worth a look.</b> {hint.text}
              </Box>
            ))}
          </Tabs.Content>
          <Tabs.Content value="looks" p="0">
            {shown !== undefined && <shown.Looks settings={settings} sprites={sprites} onChange={set} />}
          </Tabs.Content>
          <Tabs.Content value="happened" p="0">
            {shown?.History !== undefined && <History id={id} kind={kind} Part={shown.History} />}
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
