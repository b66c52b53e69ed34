"use client";
import { Box, Button, chakra, Flex, Input, Text } from "@chakra-ui/react";
import { useVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown } from "lucide-react";
import { type FormEvent, type KeyboardEvent, memo, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { fold } from "../../../core/kernel/fold";
import type { Sprite, TalkItem } from "../../../core/wire/messages";
import { count } from "../../../core/words/sentence";
import { type Act, useOffer } from "../../../ui/keys";
import { SpriteView } from "../../../ui/sprite-view";
import { tell, tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { lay, wallClock } from "../../_frame/show";
import { mostTalk, useTalk } from "../../_frame/talk";
import { type Chip, chipsOf, passes, takeBack, type TalkFilter, type Tone } from "./talk-rows";
import { ViewerCard } from "./viewer-card";

type Game = Readonly<{ id: string; kind: string; name: string; view: Record<string, unknown> }>;
/** `key` comes round: the list remembers the height of every key it ever saw, and an evening has a million rows. */
type Row = Readonly<{ item: TalkItem; chips: readonly Chip[]; key: number }>;
const keysRound = mostTalk * 2;
const filters: readonly Readonly<{ id: TalkFilter; words: string }>[] = [
  { id: "all", words: "all" },
  { id: "effects", words: "with effect" },
  { id: "refused", words: "refused" },
];
const tones: Readonly<Record<Tone, { bg: string; color: string }>> = {
  good: { bg: "mossText/20", color: "mossText" },
  spent: { bg: "ochreText/20", color: "ochreText" },
  no: { bg: "brickText/20", color: "brickText" },
  said: { bg: "slateText/20", color: "slateText" },
};

/** Chat and signals in one list, each with what it caused. */
export function Talk({ emotes, games }: Readonly<{ emotes: readonly Sprite[]; games: readonly Game[] }>) {
  const items = useTalk((s) => s.items);
  const left = useTalk((s) => s.left);
  const [filter, setFilter] = useState<TalkFilter>("all");
  const [frozen, setFrozen] = useState<readonly TalkItem[] | null>(null);
  const [viewer, setViewer] = useState<Readonly<{ id: string; name: string }> | null>(null);
  const [chip, setChip] = useState<Chip | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const speak = useRef<HTMLInputElement>(null);
  // The same list as long as the same games run: rows are made once.
  const gameList = games.map((g) => `${g.id} ${g.kind}`).join("\n");
  const kinds = useMemo(() => new Map(gameList.split("\n").map((line) => line.split(" ") as [string, string])), [gameList]);
  const pictures = useMemo(() => new Map(emotes.map((e) => [fold(e.word), e])), [emotes]);
  const shown = frozen ?? items;
  const made = useRef(new WeakMap<TalkItem, Row>());
  const madeCount = useRef(0);
  const rows = useMemo(() => {
    const all: Row[] = [];
    for (const item of shown) {
      let row = made.current.get(item);
      if (row === undefined)
        made.current.set(
          item,
          (row = { item, chips: chipsOf(item, (game) => kinds.get(game) ?? ""), key: (madeCount.current += 1) % keysRound }),
        );
      if (passes(filter, row.item, row.chips)) all.push(row);
    }
    return all;
  }, [shown, filter, kinds]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => list.current,
    estimateSize: () => 34,
    overscan: 6,
    getItemKey: (i) => rows[i]?.key ?? i,
  });
  const toEnd = useCallback(() => {
    setFrozen(null);
  }, []);
  useEffect(() => {
    if (frozen === null && rows.length > 0) virtual.scrollToIndex(rows.length - 1, { align: "end" });
  }, [rows, frozen, virtual]);
  const onScroll = (): void => {
    const box = list.current;
    if (box === null) return;
    const fromEnd = box.scrollHeight - box.scrollTop - box.clientHeight;
    // Scrolled up: the list stands still, and what comes waits below.
    if (fromEnd > 80 && frozen === null) setFrozen(items);
    else if (fromEnd < 8 && frozen !== null) toEnd();
  };
  useEffect(() => {
    const find = (event: Event): void => {
      const seq = (event as CustomEvent<number>).detail;
      setFilter("all");
      const all = useTalk.getState().items;
      const at = all.findIndex((i) => i.seq >= seq);
      if (at < 0 || (at === 0 && (all[0]?.seq ?? 0) > seq + 5)) return tell("It is further back than the talk reaches.");
      setFrozen(all);
      setTimeout(() => virtual.scrollToIndex(at, { align: "center" }), 60);
    };
    document.addEventListener("izzam:talk", find);
    return () => document.removeEventListener("izzam:talk", find);
  }, [virtual]);
  const acts = useMemo(
    (): Act[] => [
      { id: "talk.speak", label: "Speak in chat", group: "The talk", key: "/", run: () => speak.current?.focus() },
      {
        id: "talk.pause",
        label: "Hold the talk still, or let it run",
        group: "The talk",
        key: "p",
        run: () => setFrozen((now) => (now === null ? useTalk.getState().items : null)),
      },
    ],
    [],
  );
  useOffer("talk", acts);
  const behind = frozen === null ? 0 : items.length - items.indexOf(frozen[frozen.length - 1] ?? (items[0] as TalkItem)) - 1;
  const closeChip = useCallback(() => setChip(null), []);
  return (
    <Flex direction="column" flex="1" minH="0" position="relative">
      <Flex align="center" gap="1" px="3" pt="2" pb="1">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" flex="1">
          Talk
        </Text>
        {filters.map((f) => (
          <Button
            key={f.id}
            size="xs"
            variant="ghost"
            px="1.5"
            height="26px"
            fontWeight={filter === f.id ? 700 : 500}
            color={filter === f.id ? "ink" : "inkSoft"}
            textDecoration={filter === f.id ? "underline" : undefined}
            textUnderlineOffset="4px"
            aria-pressed={filter === f.id}
            onClick={() => setFilter(f.id)}
          >
            {f.words}
          </Button>
        ))}
      </Flex>
      <Box
        ref={list}
        flex="1"
        minH="0"
        overflowY="auto"
        px="2"
        onScroll={onScroll}
        role="log"
        aria-label="Talk"
        aria-live="off"
        tabIndex={0}
        data-testid="talk"
      >
        {rows.length === 0 && (
          <Text color="inkSoft" fontSize="15px" px="2" py="2">
            {items.length === 0
              ? "Nothing was said yet. What chat writes and what happens on the platform comes here, with what it caused."
              : "Nothing of this kind yet."}
          </Text>
        )}
        <Box position="relative" height={`${virtual.getTotalSize()}px`}>
          {virtual.getVirtualItems().map((v) => {
            const row = rows[v.index];
            if (row === undefined) return null;
            return (
              <Box
                key={v.key}
                ref={virtual.measureElement}
                data-index={v.index}
                position="absolute"
                left="0"
                right="0"
                style={{ transform: `translateY(${v.start}px)` }}
              >
                <TalkRow row={row} pictures={pictures} onViewer={setViewer} onChip={setChip} />
              </Box>
            );
          })}
        </Box>
      </Box>
      {frozen !== null && (
        <Button
          position="absolute"
          bottom="62px"
          left="50%"
          transform="translateX(-50%)"
          size="xs"
          colorPalette="ochre"
          fontWeight="700"
          onClick={toEnd}
          data-testid="talk-held"
        >
          <ArrowDown size={15} aria-hidden="true" /> {behind > 0 ? `${count(behind)} new` : "Held still"}
        </Button>
      )}
      {left > 0 && (
        <Text px="3" fontSize="14px" color="inkSoft" title="More came than anyone can read; games took all of it.">
          {count(left)} lines were left out here.
        </Text>
      )}
      {chip !== null && <ChipCard chip={chip} onClose={closeChip} />}
      <Speak field={speak} />
      {viewer !== null && <ViewerCard viewer={viewer} kindOf={(game) => kinds.get(game) ?? ""} onClose={() => setViewer(null)} />}
    </Flex>
  );
}

type RowProps = Readonly<{
  row: Row;
  pictures: ReadonlyMap<string, Sprite>;
  onViewer: (viewer: { id: string; name: string }) => void;
  onChip: (chip: Chip) => void;
}>;
const TalkRow = memo(function TalkRow({ row: { item, chips }, pictures, onViewer, onChip }: RowProps) {
  const { viewer } = item;
  const own = item.kind === "said" || item.kind === "unsaid";
  const event = !own && item.kind !== "message";
  return (
    <Flex
      gap="2"
      px="2"
      py="3px"
      borderRadius="6px"
      align="flex-start"
      fontSize="15px"
      lineHeight="1.35"
      bg={event && viewer !== null ? "raised" : undefined}
      data-talk={item.kind}
    >
      <Box flex="1" minW="0" overflowWrap="anywhere" title={wallClock(item.atMs)} color={own ? "inkSoft" : undefined}>
        {viewer !== null ? (
          <chakra.button
            type="button"
            fontWeight="700"
            cursor="pointer"
            _hover={{ textDecoration: "underline" }}
            onClick={() => onViewer({ id: viewer.id, name: item.name })}
          >
            {item.name}
          </chakra.button>
        ) : (
          item.name !== "" && <b>{item.name}</b>
        )}{" "}
        {own && (item.kind === "unsaid" ? "could not say: " : "")}
        <Words text={item.text} pictures={pictures} plain={event} />
      </Box>
      {chips.length > 0 && (
        <Flex direction="column" align="flex-end" gap="0.5" maxW="132px" flexShrink="0">
          {chips.slice(0, 4).map((c) => (
            <chakra.button
              key={c.key}
              type="button"
              cursor="pointer"
              px="1.5"
              borderRadius="5px"
              fontSize="14px"
              lineHeight="1.45"
              maxW="132px"
              truncate
              bg={tones[c.tone].bg}
              color={tones[c.tone].color}
              title={c.words}
              onClick={() => onChip(c)}
              data-chip={c.note.refusal?.code ?? c.note.did}
            >
              {c.short}
            </chakra.button>
          ))}
        </Flex>
      )}
    </Flex>
  );
});

/** A message with the channel's own emotes as pictures. */
function Words({ text, pictures, plain }: Readonly<{ text: string; pictures: ReadonlyMap<string, Sprite>; plain: boolean }>) {
  if (plain || pictures.size === 0) return text;
  const parts = text.split(/(\s+)/);
  if (!parts.some((p) => pictures.has(fold(p)))) return text;
  return parts.map((part, i) => {
    const sprite = part.length > 40 ? undefined : pictures.get(fold(part));
    if (sprite === undefined) return part;
    return (
      <chakra.span key={i} display="inline-block" verticalAlign="middle" role="img" aria-label={part} title={part}>
        <SpriteView sprite={sprite} size={22} />
      </chakra.span>
    );
  });
}

/** One consequence: why it came to this, and what can be done about it. */
function ChipCard({ chip, onClose }: Readonly<{ chip: Chip; onClose: () => void }>) {
  const back = takeBack(chip);
  const { facts = {}, count: amount, did } = chip.note;
  const [heals, setHeals] = useState(false);
  const undo = async (): Promise<void> => {
    if (back === null) return;
    const notes = await lay(chip.game, back.hand);
    const no = notes?.find((n) => n.refusal !== undefined)?.refusal;
    if (no === undefined) {
      if (notes !== null) tell(back.hand.do === "undo" ? `The hit of ${amount} was undone.` : "Its emotes were taken off the picture.");
      return onClose();
    }
    // Another hit came in between: what is left is to set it right in one's own name.
    setHeals(true);
  };
  const heal = async (): Promise<void> => {
    if ((await lay(chip.game, { do: "heal", amount })) !== null) tell(`${String(facts["boss"])} was healed by ${amount}.`);
    onClose();
  };
  return (
    <Box
      position="absolute"
      left="12px"
      right="12px"
      bottom="58px"
      zIndex="10"
      bg="raised"
      borderWidth="1px"
      borderColor="line"
      borderRadius="10px"
      p="3"
      boxShadow="lg"
      role="dialog"
      aria-label="What this came to"
      onKeyDown={(e: KeyboardEvent) => e.key === "Escape" && onClose()}
    >
      <Text fontSize="15px" mb="2">
        {chip.words === "" ? chip.short : `${chip.words[0]?.toUpperCase() ?? ""}${chip.words.slice(1)}.`}
        {heals ? " Another hit came after it, so it can’t be undone; healing sets it right." : ""}
      </Text>
      <Flex gap="2" wrap="wrap">
        {back !== null && !heals && (
          <Button size="xs" variant="outline" autoFocus onClick={() => void undo()}>
            {back.label}
          </Button>
        )}
        {heals && did === "boss/hit" && (
          <Button size="xs" colorPalette="ochre" autoFocus onClick={() => void heal()}>
            Heal {String(facts["boss"])} by {count(amount)}
          </Button>
        )}
        <Button size="xs" variant="ghost" autoFocus={back === null} onClick={onClose}>
          Close
        </Button>
      </Flex>
    </Box>
  );
}

function Speak({ field }: Readonly<{ field: React.RefObject<HTMLInputElement | null> }>) {
  const [text, setText] = useState("");
  const [busy, setBusy] = useState(false);
  const send = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (text.trim() === "" || busy) return;
    setBusy(true);
    const done = await call("POST", "/say", { text: text.trim() });
    setBusy(false);
    // What could not be said stays to be said again.
    if (done.ok) setText("");
    else tellTrouble(done.words);
  };
  return (
    <form onSubmit={(e) => void send(e)}>
      <Box p="2.5" borderTopWidth="1px" borderColor="line">
        <Input
          ref={field}
          size="sm"
          fontSize="15px"
          aria-label="Say something in chat"
          placeholder="Say something in chat"
          value={text}
          maxLength={400}
          onChange={(e) => setText(e.currentTarget.value)}
          onKeyDown={(e) => e.key === "Escape" && e.currentTarget.blur()}
        />
      </Box>
    </form>
  );
}
