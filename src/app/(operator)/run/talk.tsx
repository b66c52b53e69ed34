"use client";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { ArrowDown } from "lucide-react";
import {
  type FocusEvent,
  Fragment,
  type KeyboardEvent,
  memo,
  useCallback,
  useDeferredValue,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { type Chip, chipsOf } from "../../../core/chips";
import { fold } from "../../../core/kernel/fold";
import type { Sprite, TalkItem } from "../../../core/wire/messages";
import { count } from "../../../core/words/sentence";
import { type Act, useOffer } from "../../../ui/keys";
import { fixedKey } from "../../_frame/fixed-keys";
import { tell } from "../../../ui/toaster";
import { useLive } from "../../_frame/live";
import { mostTalk, useTalk } from "../../_frame/talk";
import { ChipCard } from "./chip-card";
import { Speak } from "./speak";
import { type HeldAt, HeldRows } from "./talk-held";
import { type Row, rowStyles, TalkRow } from "./talk-row";
import { passes, type TalkFilter } from "./talk-rows";
import { useTalkFaces } from "./talk-faces";
import { ViewerCard } from "./viewer-card";

type Viewer = Readonly<{ id: string; name: string }>;
/** `at` is null while the last rows just stand still where they are. */
type Held = Readonly<{ items: readonly TalkItem[]; at: HeldAt | null }>;
const keysRound = mostTalk * 2;
/** So many rows stand there while the talk runs: more than fit, and enough to notice that someone scrolls up. */
const running = 60;
const filters: readonly Readonly<{ id: TalkFilter; words: string }>[] = [
  { id: "all", words: "all" },
  { id: "effects", words: "did something" },
  { id: "refused", words: "refused" },
];

/** The kind of each running game, the same map as long as the same games run: rows are made once. */
function useKinds(): ReadonlyMap<string, string> {
  const games = useLive((s) => (s.standing?.games ?? []).map((g) => `${g.id} ${g.kind}`).join("\n"));
  return useMemo(() => new Map(games.split("\n").map((line) => line.split(" ") as [string, string])), [games]);
}

/** Items as rows that pass, each made once. */
function useRows(items: readonly TalkItem[], filter: TalkFilter, kinds: ReadonlyMap<string, string>): readonly Row[] {
  const made = useRef(new WeakMap<TalkItem, Row>());
  const madeCount = useRef(0);
  return useMemo(() => {
    const all: Row[] = [];
    for (const item of items) {
      let row = made.current.get(item);
      if (row === undefined)
        made.current.set(
          item,
          (row = { item, chips: chipsOf(item, (game) => kinds.get(game) ?? ""), key: (madeCount.current += 1) % keysRound }),
        );
      if (passes(filter, row.item, row.chips)) all.push(row);
    }
    return all;
  }, [items, filter, kinds]);
}

/** Chat and signals in one list, each with what it caused. */
export const Talk = memo(function Talk({ emotes }: Readonly<{ emotes: readonly Sprite[] }>) {
  // A key that is struck while rows are being made goes first.
  const items = useDeferredValue(useTalk((s) => s.items));
  const left = useTalk((s) => s.left);
  const [filter, setFilter] = useState<TalkFilter>("all");
  const [held, setHeld] = useState<Held | null>(null);
  const [viewer, setViewer] = useState<Viewer | null>(null);
  const [chip, setChip] = useState<Chip | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const speak = useRef<HTMLInputElement>(null);
  const kinds = useKinds();
  const pictures = useMemo(() => new Map(emotes.map((e) => [fold(e.word), e])), [emotes]);
  const rows = useRows(held?.items ?? items, filter, kinds);
  useTalkFaces(list, useLive((s) => s.standing?.facesUrl) ?? "", rows);
  /** Whether the held list was scrolled away from its end: only then does coming back to it let the talk run. */
  const away = useRef(false);
  const hold = useCallback((items: readonly TalkItem[], at: HeldAt | null) => {
    away.current = at !== null;
    setHeld({ items, at });
  }, []);
  const toEnd = useCallback(() => setHeld(null), []);
  useLayoutEffect(() => {
    if (held === null && list.current !== null) list.current.scrollTop = list.current.scrollHeight;
  }, [rows, held]);
  // By keys: an arrow from the list goes to its last row, and from there row by row; rows stand still meanwhile.
  const byKeys = useRef(false);
  const onBlur = (event: FocusEvent<HTMLElement>): void => {
    if (!byKeys.current || event.currentTarget.contains(event.relatedTarget)) return;
    byKeys.current = false;
    toEnd();
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>): void => {
    if (event.key === "Escape" && held !== null) return toEnd();
    if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
    const names = [...event.currentTarget.querySelectorAll<HTMLElement>("[data-talk] .name")];
    const row = (event.target as HTMLElement).closest("[data-talk]");
    const at = row === null ? names.length : names.findIndex((name) => row.contains(name));
    const next = names[event.key === "ArrowUp" ? at - 1 : at + 1];
    if (next === undefined) return;
    event.preventDefault();
    if (held === null) {
      byKeys.current = true;
      hold(items, null);
    }
    next.focus();
    next.scrollIntoView({ block: "nearest" });
  };
  const onScroll = (): void => {
    const box = list.current;
    if (box === null) return;
    const fromEnd = box.scrollHeight - box.scrollTop - box.clientHeight;
    // Scrolled up: the list stands still, and what comes waits below.
    if (held === null && fromEnd > 80) hold(items, { fromEnd });
    // Whoever goes through the rows by keys keeps the row they are on.
    else if (held?.at === null && fromEnd > 80 && !box.matches(":has(:focus-visible)")) hold(held.items, { fromEnd });
    else if (held !== null && fromEnd > 80) away.current = true;
    else if (held !== null && fromEnd < 8 && away.current) toEnd();
  };
  useEffect(() => {
    const find = (event: Event): void => {
      const seq = (event as CustomEvent<number>).detail;
      setFilter("all");
      const all = useTalk.getState().items;
      const at = all.findIndex((i) => i.seq >= seq);
      if (at < 0 || (at === 0 && (all[0]?.seq ?? 0) > seq + 5)) return tell("It is further back than the talk reaches.");
      hold(all, { row: at });
    };
    document.addEventListener("izzam:talk", find);
    return () => document.removeEventListener("izzam:talk", find);
  }, [hold]);
  const acts = useMemo(
    (): Act[] => [
      { id: "talk.speak", label: "Speak in chat", group: "The talk", key: fixedKey("talk.speak"), run: () => speak.current?.focus() },
      {
        id: "talk.pause",
        label: "Hold the talk still, or let it run",
        group: "The talk",
        key: fixedKey("talk.pause"),
        run: () => (held === null ? hold(useTalk.getState().items, null) : toEnd()),
      },
    ],
    [held, hold, toEnd],
  );
  useOffer("talk", acts);
  const last = held?.items[held.items.length - 1];
  const behind = held === null ? 0 : items.length - (last === undefined ? 0 : items.indexOf(last) + 1);
  const closeChip = useCallback(() => setChip(null), []);
  const show = (row: Row) => <TalkRow row={row} pictures={pictures} onViewer={setViewer} onChip={setChip} />;
  return (
    <Flex direction="column" flex="1" minH="0" position="relative" data-region="">
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
        onKeyDown={onKeyDown}
        onBlur={onBlur}
        role="log"
        aria-label="Talk"
        aria-live="off"
        tabIndex={0}
        data-testid="talk"
        css={rowStyles}
      >
        {rows.length === 0 && (
          <Text color="inkSoft" fontSize="15px" px="2" py="2">
            {items.length === 0
              ? "Nothing was said yet. What chat writes and what happens on the platform comes here, with what it caused."
              : "Nothing of this kind yet."}
          </Text>
        )}
        {held === null || held.at === null ? (
          rows.slice(-running).map((row) => <Fragment key={row.key}>{show(row)}</Fragment>)
        ) : (
          <HeldRows rows={rows} at={held.at} list={list}>
            {show}
          </HeldRows>
        )}
      </Box>
      {held !== null && (
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
          {left === 1 ? "1 line was" : `${count(left)} lines were`} left out here.
        </Text>
      )}
      {chip !== null && <ChipCard chip={chip} onClose={closeChip} />}
      <Speak field={speak} />
      {viewer !== null && <ViewerCard viewer={viewer} kindOf={(game) => kinds.get(game) ?? ""} onClose={() => setViewer(null)} />}
    </Flex>
  );
});
