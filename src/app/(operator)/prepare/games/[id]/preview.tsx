"use client";
import { Box, Button, chakra, Flex, Input, Text } from "@chakra-ui/react";
import { type FormEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Dress } from "../../../../../core/dress/dress";
import { noteInWords } from "../../../../../core/notes";
import { type Role, roles, roleWords } from "../../../../../core/signals/names";
import { bareStage, type Sprite, wholePlace } from "../../../../../core/wire/messages";
import { scenes } from "../../../../../games/registry-scenes";
import { chanceFrom } from "../../../../../core/kernel/chance";
import type { AnyGame, Tried } from "../../../../../core/module/game";
import { typed } from "../../../../../core/module/samples";
import type { GameShown } from "../../../../../games/shown";
import { lookedAtFrames } from "../../../../../overlay/player-facts";
import { StagePlayer } from "../../../../../overlay/player";
import { KeyCap } from "../../../../../ui/key-cap";
import { type Act, keyLabel, keyOf, useChosenKeys, useOffer } from "../../../../../ui/keys";
import { Trial, type TrialReport } from "./trial";

type Props = Readonly<{
  game: AnyGame;
  area: GameShown["area"];
  settings: unknown;
  sprites: readonly Sprite[];
  showArea: boolean;
  home: string;
  /** As the overlay is dressed on which the game stands. */
  dress: Dress;
}>;

