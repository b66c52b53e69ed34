"use client";
import { Box } from "@chakra-ui/react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { chanceFrom } from "../../../core/kernel/chance";
import type { AnyGame } from "../../../core/module/game";
import { bareStage, type Sprite, wholePlace } from "../../../core/wire/messages";
import { scenes } from "../../../games/registry-scenes";
import { lookedAtFrames } from "../../../overlay/player-facts";
import { StagePlayer } from "../../../overlay/player";
import { useGame } from "./use-game";
import { Trial } from "./games/[id]/trial";

const everyMs = 2_600;

type Of = Readonly<{ sprites: readonly Sprite[]; home: string; playing: boolean }>;

/** A small picture of a game by its own scene and rules: it plays once, and while it is pointed at. */
export function LivingPicture({
  kind,
  settings,
  ...of
}: Of & Readonly<{ kind: string; /** The kind's own when left out. */ settings?: unknown }>) {
  const game = useGame(kind);
  return game === null || game === undefined ? <Ground /> : <Playing game={game} settings={settings ?? game.defaults} {...of} />;
}

function Playing({ game, settings, sprites, home, playing }: Of & Readonly<{ game: AnyGame; settings: unknown }>) {
  const host = useRef<HTMLDivElement>(null);
  const player = useRef<StagePlayer | null>(null);
  const [trial] = useState(() => new Trial(game, settings, sprites, home));
  useEffect(() => {
    if (host.current === null) return;
    const made = new StagePlayer(host.current, scenes, { preview: true, mostFrames: lookedAtFrames });
    player.current = made;
    const view = trial.view();
    made.setStage({
      ...bareStage([], sprites),
      games: [
        {
          id: "picture",
          kind: game.kind,
          place: { ...wholePlace, ...(game.previewPlace ?? game.place) },
          view: view as Record<string, unknown>,
        },
      ],
    });
    return () => {
      // What it waits for would come to a picture that is gone.
      trial.startOver();
      player.current = null;
      made.free();
    };
  }, [game, sprites, trial]);
  useEffect(() => {
    const chance = chanceFrom(7);
    const able = game.samples.filter((s) => s.weight > 0 && s.unseen !== true);
    let times = 0;
    const play = (): void => {
      const sample = able[times % able.length];
      if (sample === undefined) return;
      const tried = sample.make({ settings, durable: trial.state(), sprites, amount: 8, times: (times += 1), nowMs: Date.now(), chance });
      trial.run(tried, {
        effect: (e) => player.current?.effect("picture", e),
        changed: (view) => player.current?.view("picture", view),
        report: () => undefined,
      });
    };
    // Once when it comes into sight, so that one sees what it is; then while it is pointed at.
    const first = setTimeout(play, playing ? 0 : 600);
    const timer = playing ? setInterval(play, everyMs) : undefined;
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [playing, game, settings, sprites, trial]);
  return (
    <Ground>
      <Box ref={host} position="absolute" inset="0" />
    </Ground>
  );
}

const Ground = ({ children }: Readonly<{ children?: ReactNode }>) => (
  <Box
    position="relative"
    overflow="hidden"
    css={{ aspectRatio: "16 / 9" }}
    backgroundImage="url(/studio.svg)"
    backgroundSize="cover"
    aria-hidden="true"
  >
    {children}
  </Box>
);
