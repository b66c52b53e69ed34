"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { useMemo } from "react";
import { asksFor, buttonsNow, commandOf, withAmount } from "../../core/games/buttons";
import { frontOf, isGame } from "../../core/games/fronts";
import { nextItem } from "../../core/show/rules";
import type { Command } from "../../core/signals/signal";
import { tell } from "../../ui/toaster";
import { commandAndTell, theShow, useNow, useShow } from "../_frame/show";
import { clockOf } from "../../core/words/clock";
import { EndShow, endWith } from "../_frame/end-show";
import { useLive, useLiveLink } from "../_frame/live";
import { setHush } from "../_frame/top-bar";
import { fireCue, useCues } from "../(operator)/run/cue-keys";
import { FilmStrip } from "../../ui/film-strip";
import { useDecisions } from "../(operator)/run/waiting";
import { useSure } from "../../ui/sure";

/** The booth's hands on a phone: hush, what waits, cues, the running games, the show. Everything at least 48 px high. */
export function Remote({
  channel,
  login,
  paired,
  props,
}: Readonly<{ channel: string; login: string; paired: boolean; props: readonly Readonly<{ id: string; name: string }>[] }>) {
  useLiveLink("/remote");
  const standing = useLive((s) => s.standing);
  const linked = useLive((s) => s.linked);
  const show = useShow();
  const now = useNow(500);
  const { cues, on } = useCues();
  const names = useMemo(() => new Map(props.map((p) => [p.id, p.name])), [props]);
  const nameOf = useMemo(() => (id: string) => names.get(id) ?? "that is gone", [names]);
  const decisions = useDecisions(nameOf);
  const hushed = standing?.hushed === true;
  const games = (standing?.games ?? []).filter((g) => isGame(g.kind));
  const state = show?.state ?? "off";
  const next = show === null || state === "off" ? null : nextItem(show);
  return (
    <Box as="main" maxW="560px" mx="auto" px="3" pb="8" data-testid="remote" data-linked={linked}>
      {state === "on" && <Box height="4px" bg="brick.solid" mx="-3" aria-hidden="true" />}
      <EndShow />
      <Flex align="center" py="2" gap="3">
        <Box flex="1" minW="0">
          <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="18px" truncate>
            {channel}
          </Text>
          <Text fontSize="15px" color={state === "on" ? "brickText" : "inkSoft"} fontWeight="600" data-testid="remote-state">
            {linked === "no"
              ? "No connection. Nothing you press is done."
              : show === null
                ? "Connecting…"
                : state === "off"
                  ? "Off air"
                  : state === "on"
                    ? "On air"
                    : "Rehearsing"}{" "}
            {linked !== "no" && show?.show !== null && show !== null && now > 0 ? clockOf(now - show.show.sinceMs) : ""}
          </Text>
        </Box>
        <Text fontSize="14px" color="inkSoft" truncate maxW="40%">
          {paired ? login : `${login}, signed in`}
        </Text>
      </Flex>
      <Button
        width="100%"
        height="76px"
        fontSize="22px"
        fontWeight="800"
        colorPalette="brick"
        variant={hushed ? "outline" : "solid"}
        aria-pressed={hushed}
        onClick={() => void setHush(!hushed)}
      >
        {hushed ? "Release the hush" : "Hush"}
      </Button>
      {hushed && (
        <Text mt="1" color="brickText" fontWeight="600" role="status">
          Every overlay is empty and silent. Games go on counting.
        </Text>
      )}
      {decisions.length > 0 && (
        <Section title={`Waiting for you: ${decisions.length}`}>
          {decisions.map((d) => (
            <Box key={d.id} bg="raised" borderRadius="10px" borderWidth="1px" borderColor="line" p="3" mb="2">
              <Text mb="2">{d.words}</Text>
              {d.strip !== undefined && (
                <Box mb="2">
                  <FilmStrip strip={d.strip} label={`Stills: ${d.words}`} most={10} perRow={5} height={40} />
                </Box>
              )}
              <Flex gap="2">
                <Big onClick={() => void d.decide(true)} main>
                  {d.main}
                </Big>
                {d.other !== "" && <Big onClick={() => void d.decide(false)}>{d.other}</Big>}
              </Flex>
            </Box>
          ))}
        </Section>
      )}
      {next !== null && (
        <Section title="Next in the rundown">
          <Big
            main
            onClick={() =>
              void commandAndTell(theShow, {
                do: "plan-fire",
                item: next.id,
                times: show?.done.find((d) => d.item === next.id)?.times ?? 0,
              })
            }
          >
            {next.does.do === "note" ? `Done: ${next.title}` : `Start: ${next.title}`}
          </Big>
        </Section>
      )}
      <Section title="Cues">
        {cues.length === 0 && <Text color="inkSoft">{standing === null ? "They are being asked for." : "No cue is published yet."}</Text>}
        <Box display="grid" gridTemplateColumns="1fr 1fr" gap="2">
          {cues.map((cue) => {
            const restsMs = now === 0 ? 0 : Math.max(0, cue.restsUntilMs - now);
            const isOn = on.includes(cue.id);
            return (
              <chakra.button
                key={cue.id}
                type="button"
                textAlign="left"
                bg="raised"
                borderWidth="1.5px"
                borderColor={isOn ? "ochre.solid" : "line"}
                borderRadius="10px"
                minH="64px"
                px="3"
                py="2"
                aria-disabled={restsMs > 0}
                data-cue={cue.id}
                onClick={() => void fireCue(cue, "click")}
              >
                <Text fontWeight="700" lineHeight="1.2" color={restsMs > 0 ? "inkSoft" : "ink"}>
                  {cue.name}
                </Text>
                <Text fontSize="14.5px" color={isOn || restsMs > 0 ? "ochreText" : "inkSoft"}>
                  {isOn ? "on" : restsMs > 0 ? `cooldown ${Math.ceil(restsMs / 1000)} s` : " "}
                </Text>
              </chakra.button>
            );
          })}
        </Box>
      </Section>
      {games.map((game) => (
        <GameHands key={game.id} game={game} />
      ))}
      <Section title="The show">
        <Flex gap="2">
          {show === null && <Text color="inkSoft">How the show stands is being asked for.</Text>}
          {show !== null && state === "off" && (
            <Big onClick={() => void commandAndTell(theShow, { do: "show", what: "rehearse" })}>Rehearse</Big>
          )}
          {show !== null && state !== "on" && (
            <Big onClick={() => void commandAndTell(theShow, { do: "show", what: "on-air" })}>Go on air</Big>
          )}
          {state !== "off" && (
            <Sure
              words={state === "on" ? "End the show" : "End the rehearsal"}
              onClick={() => {
                const end = (): Promise<boolean> => commandAndTell(theShow, { do: "show", what: "end" });
                void (state === "on" ? endWith(end) : end());
              }}
            />
          )}
        </Flex>
      </Section>
    </Box>
  );
}

