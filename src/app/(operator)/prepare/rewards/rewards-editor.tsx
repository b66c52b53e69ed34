"use client";
import { Box, Button, chakra, Flex, Input, Text } from "@chakra-ui/react";
import { Plus, Search } from "lucide-react";
import Link from "next/link";
import { useSearchParams } from "next/navigation";
import { useMemo, useState } from "react";
import { starterRewards } from "../../../../core/rewards/starter";
import { BeginWith } from "../begin-with";
import { fold } from "../../../../core/kernel/fold";
import { givesNothing, newReward, type Reward, type RewardBook } from "../../../../core/rewards/settings";
import { wordFrom } from "../../../../core/rewards/sentences";
import { effectInWords } from "../../../../core/rules/words";
import { rewardHints } from "../../../../core/rules/hints";
import { count } from "../../../../core/words/sentence";
import type { GameDraft } from "../../../../server/ports/operator-store";
import { PriceTag } from "../../../../ui/price-tag";
import { SpriteView } from "../../../../ui/sprite-view";
import { tell } from "../../../../ui/toaster";
import { useLive } from "../../../_frame/live";
import { DraftBar } from "../_draft/draft-bar";
import { useDraft } from "../_draft/use-draft";
import { bookFacts, namesOf, type Available } from "../_effects/available";
import { type Bulk, BulkBar } from "./bulk-bar";
import { RewardForm } from "./reward-form";
import { SoundDrop } from "./sound-drop";

const freshId = (): string => `r${Date.now().toString(36)}${Math.floor(performance.now() * 1000).toString(36)}`.slice(0, 26);

