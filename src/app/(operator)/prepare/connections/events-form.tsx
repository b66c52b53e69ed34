"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useCallback, useEffect, useState } from "react";
import type { RefusedEvent } from "../../../../server/ports/engine-link";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { CopyField } from "../../../_frame/copy-field";
import { useLive } from "../../../_frame/live";
import { When } from "../../../../ui/when";

/** Where a platform delivers what happened: the address, the secret, what came and what was refused. */
export function EventsForm({
  channel,
  set,
  oldUntilMs,
  owner,
}: Readonly<{ channel: string; set: boolean; oldUntilMs: number; owner: boolean }>) {
  const [isSet, setIsSet] = useState(set);
  const [oldMs, setOldMs] = useState(oldUntilMs);
  const [byHand, setByHand] = useState("");
  const [origin, setOrigin] = useState("");
  const [refused, setRefused] = useState<readonly RefusedEvent[] | null>(null);
  const events = useLive((s) => s.standing?.events);
  useEffect(() => setOrigin(location.origin), []);
  const look = useCallback(async () => {
    const said = (await (await fetch("/api/events")).json().catch(() => null)) as {
      ok: boolean;
      value?: { refused: RefusedEvent[] };
    } | null;
    if (said?.ok === true) setRefused(said.value?.refused ?? []);
  }, []);
  useEffect(() => void look(), [look, events?.refused]);

  const put = async (text: string, said: string): Promise<void> => {
    try {
      await navigator.clipboard.writeText(text);
      setByHand("");
      tell(said);
    } catch {
      setByHand(text);
    }
  };
  const act = async (what: "copy" | "rotate" | "end-old"): Promise<void> => {
    const done = await call<{ secret: string } | null>("POST", "/events", { do: what });
    if (!done.ok) return tellTrouble(done.words);
    if (what === "end-old") {
      setOldMs(0);
      return tell("Only the new secret is taken now.");
    }
    if (what === "rotate") {
      setOldMs(isSet ? Date.now() + 24 * 3_600_000 : 0);
      setIsSet(true);
    }
    await put(
      done.value?.secret ?? "",
      what === "copy"
        ? "Secret copied, without being shown."
        : isSet
          ? "New secret copied. The old one is taken for a day more."
          : "Secret made and copied.",
    );
  };
  return (
    <Box mt="8">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="20px">
        Platform events
      </Text>
      <Text color="inkSoft" mb="3" maxW="70ch">
        Follows, memberships, tips, paid reactions, raids. They arrive by HTTP as CloudEvents 1.0, signed as Standard Webhooks describes.
        The types stand under <a href="/schemas">/schemas</a>.
      </Text>
      <Box bg="raised" borderRadius="10px" borderWidth="1px" borderColor="line" p="4">
        <Flex gap="3" align="center" wrap="wrap">
          <Text fontFamily="mono" fontSize="15px">
            POST {origin}/events/{channel}
          </Text>
          <Button size="xs" variant="outline" onClick={() => void put(`${location.origin}/events/${channel}`, "Address copied.")}>
            Copy address
          </Button>
        </Flex>
        <Flex gap="3" align="center" mt="3" wrap="wrap">
          <Text fontFamily="mono" fontSize="15px" color="inkSoft">
            {isSet ? "whsec_••••••••••••••••" : "no secret yet: nothing is taken"}
          </Text>
          {owner ? (
            <>
              {isSet && (
                <Button size="sm" colorPalette="ochre" fontWeight="700" onClick={() => void act("copy")}>
                  Copy secret
                </Button>
              )}
              <Button
                size="sm"
                {...(isSet ? { variant: "outline" as const } : { colorPalette: "ochre", fontWeight: "700" })}
                onClick={() => void act("rotate")}
              >
                {isSet ? "Change it" : "Make a secret"}
              </Button>
            </>
          ) : (
            <Text color="inkSoft">Only the owner may copy or change it.</Text>
          )}
        </Flex>
        {oldMs > Date.now() && (
          <Flex gap="3" align="center" mt="2">
            <Text fontSize="15px">
              The secret before this one is taken too, until <When atMs={oldMs} />.
            </Text>
            {owner && (
              <Button size="xs" variant="outline" onClick={() => void act("end-old")}>
                End it now
              </Button>
            )}
          </Flex>
        )}
        {byHand !== "" && <CopyField label="To copy, hidden" value={byHand} onDone={() => setByHand("")} />}
        <Text mt="3" color="mossText" fontWeight="600" data-testid="events-line">
          {events === undefined
            ? "…"
            : events.lastMs === null
              ? "Nothing has come since the engine started."
              : `${events.perMinute} in the last minute.`}
          {events?.lastMs != null && (
            <Text as="span" color="inkSoft" fontWeight="400">
              {" "}
              The last one <When atMs={events.lastMs} />.
            </Text>
          )}
        </Text>
      </Box>
      <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px" mt="5" mb="1">
        Refused
      </Text>
      {refused === null ? (
        <Text color="inkSoft">…</Text>
      ) : refused.length === 0 ? (
        <Text color="inkSoft">Nothing was refused since the engine started.</Text>
      ) : (
        <Stack gap="1.5" role="list" aria-label="Refused events">
          {refused.slice(0, 20).map((r) => (
            <Flex
              key={`${r.code}${r.type}${r.why}`}
              role="listitem"
              gap="3"
              bg="raised"
              borderRadius="8px"
              px="3"
              py="2"
              fontSize="15px"
              wrap="wrap"
              data-refused={r.code}
            >
              <Text color="inkSoft" flexShrink="0">
                <When atMs={r.atMs} />
              </Text>
              {r.type !== "" && (
                <Text fontFamily="mono" fontSize="14px">
                  {r.type}
                </Text>
              )}
              <Text flex="1" minW="240px">
                {r.why}
                {r.count > 1 ? ` (${r.count} times)` : ""}
              </Text>
            </Flex>
          ))}
        </Stack>
      )}
    </Box>
  );
}
