"use client";
import { Modal } from "../../../ui/modal";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import type { Note, TakeBack } from "../../../core/module/module";
import { noteInShort, partOf } from "../../../core/notes";
import { type Role, roleWords } from "../../../core/signals/names";
import { count } from "../../../core/words/sentence";
import type { ViewerCard as Card } from "../../../server/ports/show-store";
import { tell } from "../../../ui/toaster";
import { useLive } from "../../_frame/live";
import { commandAndTell, sendCommand, useShow } from "../../_frame/show";
import { OnPerson } from "../../_frame/on-person";
import { Face } from "../../../ui/face";
import { When } from "../../../ui/when";

const kinds: Readonly<Record<string, string>> = {
  follow: "followed",
  membership: "joined as a member",
  gift: "gave memberships away",
  tip: "tipped",
  reaction: "sent paid reactions",
  raid: "raided",
  host: "hosted",
  command: "was acted for by a rule",
  happened: "made something happen",
};

/** One viewer, as the operator sees them: roles, what they did, and whether they count in games. */
export function ViewerCard({
  viewer,
  kindOf,
  onClose,
}: Readonly<{ viewer: Readonly<{ id: string; name: string }>; kindOf: (game: string) => string; onClose: () => void }>) {
  const [card, setCard] = useState<Card | null | "none">(null);
  const pointsName = useLive((s) => s.standing?.sales.points) ?? "points";
  const facesUrl = useLive((s) => s.standing?.facesUrl) ?? "";
  const muted = useShow()?.muted.find((m) => m.id === viewer.id);
  useEffect(() => {
    let gone = false;
    void fetch(`/api/viewers/card?id=${encodeURIComponent(viewer.id)}`)
      .then((r) => r.json())
      .then((said: { ok: boolean; value?: Card }) => !gone && setCard(said.ok && said.value !== undefined ? said.value : "none"))
      .catch(() => !gone && setCard("none"));
    return () => void (gone = true);
  }, [viewer.id]);
  const mute = async (on: boolean): Promise<void> => {
    const notes = await sendCommand("show", { do: "mute", id: viewer.id, name: viewer.name, on });
    if (notes === null) return;
    if (on)
      tell(
        `${viewer.name} is muted in games: what they do counts nowhere.`,
        () => void sendCommand("show", { do: "mute", id: viewer.id, name: viewer.name, on: false }),
      );
    else tell(`${viewer.name} counts in games again.`);
  };
  const undo = async (game: string, way: TakeBack): Promise<void> => {
    if (await commandAndTell({ id: game, kind: kindOf(game) }, way.command)) tell(way.did);
  };
  const known = card === null || card === "none" ? null : card;
  const roles = (known?.roles ?? []).map((r) => roleWords[r as Role] ?? r);
  return (
    <Modal
      title={viewer.name}
      about={
        <Text color="inkSoft" fontSize="15px">
          <Face name={viewer.name} facesUrl={facesUrl} size={40} />{" "}
          {roles.length === 0 ? "a viewer" : `one of the ${roles.join(", the ").replaceAll("the the ", "the ")}`}
          {known?.firstMs !== null && known !== null && (
            <>
              , first seen <When atMs={known.firstMs} />
            </>
          )}
        </Text>
      }
      size="sm"
      onClose={onClose}
    >
      {muted !== undefined && (
        <Box bg="blank" borderRadius="8px" px="3" py="2" mb="3" fontSize="15px" role="status">
          Muted in games by {muted.by}, <When atMs={muted.atMs} />.
        </Box>
      )}
      {known !== null && (
        <Flex gap="5" mb="3" wrap="wrap">
          {(
            [
              [pointsName, known.points ?? 0],
              ["messages", known.messages],
              ["hits", known.hits.count],
              ["damage", known.hits.damage],
              ["times the boss", known.reigns],
            ] as const
          ).map(([name, n]) => (
            <Box key={name}>
              <Text fontFamily="mono" fontSize="20px" lineHeight="1.2">
                {count(n)}
              </Text>
              <Text color="inkSoft" fontSize="14.5px">
                {name}
              </Text>
            </Box>
          ))}
        </Flex>
      )}
      <Box mb="3">
        <OnPerson person={viewer} />
      </Box>
      <Button
        size="sm"
        variant="outline"
        color={muted === undefined ? "brickText" : undefined}
        mb="3"
        onClick={() => void mute(muted === undefined)}
      >
        {muted === undefined ? "Mute in games" : "Let them count again"}
      </Button>
      <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="16px" mb="1">
        Lately
      </Text>
      {card === null && <Text color="inkSoft">Reading…</Text>}
      {card === "none" && <Text color="inkSoft">Nothing is known of this viewer yet.</Text>}
      {known?.last.map((t) => {
        const notes = t.notes as readonly { game: string; note: Note }[];
        const shorts = notes.map(({ game, note }) => noteInShort(kindOf(game), note)).filter((s) => s !== "");
        return (
          <Flex key={t.seq} gap="2" fontSize="15px" py="1" borderBottomWidth="1px" borderColor="line">
            <Text flex="1" overflowWrap="anywhere">
              {t.kind === "message" ? t.text : `${kinds[t.kind] ?? t.kind}${t.text === "" ? "" : ` “${t.text}”`}`}
              {shorts.length > 0 && (
                <Text as="span" color="inkSoft">
                  {" "}
                  · {shorts.join(", ")}
                </Text>
              )}
            </Text>
            {notes
              .flatMap(({ game, note }) => (partOf(kindOf(game))?.takeBack?.(note) ?? []).slice(0, 1).map((way) => ({ game, way })))
              .map(({ game, way }) => (
                <Button key={way.label} size="xs" variant="outline" flexShrink="0" onClick={() => void undo(game, way)}>
                  {way.label}
                </Button>
              ))}
            <Text color="inkSoft" whiteSpace="nowrap">
              <When atMs={t.atMs} />
            </Text>
          </Flex>
        );
      })}
    </Modal>
  );
}