/** What viewers buy with points: price tags on the left, the chosen one in sentences on the right. */
export function RewardsEditor({
  draft: first,
  available: given,
  pointsName,
  channel,
}: Readonly<{ draft: GameDraft; available: Available; pointsName: string; channel: string }>) {
  const draft = useDraft(first.id, first);
  // The server's schema has accepted what it handed over, and every change here keeps to its shape.
  const book = draft.settings as RewardBook;
  const [available, setParts] = useState(given);
  const asks = useSearchParams().get("open");
  const [fresh, setFresh] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string | null>(asks ?? book.rewards[0]?.id ?? null);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [search, setSearch] = useState("");
  const audible = useLive((s) => s.standing?.pages.some((p) => p.sound === "ready") ?? false);
  const seen = useLive((s) => s.standing?.games.find((g) => g.kind === "rewards")?.view["seen"]) as
    readonly Readonly<{ item: string; title: string }>[] | undefined;
  const names = namesOf(available);
  const put = (rewards: Reward[]): void => draft.change({ ...book, rewards });
  const hints = useMemo(() => rewardHints(book.rewards, { ...bookFacts(available), audible }), [book.rewards, available, audible]);
  const shown = book.rewards.filter((r) => search === "" || fold(`${r.name} ${r.words.join(" ")} ${r.category}`).includes(fold(search)));
  const categories = [...new Set(shown.map((r) => r.category))];
  const reward = book.rewards.find((r) => r.id === chosen) ?? null;
  const set = (id: string, next: Reward): void => put(book.rewards.map((r) => (r.id === id ? next : r)));
  const remove = (id: string): void => {
    const name = book.rewards.find((r) => r.id === id)?.name ?? "";
    put(book.rewards.filter((r) => r.id !== id));
    tell(`${name} was taken out.`, draft.undo);
  };
  const move = (id: string, by: number): void => {
    const list = [...book.rewards];
    const at = list.findIndex((r) => r.id === id);
    // Past the next one of its own category, as it is seen.
    let to = at + by;
    while (to >= 0 && to < list.length && list[to]?.category !== list[at]?.category) to += by;
    const [taken] = list.splice(at, 1);
    if (taken === undefined || to < 0 || to > list.length) return;
    list.splice(to, 0, taken);
    put(list);
  };
  const add = (...more: Reward[]): void => {
    put([...book.rewards, ...more]);
    setChosen(more[0]?.id ?? null);
    setFresh(more[0]?.id ?? null);
  };
  const bulk: Bulk = (change) => {
    put(book.rewards.map((r) => (picked.has(r.id) ? change(r) : r)));
    tell(`${picked.size === 1 ? "1 reward was" : `${count(picked.size)} rewards were`} changed.`, draft.undo);
  };
  const does = (r: Reward): string =>
    r.effects.map((d) => effectInWords(d, { when: "redemption", fixed: true }, names)).join(", then ") ||
    (r.approval ? "waits for somebody’s yes" : r.codes.length > 0 ? "hands out a code" : "does nothing yet");
  const unsold = book.rewards.filter((r) => r.on && givesNothing(r));

  return (
    <Box>
      <DraftBar
        id={first.id}
        draft={draft}
        thing="list of rewards"
        where="the viewer page"
        publishedBut={unsold.length === 0 ? "" : `Not on sale, because it does nothing yet: ${unsold.map((r) => r.name).join(", ")}.`}
        lead={
          <Flex gap="4" align="baseline">
            <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="19px">
              Rewards
            </Text>
            <Link href={`/c/${channel}`} target="_blank" style={{ textDecoration: "underline" }}>
              The viewer page
            </Link>
          </Flex>
        }
      />
      <Flex align="start" maxW="1440px" mx="auto">
        <Box width={{ base: "100%", lg: "540px" }} flexShrink="0" px="5" py="4" borderRightWidth="1px" borderColor="line">
          <Flex gap="2" mb="3" align="center">
            <Flex flex="1" align="center" gap="2" borderWidth="1px" borderColor="line" borderRadius="8px" px="2">
              <Search size={16} aria-hidden="true" />
              <Input
                variant="flushed"
                border="none"
                size="sm"
                aria-label="Find a reward"
                placeholder="Find a reward"
                value={search}
                onChange={(e) => setSearch(e.currentTarget.value)}
              />
            </Flex>
            <Button
              size="sm"
              variant="outline"
              disabled={book.rewards.length >= 300}
              onClick={() => add(newReward(freshId(), `Reward ${book.rewards.length + 1}`, 100))}
            >
              <Plus size={16} aria-hidden="true" /> Add a reward
            </Button>
          </Flex>
          <SoundDrop
            onSounds={(sounds) => {
              setParts((p) => ({
                ...p,
                props: [...p.props, ...sounds.map((s) => ({ id: s.id, name: s.name, kind: "sound" as const, url: s.url, ms: s.ms }))],
              }));
              const taken = new Set(book.rewards.flatMap((r) => r.words.map(fold)));
              const fresh = sounds.map((s, i): Reward => {
                const word = wordFrom(s.name);
                const free = word !== "" && !taken.has(fold(word));
                if (free) taken.add(fold(word));
                return {
                  ...newReward(`${freshId()}${i}`.slice(-26), s.name.slice(0, 60), 100),
                  category: "Sounds",
                  sharedRestMs: 10_000,
                  words: free ? [word] : [],
                  effects: [{ do: "sound", sound: s.id, volume: 80, queue: available.queues[0]?.id ?? "" }],
                };
              });
              if (fresh.length === 0) return;
              add(...fresh);
              setPicked(new Set(fresh.map((r) => r.id)));
              tell(
                fresh.length === 1
                  ? `${fresh[0]?.name} is a reward now.`
                  : `${fresh.length} sounds are rewards now; set prices for all of them at once.`,
              );
            }}
          />
          {picked.size > 1 && <BulkBar many={picked.size} onBulk={bulk} onNone={() => setPicked(new Set())} />}
          {book.rewards.length === 0 && (
            <BeginWith
              words="There is no reward yet. Drop sounds above to sell them, or add a reward and choose what happens."
              offer="Begin with three rewards"
              onBegin={() => put(starterRewards(() => freshId()))}
            />
          )}
          {categories.map((category) => (
            <Box key={category} mb="4">
              <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="16px" mb="1.5">
                {category === "" ? "Without a category" : category}
              </Text>
              <Flex direction="column" gap="2" role="list" aria-label={category === "" ? "Without a category" : category}>
                {shown
                  .filter((r) => r.category === category)
                  .map((r) => (
                    <Flex key={r.id} role="listitem" align="center" gap="2" data-reward={r.id}>
                      <chakra.input
                        type="checkbox"
                        aria-label={`Choose ${r.name} for a change of many`}
                        boxSize="18px"
                        checked={picked.has(r.id)}
                        onChange={() =>
                          setPicked((all) => {
                            const next = new Set(all);
                            if (!next.delete(r.id)) next.add(r.id);
                            return next;
                          })
                        }
                      />
                      <chakra.button
                        type="button"
                        flex="1"
                        minW="0"
                        textAlign="left"
                        cursor="pointer"
                        onClick={() => setChosen(r.id)}
                        aria-pressed={r.id === chosen}
                        aria-label={r.name}
                      >
                        <PriceTag price={count(r.price)} points={pointsName} chosen={r.id === chosen} dim={!r.on || givesNothing(r)}>
                          <Flex align="center" gap="2.5">
                            <Icon available={available} icon={r.icon} />
                            <Box minW="0" flex="1">
                              <Flex gap="2" align="baseline">
                                <Text fontWeight="700" truncate>
                                  {r.name}
                                </Text>
                                <Text fontFamily="mono" fontSize="14px" color="inkSoft" flexShrink="0">
                                  {r.words[0] ?? ""}
                                </Text>
                                {(!r.on || givesNothing(r)) && (
                                  <Text fontSize="14px" color={r.on ? "brickText" : "inkSoft"} flexShrink="0">
                                    {r.on ? "not sold" : "off"}
                                  </Text>
                                )}
                              </Flex>
                              <Text fontSize="14px" color="inkSoft" truncate>
                                {does(r)}
                              </Text>
                            </Box>
                          </Flex>
                        </PriceTag>
                      </chakra.button>
                    </Flex>
                  ))}
              </Flex>
            </Box>
          ))}
          {book.rewards.length > 0 && shown.length === 0 && <Text color="inkSoft">No reward is called so.</Text>}
          <Questions book={book} onSet={(words) => draft.change({ ...book, words })} />
        </Box>
        <Box
          flex="1"
          minW="0"
          px="6"
          py="4"
          position={{ lg: "sticky" }}
          top="56px"
          maxH={{ lg: "calc(100vh - 56px)" }}
          overflowY={{ lg: "auto" }}
          tabIndex={0}
          role="region"
          aria-label="The chosen reward"
        >
          {reward === null ? (
            <Text color="inkSoft">Choose a price tag, and what it costs and does stands here.</Text>
          ) : (
            <RewardForm
              key={reward.id}
              reward={reward}
              available={available}
              pointsName={pointsName}
              seen={seen ?? []}
              hints={hints.filter((h) => h.ruleId === reward.id).map((h) => h.text)}
              categories={[...new Set(book.rewards.map((r) => r.category))].filter((c) => c !== "")}
              fresh={fresh === reward.id}
              onSet={(next) => set(reward.id, next)}
              onRemove={() => remove(reward.id)}
              onMove={(by) => move(reward.id, by)}
            />
          )}
        </Box>
      </Flex>
    </Box>
  );
}

function Icon({ available, icon }: Readonly<{ available: Available; icon: string }>) {
  const sprite = [...available.emotes, ...available.pictures].find((s) => s.key === icon);
  return sprite === undefined ? null : <SpriteView sprite={sprite} size={34} />;
}

/** The words with which viewers ask; the answers come from the price tags. */
function Questions({ book, onSet }: Readonly<{ book: RewardBook; onSet: (words: RewardBook["words"]) => void }>) {
  const field = (key: "shop" | "price", label: string) => (
    <chakra.input
      aria-label={label}
      value={book.words[key]}
      maxLength={30}
      placeholder="no word"
      width="110px"
      px="2"
      minH="34px"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      bg="ground"
      onChange={(e) => onSet({ ...book.words, [key]: e.currentTarget.value.replace(/\s/g, "") })}
    />
  );
  return (
    <Box borderTopWidth="1px" borderColor="line" pt="3" fontSize="15.5px" lineHeight="2.2">
      Viewers ask with {field("shop", "Word for what can be had")} what they can have for their points, and with{" "}
      {field("price", "Word for what something costs")} and a name what it costs.
    </Box>
  );
}
