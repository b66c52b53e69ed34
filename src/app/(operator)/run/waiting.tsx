"use client";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { Bell, BellOff } from "lucide-react";
import Link from "next/link";
import { memo, useEffect, useMemo, useRef, useState } from "react";
import { count } from "../../../core/words/sentence";
import { FilmStrip } from "../../../ui/film-strip";
import { KeyCap } from "../../../ui/key-cap";
import { type Act, keyLabel, keyOf, useChosenKeys, useOffer } from "../../../ui/keys";
import { fixedKey } from "../../_frame/fixed-keys";
import { tell, tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { endWith } from "../../_frame/end-show";
import { useLive } from "../../_frame/live";
import { commandAndTell, theRewards, theShow, useShow } from "../../_frame/show";
import { When } from "../../../ui/when";
import type { Decision } from "./decision";
import { gameDecisions } from "./game-decisions";
import { PairPhone } from "./pair-phone";
import { unmetDecisions } from "./unmet";

/** What only a person can decide, oldest first: the show's questions, and what was held under hush. */
export function useDecisions(propName: (id: string) => string): readonly Decision[] {
  const show = useShow();
  const held = useLive((s) => s.standing?.held);
  const sales = useLive((s) => s.standing?.sales);
  const games = useLive((s) => s.standing?.games);
  return useMemo(() => {
    const inGames = gameDecisions(games ?? []);
    const asks = (show?.asks ?? []).map((ask): Decision => {
      const item = show?.plan.items.find((i) => i.id === ask.item);
      const decide = async (yes: boolean): Promise<void> => void (await commandAndTell(theShow, { do: "decide", ask: ask.id, yes }));
      const at = { id: ask.id, sinceMs: ask.sinceMs, decide };
      if (ask.kind === "live")
        return { ...at, words: "The platform says that the stream is live.", about: "", main: "Go on air", other: "Not now" };
      if (ask.kind === "ended")
        return {
          ...at,
          words: "The platform says that the stream ended.",
          about: "",
          main: "End the show",
          other: "Go on",
          decide: (yes) => (yes ? endWith(() => decide(true)) : decide(false)),
        };
      const title = item?.title ?? "Something planned";
      return ask.kind === "missed"
        ? { ...at, words: `${title} was to start by itself, and was missed.`, about: item?.note ?? "", main: "Start", other: "Skip" }
        : {
            ...at,
            words: `It is time for ${title}.`,
            about: item?.note ?? "",
            main: item?.does.do === "note" ? "Done" : "Start",
            other: "Skip",
          };
    });
    const alerts = (held ?? []).map((m): Decision => {
      const what =
        m.text !== ""
          ? `“${m.text}”`
          : m.sound !== ""
            ? `the sound ${propName(m.sound)}`
            : `the picture ${propName(m.picture.replace(/^prop:/, ""))}`;
      return {
        id: `held.${m.id}`,
        sinceMs: m.sinceMs,
        words: `Held under hush: ${what}`,
        about: "",
        main: "Play",
        other: "Drop",
        decide: async (yes) => {
          const done = await call("POST", "/held", { do: yes ? "play" : "drop", alert: m.id });
          if (!done.ok) tellTrouble(done.words);
        },
      };
    });
    const sold = (sales?.first ?? []).map((sale): Decision => {
      const decide = async (yes: boolean): Promise<void> => {
        const done = await commandAndTell(theRewards, { do: "sale", sale: sale.id, what: yes ? "done" : "refund", seen: "waiting" });
        if (!done) return;
        if (yes)
          tell(
            `${sale.reward} for ${sale.viewer}: done.`,
            () => void commandAndTell(theRewards, { do: "sale", sale: sale.id, what: "undone" }),
          );
        else
          tell(
            `${sale.viewer} got ${count(sale.price)} ${sales?.points ?? ""} back.`,
            () => void commandAndTell(theRewards, { do: "sale-again", sale: sale.id }),
          );
      };
      return {
        id: `sale.${sale.id}`,
        sinceMs: sale.atMs,
        words: `${sale.viewer} wants ${sale.reward}${sale.text === "" ? "" : `: “${sale.text}”`}`,
        about: `${count(sale.price)} ${sales?.points ?? ""}`,
        main: "Done",
        other: "Refund",
        decide,
      };
    });
    const unmet = unmetDecisions(games ?? []);
    const unshown = (sales?.unshown ?? []).map((sale): Decision => ({
      id: `unshown.${sale.id}`,
      sinceMs: sale.atMs,
      words: `${sale.viewer} paid for ${sale.reward}, and no page has shown it`,
      about: `${count(sale.price)} ${sales?.points ?? ""}`,
      main: "Play",
      other: "Refund",
      decide: async (yes) => {
        const done = await commandAndTell(theRewards, { do: "sale", sale: sale.id, what: yes ? "play" : "refund", seen: "done" });
        if (!done) return;
        if (yes) tell(`${sale.reward} for ${sale.viewer} is played once more.`);
        else
          tell(
            `${sale.viewer} got ${count(sale.price)} ${sales?.points ?? ""} back.`,
            () => void commandAndTell(theRewards, { do: "sale-again", sale: sale.id }),
          );
      },
    }));
    return [...asks, ...inGames, ...alerts, ...sold, ...unmet, ...unshown].sort((a, b) => a.sinceMs - b.sinceMs || (a.id < b.id ? -1 : 1));
  }, [show, held, sales, games, propName]);
}

/** A short tone for the operator alone; never on the broadcast, which hears overlay pages only. */
function chime(): void {
  try {
    const ctx = new AudioContext();
    const at = ctx.currentTime;
    const gain = ctx.createGain();
    gain.gain.setValueAtTime(0.0001, at);
    gain.gain.exponentialRampToValueAtTime(0.12, at + 0.02);
    gain.gain.exponentialRampToValueAtTime(0.0001, at + 0.5);
    gain.connect(ctx.destination);
    const tone = ctx.createOscillator();
    tone.type = "sine";
    tone.frequency.setValueAtTime(660, at);
    tone.connect(gain);
    tone.start(at);
    tone.stop(at + 0.55);
    tone.onended = () => void ctx.close();
  } catch {
    // A browser without sound: the list says it all.
  }
}
const soundKey = "izzam.waiting-sound";

export const Waiting = memo(function Waiting({
  props,
  lan,
}: Readonly<{ props: readonly Readonly<{ id: string; name: string }>[]; lan: boolean }>) {
  const nameOf = useMemo(() => {
    const names = new Map(props.map((p) => [p.id, p.name]));
    return (id: string): string => names.get(id) ?? "that is gone";
  }, [props]);
  const all = useDecisions(nameOf);
  const first = all[0] ?? null;
  const chosen = useChosenKeys((s) => s.keys);
  const [sound, setSound] = useState(false);
  const before = useRef(0);
  useEffect(() => setSound(localStorage.getItem(soundKey) === "on"), []);
  useEffect(() => {
    if (sound && all.length > before.current) chime();
    before.current = all.length;
  }, [all.length, sound]);
  const acts = useMemo(
    (): Act[] => [
      {
        id: "waiting.yes",
        label: first === null ? "Decide what waits: yes" : `${first.main}: ${first.words}`,
        group: "Waiting for you",
        key: fixedKey("waiting.yes"),
        run: () => void first?.decide(true),
      },
      {
        id: "waiting.no",
        label: first === null ? "Decide what waits: no" : `${first.other}: ${first.words}`,
        group: "Waiting for you",
        key: fixedKey("waiting.no"),
        run: () => void (first?.other === "" ? undefined : first?.decide(false)),
      },
    ],
    [first],
  );
  useOffer("waiting", acts);
  const keyFor = (i: number): string | null => {
    const act = acts[i];
    return act === undefined ? null : keyOf(act, chosen);
  };
  const sales = useLive((s) => s.standing?.sales);
  const heldMany = all.filter((d) => d.id.startsWith("held."));
  const heldAll = async (what: "play" | "drop"): Promise<void> => {
    const done = await call("POST", "/held", { do: what, alert: "" });
    if (!done.ok) tellTrouble(done.words);
  };
  return (
    <Flex direction="column" flex="1" minH="0" borderTopWidth="1px" borderColor="line" borderTopStyle="dashed" p="3" pt="2" data-region="">
      <Flex align="center" gap="2" mb="1">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" flex="1">
          Waiting for you{" "}
          {all.length > 0 && (
            <Text as="span" color="ochreText" data-testid="waiting-count">
              {all.length}
            </Text>
          )}
        </Text>
        <PairPhone lan={lan} />
        <Button
          size="xs"
          variant="ghost"
          px="1.5"
          aria-pressed={sound}
          aria-label="A tone, for you alone, when something waits"
          title={sound ? "A tone, for you alone, when something waits: on" : "A tone, for you alone, when something waits: off"}
          onClick={() => {
            localStorage.setItem(soundKey, sound ? "off" : "on");
            if (!sound) chime();
            setSound(!sound);
          }}
        >
          {sound ? <Bell size={16} /> : <BellOff size={16} />}
        </Button>
      </Flex>
      <Box
        flex="1"
        minH="0"
        overflowY="auto"
        {...(all.length === 0 ? {} : { role: "list", "aria-label": "Waiting for you" })}
        tabIndex={all.length > 2 ? 0 : undefined}
      >
        {all.length === 0 && (
          <Text color="inkSoft" fontSize="15px">
            Nothing. What only a person can decide comes here, oldest first.
          </Text>
        )}
        {(sales?.older ?? 0) > 0 && (
          <Text fontSize="14.5px" color="inkSoft" mb="1.5">
            {count(sales?.older ?? 0)} from before {sales?.older === 1 ? "waits" : "wait"} under{" "}
            <Link href="/review/sales" style={{ textDecoration: "underline" }}>
              Sales
            </Link>
            .
          </Text>
        )}
        {heldMany.length > 2 && (
          <Flex gap="2" mb="2">
            <Button size="xs" variant="outline" onClick={() => void heldAll("play")}>
              Play all {heldMany.length}
            </Button>
            <Button size="xs" variant="outline" onClick={() => void heldAll("drop")}>
              Drop all
            </Button>
          </Flex>
        )}
        {all.map((d, i) => (
          <Flex key={d.id} role="listitem" bg="raised" borderRadius="10px" borderWidth="1px" borderColor="line" mb="2" data-decision={d.id}>
            <Box flex="1" minW="0" px="3" py="1.5" fontSize="15px" lineHeight="1.3">
              <Text lineClamp={3}>{d.words}</Text>
              {d.strip !== undefined && <FilmStrip strip={d.strip} label={`Stills: ${d.words}`} most={4} height={28} />}
              <Text color="inkSoft" fontSize="14px" lineClamp={2}>
                {d.about !== "" ? `${d.about} · ` : ""}
                <When atMs={d.sinceMs} />
              </Text>
            </Box>
            <Flex
              direction="column"
              borderLeftWidth="2px"
              borderLeftStyle="dashed"
              borderColor="line"
              justify="center"
              px="1"
              py="1"
              minW="92px"
            >
              <Button
                size="xs"
                variant="ghost"
                color="mossText"
                fontWeight="700"
                justifyContent="space-between"
                onClick={() => void d.decide(true)}
              >
                {d.main} {i === 0 && keyFor(0) !== null && <KeyCap>{keyLabel(keyFor(0) ?? "")}</KeyCap>}
              </Button>
              {d.other !== "" && (
                <Button size="xs" variant="ghost" color="brickText" justifyContent="space-between" onClick={() => void d.decide(false)}>
                  {d.other} {i === 0 && keyFor(1) !== null && <KeyCap>{keyLabel(keyFor(1) ?? "")}</KeyCap>}
                </Button>
              )}
            </Flex>
          </Flex>
        ))}
      </Box>
    </Flex>
  );
});
