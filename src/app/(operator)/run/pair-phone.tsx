"use client";
import { Modal } from "../../../ui/modal";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { Smartphone } from "lucide-react";
import { useSearchParams } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import { renderSVG } from "uqr";
import type { Remote } from "../../../server/ports/operator-store";
import { tell, tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { When } from "../../../ui/when";

type Offer = Readonly<{ code: string; untilMs: number; addresses: readonly string[] }>;
const inFours = (code: string): string => `${code.slice(0, 4)} ${code.slice(4)}`;

/** Pairs a phone: a code that works once, as a picture to scan and as letters to type; and which phones are paired. */
export function PairPhone({ lan }: Readonly<{ lan: boolean }>) {
  // The search leads here.
  const [open, setOpen] = useState(useSearchParams().get("pair") === "phone");
  const [offer, setOffer] = useState<Offer | null>(null);
  const [phones, setPhones] = useState<readonly Remote[]>([]);
  const read = useCallback(async () => {
    const said = (await fetch("/api/remotes")
      .then((r) => r.json())
      .catch(() => null)) as { ok: boolean; value?: { remotes: readonly Remote[] } } | null;
    if (said?.ok === true) setPhones(said.value?.remotes ?? []);
  }, []);
  useEffect(() => {
    if (!open) return;
    void read();
    const timer = setInterval(() => void read(), 3_000);
    return () => clearInterval(timer);
  }, [open, read]);
  const make = async (): Promise<void> => {
    const done = await call<Offer>("POST", "/remotes");
    if (done.ok) setOffer(done.value);
    else tellTrouble(done.words);
  };
  const revoke = async (phone: Remote): Promise<void> => {
    const done = await call("DELETE", `/remotes/${phone.id}`);
    if (!done.ok) return tellTrouble(done.words);
    tell(`${phone.label} is no longer paired.`);
    void read();
  };
  const address = offer?.addresses[0] ?? "";
  const local = address.includes("//localhost") || address.includes("//127.");
  return (
    <Modal
      title="Phone remote"
      open={open}
      trigger={
        <Button size="xs" variant="ghost" px="1.5" aria-label="Phone remote" title="Phone remote">
          <Smartphone size={16} />
        </Button>
      }
      onOpen={() => setOpen(true)}
      onClose={() => {
        setOpen(false);
        setOffer(null);
      }}
    >
      <Text mb="3">
        A phone with your cues, the running games’ actions, what waits for you, and Hush. It needs no password: a code pairs it once.
      </Text>
      {!lan && (
        <Box bg="blank" borderRadius="8px" px="3" py="2" mb="3" fontSize="15px">
          Izzam is open to this computer only. To use a phone, start it with <b>./start --lan</b>; phones on the same network can then reach
          it.
        </Box>
      )}
      {offer === null ? (
        <Button colorPalette="ochre" fontWeight="700" onClick={() => void make()}>
          Pair a phone
        </Button>
      ) : (
        <Flex gap="4" align="flex-start">
          <Box
            flexShrink="0"
            width="168px"
            bg="white"
            borderRadius="8px"
            p="1"
            role="img"
            aria-label="QR code that opens the remote on a phone"
            dangerouslySetInnerHTML={{ __html: renderSVG(`${address}/remote#${offer.code}`, { border: 1 }) }}
          />
          <Stack gap="1.5" fontSize="15.5px">
            <Text>Scan it, or open</Text>
            {offer.addresses.map((a) => (
              <Text key={a} fontFamily="mono" overflowWrap="anywhere">
                {a}/remote
              </Text>
            ))}
            <Text>and type</Text>
            <Text fontFamily="mono" fontSize="24px" fontWeight="700" letterSpacing="0.06em" data-testid="pairing-code">
              {inFours(offer.code)}
            </Text>
            <Text color="inkSoft">It works once, for ten minutes.</Text>
          </Stack>
        </Flex>
      )}
      {offer !== null && !local && address.startsWith("http://") && (
        <Text mt="3" fontSize="15px" color="inkSoft">
          The phone speaks plain HTTP with this computer. Somebody who listens on the same network could read along and act as this phone:
          use it on a network you trust, and unpair it after the show.
        </Text>
      )}
      <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="16px" mt="5" mb="1">
        Paired phones
      </Text>
      {phones.length === 0 && <Text color="inkSoft">None.</Text>}
      <Stack gap="1" role="list" aria-label="Paired phones">
        {phones.map((p) => (
          <Flex key={p.id} role="listitem" align="center" gap="3" fontSize="15.5px" borderBottomWidth="1px" borderColor="line" py="1">
            <Text flex="1">
              <b>{p.label}</b>, by {p.by}, <When atMs={p.sinceMs} />
            </Text>
            <Button size="xs" variant="outline" color="brickText" onClick={() => void revoke(p)}>
              Unpair
            </Button>
          </Flex>
        ))}
      </Stack>
    </Modal>
  );
}
