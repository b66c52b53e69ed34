"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { curveStepAfter, line } from "d3-shape";
import { type FormEvent, useEffect, useMemo, useRef, useState } from "react";
import { count } from "../../core/words/sentence";
import { KeyCap } from "../../ui/key-cap";
import { type Act, keyLabel, keyOf, useChosenKeys, useOffer } from "../../ui/keys";
import { tell } from "../../ui/toaster";
import type { FocusProps } from "../focus";

type Fight = Readonly<{
  points: readonly Readonly<{ atMs: number; health: number }>[];
  leader: Readonly<{ name: string; damage: number }> | null;
  recent: Readonly<{ damage: number; minutes: number }>;
}>;
const none: Fight = { points: [], leader: null, recent: { damage: 0, minutes: 1 } };
const chartWidth = 262;
const chartHeight = 40;

/** Health after each hit, as a line that steps down; the newest at the right. */
const pathOf = (points: Fight["points"], max: number): string =>
  line<Fight["points"][number]>()
    .x((_, i) => (i / Math.max(1, points.length - 1)) * chartWidth)
    .y((p) => 2 + (1 - Math.min(1, p.health / Math.max(1, max))) * (chartHeight - 4))
    .curve(curveStepAfter)([...points]) ?? "";

/** The boss in the booth: how the fight goes, and the hands that hit, heal and undo. */
export function BossFocus({ gameId, view, sinceMs, hand }: FocusProps) {
  const chosen = useChosenKeys((s) => s.keys);
  const [fight, setFight] = useState<Fight>(none);
  const [asks, setAsks] = useState<"damage" | "heal" | null>(null);
  const [sure, setSure] = useState(false);
  const [amount, setAmount] = useState("50");
  const field = useRef<HTMLInputElement>(null);
  const health = Number(view["health"] ?? 0);
  const max = Number(view["max"] ?? 0);
  const mark = `${health} ${max}`;
  const lastMs = useRef(0);
  useEffect(() => {
    // In a storm of blows it is read every two seconds, and once more after the last.
    const waitMs = Math.max(150, lastMs.current + 2_000 - Date.now());
    const timer = setTimeout(() => {
      lastMs.current = Date.now();
      void fetch(`/api/games/${gameId}/fight?since=${Math.round(sinceMs)}`)
        .then((r) => r.json())
        .then((said: { ok: boolean; value?: Fight }) => said.ok && said.value !== undefined && setFight(said.value))
        .catch(() => undefined);
    }, waitMs);
    return () => clearTimeout(timer);
  }, [gameId, sinceMs, mark]);
  useEffect(() => {
    if (asks === null) return;
    field.current?.focus();
    field.current?.select();
  }, [asks]);
  const undoable = view["undoable"] === true;
  const acts = useMemo(
    (): Act[] => [
      { id: "boss.hit", label: "Hit the boss for…", group: "The focused game", key: "h", run: () => setAsks("damage") },
      { id: "boss.heal", label: "Heal the boss for…", group: "The focused game", key: "m", run: () => setAsks("heal") },
      { id: "boss.undo", label: "Undo the last hit", group: "The focused game", key: "u", run: () => void hand({ do: "undo" }) },
      { id: "boss.rules", label: "Tell the boss’s rules in chat", group: "The focused game", run: () => void hand({ do: "tell-rules" }) },
    ],
    [hand],
  );
  useOffer("focus-own", acts);
  const cap = (id: string) => {
    const act = acts.find((a) => a.id === id);
    const key = act === undefined ? null : keyOf(act, chosen);
    return key === null ? null : <KeyCap>{keyLabel(key)}</KeyCap>;
  };
  const perMinute = fight.recent.damage / Math.max(1, fight.recent.minutes);
  const minutes = perMinute > 0 ? Math.max(1, Math.round(health / perMinute)) : null;
  const n = Number(amount);
  const good = Number.isSafeInteger(n) && n > 0;
  const give = (event: FormEvent): void => {
    event.preventDefault();
    if (!good || asks === null) return;
    void hand({ do: asks, amount: n });
    setAsks(null);
  };
  return (
    <Box>
      <Flex align="baseline" gap="2">
        <Text fontFamily="mono" fontSize="30px" lineHeight="1.15" data-testid="boss-health">
          {count(health)}
        </Text>
        <Text color="inkSoft" fontFamily="mono" fontSize="14px" whiteSpace="nowrap">
          of {count(max)} glaze left
        </Text>
      </Flex>
      <Text fontSize="15px" truncate>
        {String(view["name"] ?? "")}
        {Number(view["falls"] ?? 0) > 0 ? `, after ${count(Number(view["falls"]))} ${Number(view["falls"]) === 1 ? "fall" : "falls"}` : ""}
      </Text>
      {fight.points.length > 1 ? (
        <chakra.svg
          viewBox={`0 0 ${chartWidth} ${chartHeight}`}
          width="100%"
          height={`${chartHeight}px`}
          my="1"
          role="img"
          aria-label={`Glaze over the last ${fight.points.length} hits`}
        >
          <chakra.path d={pathOf(fight.points, max)} fill="none" stroke="var(--chakra-colors-ochre-text)" strokeWidth="2" />
        </chakra.svg>
      ) : (
        <Text color="inkSoft" fontSize="15px" my="1">
          Nobody has struck yet{sinceMs > 0 ? " in this show" : ""}.
        </Text>
      )}
      {fight.points.length > 1 && (
        <Text fontSize="15px" color="inkSoft" lineHeight="1.3" mb="1">
          {minutes === null ? (
            "Quiet at the moment."
          ) : (
            <>
              Falls in about <b>{count(minutes)} min</b> at this pace.
            </>
          )}
          {fight.leader !== null && (
            <>
              {" "}
              <b>{fight.leader.name}</b> leads with {count(fight.leader.damage)}.
            </>
          )}
        </Text>
      )}
      {asks === null ? (
        <Box display="grid" gridTemplateColumns="1fr 1fr" gap="2">
          <Button size="sm" variant="outline" justifyContent="space-between" px="2.5" onClick={() => setAsks("damage")}>
            Hit for… {cap("boss.hit")}
          </Button>
          <Button size="sm" variant="outline" justifyContent="space-between" px="2.5" onClick={() => setAsks("heal")}>
            Heal… {cap("boss.heal")}
          </Button>
          <Button
            size="sm"
            variant="outline"
            justifyContent="space-between"
            px="2.5"
            disabled={!undoable}
            onClick={() => void hand({ do: "undo" })}
          >
            Undo hit {cap("boss.undo")}
          </Button>
          <Button
            size="sm"
            variant="outline"
            px="2.5"
            justifyContent="flex-start"
            color={sure ? "brickText" : undefined}
            borderColor={sure ? "brickText" : undefined}
            onBlur={() => setSure(false)}
            onClick={() => {
              // It can't be undone: the health and the growth of this fight are gone.
              if (!sure) return setSure(true);
              setSure(false);
              void hand({ do: "start-over" }).then(() => tell("Started over. The reign that ended is kept in its history."));
            }}
          >
            {sure ? "Yes, start over" : "Start over"}
          </Button>
        </Box>
      ) : (
        <form onSubmit={give}>
          <Flex gap="2" align="center" onKeyDown={(e) => e.key === "Escape" && setAsks(null)}>
            <Text fontWeight="700" fontSize="15px" whiteSpace="nowrap">
              {asks === "damage" ? "Hit for" : "Heal"}
            </Text>
            <chakra.input
              ref={field}
              aria-label={asks === "damage" ? "Damage" : "Healing"}
              aria-invalid={!good}
              inputMode="numeric"
              value={amount}
              width="86px"
              minH="34px"
              px="2"
              borderWidth="1.5px"
              borderColor={good ? "line" : "brickText"}
              borderRadius="6px"
              bg="ground"
              fontFamily="mono"
              onChange={(e) => setAmount(e.currentTarget.value)}
            />
            <Button size="sm" type="submit" colorPalette="ochre" fontWeight="700" disabled={!good}>
              {asks === "damage" ? "Hit" : "Heal"}
            </Button>
            <Button size="sm" variant="ghost" px="2" onClick={() => setAsks(null)}>
              Cancel
            </Button>
          </Flex>
          {!good && (
            <Text color="brickText" fontSize="14px" role="alert">
              A whole number from 1.
            </Text>
          )}
        </form>
      )}
    </Box>
  );
}
