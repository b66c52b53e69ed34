"use client";
import { roving } from "../../../ui/roving";
import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import Link from "next/link";
import { memo, useMemo } from "react";
import type { RuleHint } from "../../../core/rules/hints";
import { actionOf } from "../../../core/games/words";
import { KeyCap } from "../../../ui/key-cap";
import { type Act, keyLabel, keyOf, useChosenKeys, useOffer } from "../../../ui/keys";
import { tellBriefly, tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { useLive } from "../../_frame/live";
import { freshId, useNow } from "../../_frame/show";

export type CueView = Readonly<{
  id: string;
  name: string;
  key: string;
  word: string;
  kind: "once" | "on-off";
  cooldownMs: number;
  does: string;
  restsUntilMs: number;
}>;
const kinds: Readonly<Record<string, string>> = {
  show: "picture or text",
  sound: "sound",
  say: "says in chat",
  switch: "starts or stops",
  wait: "later",
  "": "does nothing yet",
};

export async function fireCue(cue: Readonly<{ id: string }>, via: "key" | "click"): Promise<void> {
  const done = await call("POST", `/cues/${cue.id}/fire`, { id: freshId(), via });
  if (!done.ok) (done.code === "cue/cooling" || done.code === "command/twin" ? tellBriefly : tellTrouble)(done.words);
}
const cuesOf = (view: Readonly<Record<string, unknown>> | undefined): readonly CueView[] =>
  (view?.["cues"] as readonly CueView[] | undefined) ?? [];
const onOf = (view: Readonly<Record<string, unknown>> | undefined): readonly string[] =>
  (view?.["on"] as readonly string[] | undefined) ?? [];
/** The cues that are published, as the engine has them, and which are on. */
export function useCues(): Readonly<{ cues: readonly CueView[]; on: readonly string[] }> {
  const view = useLive((s) => s.standing?.games.find((g) => g.kind === "cues")?.view);
  return useMemo(() => ({ cues: cuesOf(view), on: onOf(view) }), [view]);
}

/** The keys of the show: what each does, whether it rests, and why it can't fire. */
export const CueKeys = memo(function CueKeys({ problems }: Readonly<{ problems: readonly RuleHint[] }>) {
  const { cues, on } = useCues();
  const now = useNow(250);
  const chosen = useChosenKeys((s) => s.keys);
  const hushed = useLive((s) => s.standing?.hushed === true);
  const acts = useMemo(
    (): Act[] =>
      cues.map((cue) => ({
        id: `cue.${cue.id}`,
        label: `Fire the cue ${cue.name}`,
        group: "Cues",
        ...(cue.key === "" ? {} : { key: cue.key }),
        run: () => void fireCue(cue, "key"),
      })),
    [cues],
  );
  useOffer("cues", acts);
  return (
    <Box flexShrink="0" maxH="204px" overflowY="auto" role="group" aria-label="Cues" data-region="" {...roving}>
      <Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(104px, 1fr))" gap="2">
        {cues.map((cue, i) => {
          const act = acts[i];
          const key = act === undefined ? null : keyOf(act, chosen);
          const restsMs = now === 0 ? 0 : Math.max(0, cue.restsUntilMs - now);
          const problem = problems.find((p) => p.ruleId === cue.id)?.text;
          const isOn = on.includes(cue.id);
          const resting = restsMs > 0;
          return (
            <chakra.button
              key={cue.id}
              type="button"
              data-rove=""
              tabIndex={i === 0 ? 0 : -1}
              textAlign="left"
              position="relative"
              overflow="hidden"
              bg="raised"
              borderWidth="1.5px"
              borderColor={isOn ? "ochre.solid" : "line"}
              borderRadius="10px"
              px="2.5"
              py="1.5"
              minH="60px"
              cursor={resting ? "default" : "pointer"}
              _hover={{ borderColor: "ochreText" }}
              aria-keyshortcuts={key ?? undefined}
              aria-disabled={resting}
              aria-label={`${cue.name}: ${isOn ? "on, turn off" : resting ? `on cooldown for ${Math.ceil(restsMs / 1000)} s` : "fire"}`}
              title={problem ?? (hushed ? "Everything is hushed: what it shows is held." : undefined)}
              data-cue={cue.id}
              onClick={() => void fireCue(cue, "click")}
            >
              {resting && (
                <Box
                  position="absolute"
                  left="0"
                  bottom="0"
                  height="3px"
                  bg="ochreText"
                  width={`${Math.min(100, (restsMs / Math.max(1, cue.cooldownMs)) * 100)}%`}
                  aria-hidden="true"
                />
              )}
              <Text fontWeight="600" fontSize="14.5px" lineHeight="1.2" lineClamp={2} color={resting ? "inkSoft" : "ink"}>
                {cue.name}
              </Text>
              <Flex align="flex-end" justify="space-between" gap="1" mt="0.5">
                <Text
                  fontSize="14px"
                  lineHeight="1.15"
                  color={problem !== undefined ? "brickText" : isOn || resting ? "ochreText" : "inkSoft"}
                  fontFamily={resting ? "mono" : undefined}
                >
                  {problem !== undefined
                    ? "needs a look"
                    : isOn
                      ? "on"
                      : resting
                        ? `${Math.ceil(restsMs / 1000)} s`
                        : (kinds[cue.does] ?? actionOf("", cue.does)?.label.toLowerCase())}
                </Text>
                {key !== null && <KeyCap>{keyLabel(key)}</KeyCap>}
              </Flex>
            </chakra.button>
          );
        })}
        <Link href="/prepare/cues" style={{ textDecoration: "none" }}>
          <Flex
            borderWidth="1.5px"
            borderStyle="dashed"
            borderColor="line"
            borderRadius="10px"
            px="2.5"
            py="1.5"
            minH="60px"
            height="100%"
            color="inkSoft"
            fontSize="14.5px"
            _hover={{ color: "ink" }}
          >
            {cues.length === 0 ? "No cue yet. Add the first" : "Add or change cues"}
          </Flex>
        </Link>
      </Box>
    </Box>
  );
});