const Section = ({ title, children }: Readonly<{ title: string; children: React.ReactNode }>) => (
  <Box as="section" mt="5">
    <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
      {title}
    </Text>
    {children}
  </Box>
);
const Big = ({ children, onClick, main = false }: Readonly<{ children: React.ReactNode; onClick: () => void; main?: boolean }>) => (
  <Button
    flex="1"
    minW="0"
    width="100%"
    minH="52px"
    height="auto"
    py="2"
    whiteSpace="normal"
    fontWeight="700"
    variant={main ? "solid" : "outline"}
    {...(main ? { colorPalette: "ochre" } : {})}
    onClick={onClick}
  >
    {children}
  </Button>
);
/** Pressed by mistake in a pocket it does nothing: it asks once. */
function Sure({ words, onClick, palette = "brick" }: Readonly<{ words: string; onClick: () => void; palette?: "brick" | "ochre" }>) {
  const asked = useSure(words, onClick);
  return (
    <Button
      flex="1"
      minH="52px"
      variant={asked.sure ? "solid" : "outline"}
      colorPalette={palette}
      fontWeight="700"
      onBlur={asked.leave}
      onClick={asked.press}
    >
      {asked.words}
    </Button>
  );
}

type Game = Readonly<{ id: string; kind: string; name: string; view: Record<string, unknown> }>;
/** A running game's actions, by its definition. */
function GameHands({ game }: Readonly<{ game: Game }>) {
  const running = game.view["on"] === true;
  const run = (what: Command): Promise<boolean> => commandAndTell(game, what, tell);
  const stands = running ? (frontOf(game.kind)?.stands?.(game.view) ?? "") : "stopped";
  const buttons = buttonsNow(game.kind, game.view);
  const quick = buttons.filter(([, a]) => (a.quick?.length ?? 0) > 1);
  const others = buttons.filter(([, a]) => (a.quick?.length ?? 0) <= 1 && (asksFor(a) === null || a.quick?.length === 1));
  return (
    <Section title={game.name}>
      {stands !== "" && (
        <Text mb="2" fontFamily="mono" data-testid="remote-stands" data-game={game.id}>
          {stands}
        </Text>
      )}
      {quick.map((named) => (
        <Box key={named[0]} display="grid" gridTemplateColumns="repeat(4, 1fr)" gap="2" mb="2">
          {named[1].quick?.map(({ label, amount }) => (
            <Big key={amount} onClick={() => void run(withAmount(named, amount))}>
              {label}
            </Big>
          ))}
        </Box>
      ))}
      <Box display="grid" gridTemplateColumns="1fr 1fr" gap="2">
        {(frontOf(game.kind)?.choices?.(game.view) ?? []).map((c) =>
          c.sure ? (
            <Sure key={c.id} words={c.label} palette="ochre" onClick={() => void run(c.command)} />
          ) : (
            <Big key={c.id} onClick={() => void run(c.command)}>
              {c.label}
            </Big>
          ),
        )}
        {others.map((named) => {
          const [first] = named[1].quick ?? [];
          const command = first === undefined ? commandOf(named) : withAmount(named, first.amount);
          const label = first?.label ?? named[1].label;
          return named[1].sure === true ? (
            <Sure key={named[0]} words={label} onClick={() => void run(command)} />
          ) : (
            <Big key={named[0]} onClick={() => void run(command)}>
              {label}
            </Big>
          );
        })}
        <Big onClick={() => void run({ do: "switch", on: !running })}>{running ? "Stop" : "Start"}</Big>
      </Box>
    </Section>
  );
}