/** The real scene under the real rules, over a still of the studio, and the strip to try it with. Tests read `izzamPreview`. */
export function Preview({ game, area: areaOf, settings, sprites, showArea, home, dress }: Props) {
  const { kind } = game;
  const host = useRef<HTMLDivElement>(null);
  const seen = useMemo(() => game.samples.filter((s) => s.unseen !== true), [game]);
  const player = useRef<StagePlayer | null>(null);
  const [trial] = useState(() => new Trial(game, settings, sprites, home));
  const [studio, setStudio] = useState(true);
  const [report, setReport] = useState<TrialReport | null>(null);
  const [as, setAs] = useState<Role>("viewer");
  const [text, setText] = useState("");
  const times = useRef(0);
  const [amount, setAmount] = useState(game.sampleAmount?.start ?? 1);
  const amountNow = useRef(amount);
  amountNow.current = amount;

  useEffect(() => {
    if (host.current === null) return;
    const made = new StagePlayer(host.current, scenes, { preview: true, mostFrames: lookedAtFrames });
    player.current = made;
    Object.assign(window, { izzamPreview: () => made.facts() });
    return () => {
      trial.startOver();
      player.current = null;
      made.free();
    };
  }, [trial]);
  useEffect(() => {
    trial.take(settings);
    trial.sprites = sprites;
    // Every game's view is an object of its own making.
    const view = trial.view() as Record<string, unknown>;
    const place = { ...wholePlace, ...(game.previewPlace ?? game.place) };
    player.current?.setStage({ ...bareStage([], sprites), dress, games: [{ id: "preview", kind, place, view }] });
  }, [trial, settings, sprites, kind, game, dress]);

  const run = useCallback(
    (tried: Tried) =>
      trial.run(tried, {
        effect: (e) => player.current?.effect("preview", e),
        changed: (view) => player.current?.view("preview", view),
        report: setReport,
      }),
    [trial],
  );
  const startOver = useCallback(() => {
    trial.startOver();
    player.current?.clear(false);
    player.current?.view("preview", trial.view());
    setReport(null);
  }, [trial]);
  const acts = useMemo(
    (): Act[] => [
      ...seen.map((t): Act => ({
        id: `try.${kind}.${t.id}`,
        label: `Try: ${t.label.toLowerCase()}`,
        group: "Try it",
        ...(t.key === undefined ? {} : { key: t.key }),
        run: () =>
          run(
            t.make({
              settings: trial.settings,
              sprites: trial.sprites,
              amount: amountNow.current,
              durable: trial.state(),
              times: times.current++,
              nowMs: Date.now(),
              chance: chanceFrom(times.current),
            }),
          ),
      })),
      { id: "try.over", label: "Try: start over", group: "Try it", key: "0", run: startOver },
    ],
    [seen, kind, run, startOver, trial],
  );
  useOffer("preview", acts);
  const chosen = useChosenKeys((s) => s.keys);

  const say = (event: FormEvent): void => {
    event.preventDefault();
    if (text.trim() !== "") run(typed(text, as));
  };
  const area = areaOf?.(settings);
  return (
    <Box position={{ lg: "sticky" }} top="68px" alignSelf="start">
      <Box
        position="relative"
        borderRadius="10px"
        overflow="hidden"
        borderWidth="1px"
        borderColor="line"
        css={{ aspectRatio: "16 / 9" }}
        backgroundImage={studio ? "url(/studio.svg)" : "repeating-conic-gradient(#8d8d8d22 0 25%, #8d8d8d44 0 50%)"}
        backgroundSize={studio ? "cover" : "28px 28px"}
      >
        <Box ref={host} position="absolute" inset="0" role="img" aria-label="Live preview of this game" data-testid="preview" />
        {showArea && area !== undefined && (area.width < 1 || area.height < 1) && (
          <Box
            position="absolute"
            pointerEvents="none"
            borderWidth="2px"
            borderStyle="dashed"
            borderColor="#E0A025"
            borderRadius="6px"
            left={`${area.x * 100}%`}
            top={`${area.y * 100}%`}
            width={`${area.width * 100}%`}
            height={`${area.height * 100}%`}
          />
        )}
        <Flex
          position="absolute"
          right="10px"
          top="10px"
          borderRadius="8px"
          overflow="hidden"
          bg="#10131Bcc"
          role="group"
          aria-label="Behind the preview"
        >
          {(
            [
              [true, "Studio"],
              [false, "Transparent"],
            ] as const
          ).map(([on, name]) => (
            <chakra.button
              key={name}
              type="button"
              px="3"
              py="1"
              fontSize="14px"
              fontWeight="600"
              cursor="pointer"
              color={studio === on ? "#191C26" : "#F1ECE2"}
              bg={studio === on ? "#E0A025" : "transparent"}
              aria-pressed={studio === on}
              onClick={() => setStudio(on)}
            >
              {name}
            </chakra.button>
          ))}
        </Flex>
      </Box>
      <Flex mt="4" mb="2" align="baseline" columnGap="3" rowGap="1" wrap="wrap">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="18px">
          Try it
        </Text>
        <Text color="inkSoft" fontSize="15px" flex="1 1 220px">
          nothing here goes on air or touches real results
        </Text>
        {game.sampleAmount !== undefined && (
          <chakra.label fontSize="15px" fontWeight="600">
            {game.sampleAmount.label}{" "}
            <chakra.input
              type="number"
              min={0}
              max={9_007_199_254_740_991}
              value={amount}
              width="92px"
              minH="32px"
              px="2"
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
              bg="ground"
              onChange={(e) => {
                const n = Math.floor(e.currentTarget.valueAsNumber);
                if (Number.isSafeInteger(n) && n >= 0) setAmount(n);
              }}
            />
          </chakra.label>
        )}
        <Button size="xs" variant="ghost" color="slateText" onClick={startOver}>
          Start over
        </Button>
      </Flex>
      <Flex gap="2" wrap="wrap">
        {seen.map((t, i) => {
          const act = acts[i];
          const key = act === undefined ? null : keyOf(act, chosen);
          return (
            <Button
              key={t.id}
              size="sm"
              variant="outline"
              borderRadius="full"
              fontWeight="600"
              bg="ground"
              aria-keyshortcuts={key ?? undefined}
              onClick={() => act?.run()}
            >
              {t.label} {key !== null && <KeyCap>{keyLabel(key)}</KeyCap>}
            </Button>
          );
        })}
      </Flex>
      <form onSubmit={say}>
        <Flex gap="2" mt="2.5" align="center">
          <chakra.select
            aria-label="Try as"
            value={as}
            onChange={(e) => setAs(e.currentTarget.value as Role)}
            borderWidth="1px"
            borderColor="line"
            borderRadius="8px"
            minH="36px"
            px="2"
            bg="ground"
            fontSize="15px"
          >
            {roles.map((role) => (
              <option key={role} value={role}>
                {role === "viewer" ? "as a viewer" : `as one of ${roleWords[role]}`.replace("one of the streamer", "the streamer")}
              </option>
            ))}
          </chakra.select>
          <Input
            size="sm"
            aria-label="A message to try"
            placeholder="or type a message with emotes"
            value={text}
            onChange={(e) => setText(e.target.value)}
            maxLength={2_000}
            fontSize="15px"
          />
          <Button size="sm" type="submit" variant="outline" bg="ground">
            Send
          </Button>
        </Flex>
      </form>
      <Report report={report} kind={kind} />
    </Box>
  );
}

/** What the last try did, and why something was held back. */
function Report({ report, kind }: Readonly<{ report: TrialReport | null; kind: string }>) {
  return (
    <Box
      mt="3"
      bg="raised"
      borderRadius="8px"
      px="4"
      py="2.5"
      fontFamily="mono"
      fontSize="14.5px"
      minH="44px"
      role="status"
      data-testid="trial-report"
    >
      {report === null ? (
        <Text color="inkSoft">What a try does, and why something is held back, is told here.</Text>
      ) : (
        <>
          <Text>
            {report.says} {report.notes.length === 0 ? (report.running ? "…" : "→ nothing happened") : "→"}
          </Text>
          {report.notes.slice(0, 5).map((note, i) => (
            <Text key={i} color={note.refusal === undefined ? "mossText" : "ink"} data-note={note.refusal?.code ?? note.did}>
              {note.refusal === undefined ? "✓" : "·"} {noteInWords(kind, note)}
            </Text>
          ))}
          {report.notes.length > 5 && <Text color="inkSoft">and {report.notes.length - 5} more of the kind</Text>}
        </>
      )}
    </Box>
  );
}
