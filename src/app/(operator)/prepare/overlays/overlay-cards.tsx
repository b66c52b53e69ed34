"use client";
import { Box, Button, Checkbox, Flex, Menu, Portal, Stack, Text } from "@chakra-ui/react";
import { ChevronDown } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { count } from "../../../../core/words/sentence";
import type { OverlaySummary } from "../../../../server/ports/operator-store";
import { Stub } from "../../../../ui/stub";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { CopyField } from "../../../_frame/copy-field";
import { useLive } from "../../../_frame/live";
import { OpenPageLine } from "./open-page-line";
import { OverlayName } from "./overlay-name";

/** Every overlay: its masked link, who has it open, and how to set up the source. */
export function OverlayCards({
  overlays,
  owner,
  game,
  name = "",
  published = true,
}: Readonly<{ overlays: readonly OverlaySummary[]; owner: boolean; game?: string; name?: string; published?: boolean }>) {
  if (overlays.length === 0) return <Text>There is no overlay yet.</Text>;
  return (
    <Stack gap="5">
      {overlays.map((o) => (
        <OverlayCard key={o.id} overlay={o} owner={owner} published={published} {...(game === undefined ? {} : { game })} />
      ))}
      {game !== undefined && owner && published && !overlays.some((o) => o.games.length === 1 && o.games[0] === game) && (
        <OwnOverlay game={game} name={name} />
      )}
    </Stack>
  );
}

/** A link of its own for one game: an overlay on which nothing else stands. */
function OwnOverlay({ game, name }: Readonly<{ game: string; name: string }>) {
  const router = useRouter();
  const make = async (): Promise<void> => {
    const made = await call<{ id: string }>("POST", "/overlays", { name: `${name} alone`.slice(0, 80), width: 1_920, height: 1_080 });
    if (!made.ok) return tellTrouble(made.words);
    const placed = await call("POST", `/overlays/${made.value.id}/place`, { game, on: true });
    if (!placed.ok) return tellTrouble(placed.words);
    tell("Made. Its link shows this game and nothing else.");
    router.refresh();
  };
  return (
    <Flex borderWidth="1px" borderStyle="dashed" borderColor="line" borderRadius="10px" p="4" gap="4" align="center" wrap="wrap">
      <Text flex="1" minW="240px" color="inkSoft">
        Rather place it in your broadcast software? Give it a link of its own.
      </Text>
      <Button variant="outline" onClick={() => void make()}>
        An overlay of its own
      </Button>
    </Flex>
  );
}

