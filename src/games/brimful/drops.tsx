"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { ChevronDown, ChevronRight, Copy, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { type BrimfulSettings, type DropKind, dropKinds, type DropTier, newTier } from "../../core/games/brimful/settings";
import { dropInWords, kindInWords } from "../../core/games/brimful/words";
import { twiceTheSame } from "../../core/signals/tiers";
import { IconButton } from "../../ui/icon-button";
import type { LooksProps } from "../shown";
import { hasAmount, Tier } from "./tier";

const freshId = (): string => `t${Date.now().toString(36)}`;

/** What falls for which signal: each tier a sentence, its details behind it. */
export function BrimfulDrops({ settings, sprites, onChange, Effects, home = "EUR" }: LooksProps) {
  const s = settings as BrimfulSettings;
  const [open, setOpen] = useState<string | null>(null);
  const put = (kind: DropKind, tiers: readonly DropTier[]): void => onChange(`drops.${kind}`, tiers);
  return (
    <Box mt="5">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="1">
        What falls
      </Text>
      <Text color="inkSoft" fontSize="15px" mb="2">
        One tier answers a signal: the exact amount, or else the highest that is reached.
      </Text>
      <Stack gap="3">
        {dropKinds.map((kind) => {
          const tiers = s.drops[kind];
          const twice = twiceTheSame(tiers);
          return (
            <Box key={kind} role="group" aria-label={kindInWords[kind].list} data-drops={kind}>
              <Flex align="center" gap="2">
                <Text fontWeight="700" flex="1">
                  {kindInWords[kind].list}
                  {tiers.length === 0 && (
                    <Text as="span" fontWeight="400" color="inkSoft">
                      {" "}
                      drop nothing
                    </Text>
                  )}
                </Text>
                <Button
                  size="xs"
                  variant="outline"
                  disabled={tiers.length >= 20 || (!hasAmount(kind) && tiers.length > 0)}
                  onClick={() => {
                    const highest = Math.max(-1, ...tiers.filter((t) => t.at === "least").map((t) => t.amount));
                    const tier = newTier(freshId(), { amount: highest < 0 ? 0 : highest + (kind === "tip" ? 1_000 : 10) });
                    setOpen(tier.id);
                    put(kind, [...tiers, tier]);
                  }}
                >
                  <Plus size={15} aria-hidden="true" /> {tiers.length === 0 ? "Let something fall" : "Add a tier"}
                </Button>
              </Flex>
              <Stack gap="1" mt="1" role="list" aria-label={`Tiers of ${kindInWords[kind].list.toLowerCase()}`}>
                {tiers.map((tier) => (
                  <Box key={tier.id} role="listitem" bg="raised" borderRadius="8px" px="2" py="1" data-tier={tier.id}>
                    <Flex align="center" gap="1">
                      <Text flex="1" fontSize="15.5px">
                        {dropInWords(kind, tier, home)}
                      </Text>
                      <IconButton
                        label={open === tier.id ? "Less of this tier" : "Change this tier"}
                        aria-expanded={open === tier.id}
                        onClick={() => setOpen(open === tier.id ? null : tier.id)}
                      >
                        {open === tier.id ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
                      </IconButton>
                      {hasAmount(kind) && (
                        <IconButton
                          label="Copy this tier"
                          onClick={() =>
                            put(kind, [...tiers, { ...tier, id: freshId(), amount: tier.amount + (kind === "tip" ? 100 : 1) }])
                          }
                        >
                          <Copy size={15} />
                        </IconButton>
                      )}
                      <IconButton
                        label="Take this tier out"
                        onClick={() =>
                          put(
                            kind,
                            tiers.filter((t) => t.id !== tier.id),
                          )
                        }
                      >
                        <Trash2 size={15} />
                      </IconButton>
                    </Flex>
                    {open === tier.id && (
                      <Tier
                        kind={kind}
                        tier={tier}
                        home={home}
                        usual={s.size}
                        sprites={sprites}
                        onSet={(part) =>
                          put(
                            kind,
                            tiers.map((t) => (t.id === tier.id ? { ...t, ...part } : t)),
                          )
                        }
                      />
                    )}
                  </Box>
                ))}
              </Stack>
              {twice !== null && (
                <Text color="brickText" fontSize="15px" role="alert">
                  Two of these are for the same amount; only one can answer. Change one of them before you publish.
                </Text>
              )}
            </Box>
          );
        })}
      </Stack>
      {Effects !== undefined && (
        <Box mt="5">
          <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="1">
            When it brims
          </Text>
          <Effects
            label="What is done when it brims"
            effects={s.brim.effects}
            what="brimful/brimmed"
            onSet={(effects) => onChange("brim.effects", effects)}
          />
        </Box>
      )}
    </Box>
  );
}