function OverlayCard({
  overlay,
  owner,
  game,
  published,
}: Readonly<{ overlay: OverlaySummary; owner: boolean; game?: string; published: boolean }>) {
  const router = useRouter();
  const [byHand, setByHand] = useState("");
  const linked = useLive((s) => s.linked);
  const pages = useLive((s) => s.standing?.pages)?.filter((p) => p.overlay === overlay.id) ?? [];

  const put = async (token: string, said: string): Promise<void> => {
    const link = `${location.origin}/overlay#${token}`;
    try {
      await navigator.clipboard.writeText(link);
      setByHand("");
      tell(said);
    } catch {
      // No clipboard over plain HTTP from another computer, or not allowed: a masked field to copy from.
      setByHand(link);
    }
  };
  const link = async (what: "copy" | "replace" | "revoke"): Promise<void> => {
    const done = await call<{ token: string } | null>("POST", `/overlays/${overlay.id}/link`, { do: what });
    if (!done.ok) return tellTrouble(done.words);
    if (what === "revoke") {
      setByHand("");
      tell("The link is off. Pages that had it open are empty now.");
    } else if (done.value !== null)
      await put(
        done.value.token,
        what === "copy" ? "Link copied, without being shown." : "New link made and copied. Pages with the old one are empty now.",
      );
    if (what !== "copy") router.refresh();
  };
  const place = async (on: boolean): Promise<void> => {
    const done = await call("POST", `/overlays/${overlay.id}/place`, { game, on });
    if (!done.ok) return tellTrouble(done.words);
    router.refresh();
  };
  return (
    <Stub
      stacks
      data-overlay={overlay.id}
      end={
        owner ? (
          <>
            {overlay.linked ? (
              <Button colorPalette="ochre" fontWeight="700" onClick={() => void link("copy")}>
                Copy link
              </Button>
            ) : (
              <Button colorPalette="ochre" fontWeight="700" onClick={() => void link("replace")}>
                Make a link
              </Button>
            )}
            {overlay.linked && (
              <Menu.Root positioning={{ placement: "bottom-end" }}>
                <Menu.Trigger asChild>
                  <Button size="xs" variant="ghost" colorPalette="plain">
                    Link leaked? <ChevronDown size={14} aria-hidden="true" />
                  </Button>
                </Menu.Trigger>
                <Portal>
                  <Menu.Positioner>
                    <Menu.Content>
                      <Menu.Item value="replace" onClick={() => void link("replace")}>
                        Replace it: old link dies, new one is copied
                      </Menu.Item>
                      <Menu.Item value="revoke" color="brickText" onClick={() => void link("revoke")}>
                        Turn it off
                      </Menu.Item>
                    </Menu.Content>
                  </Menu.Positioner>
                </Portal>
              </Menu.Root>
            )}
          </>
        ) : (
          <Text maxW="130px" color="inkSoft" fontSize="15px">
            Only the owner may copy or change this link.
          </Text>
        )
      }
    >
      <Flex align="center" gap="3">
        <OverlayName id={overlay.id} name={overlay.name} owner={owner && game === undefined} />
        <Text color="inkSoft" fontSize="15px">
          {count(overlay.width)} × {count(overlay.height)}
        </Text>
      </Flex>
      {game === undefined && (
        <Text fontSize="15px" color="inkSoft">
          {overlay.games.length === 0
            ? "Nothing stands on it"
            : `${overlay.games.length} ${overlay.games.length === 1 ? "game stands" : "games stand"} on it`}
          {overlay.shows ? (overlay.sounds ? "" : " · picture only") : " · sound only"}
          {overlay.note === "" ? "" : ` · ${overlay.note}`} · <Link href={`/prepare/overlays/${overlay.id}`}>Arrange the stage</Link>
        </Text>
      )}
      {game !== undefined && (
        <Checkbox.Root
          mt="2"
          checked={overlay.games.includes(game)}
          disabled={!owner || !published}
          onCheckedChange={(e) => void place(e.checked === true)}
          colorPalette="ochre"
        >
          <Checkbox.HiddenInput />
          <Checkbox.Control />
          <Checkbox.Label>{published ? "This game stands on it" : "This game stands on it once it is published"}</Checkbox.Label>
        </Checkbox.Root>
      )}
      <Text
        mt="2"
        fontFamily="mono"
        fontSize="14.5px"
        color="inkSoft"
        aria-label={overlay.linked ? "The link is kept hidden" : "There is no link"}
      >
        {overlay.linked ? "…/overlay#••••••••••••••••" : "no link: nobody can open it"}
      </Text>
      {byHand !== "" && <CopyField label="The link, hidden" value={byHand} onDone={() => setByHand("")} />}
      <Box mt="3" data-testid="open-pages">
        {pages.length === 0 ? (
          <Text>{linked === "yes" ? "No page has it open." : "…"}</Text>
        ) : (
          pages.map((p) => <OpenPageLine key={p.id} page={p} sounds={overlay.sounds} />)
        )}
        {pages.some((p) => Math.abs(p.width / p.height - overlay.width / overlay.height) > 0.02) && (
          <Text color="ochreText">
            Its shape differs from the source size below. Emotes stay round; the picture is just cut differently.
          </Text>
        )}
      </Box>
      <Text mt="3" fontSize="15px" color="inkSoft">
        In the browser source set: width <b>{overlay.width}</b>, height <b>{overlay.height}</b>, <b>60</b> frames a second (30 on a weak
        computer), refresh when shown: <b>yes</b>, unload when hidden: <b>yes</b>.
      </Text>
    </Stub>
  );
}
