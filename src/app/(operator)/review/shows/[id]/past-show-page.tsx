"use client";
import dynamic from "next/dynamic";
import { Box, Button, Flex, Grid, Text } from "@chakra-ui/react";
import { ChevronLeft, ChevronRight } from "lucide-react";
import Link from "next/link";
import { useCallback, useEffect, useState } from "react";
import { moneyInWords } from "../../../../../core/signals/money-words";
import { count, counted } from "../../../../../core/words/sentence";
import type { ReviewView, ShownMoment } from "../../../../../server/web/review";
import { tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";
import { clockOf } from "../../../../../core/words/clock";
import { Came } from "../../came";
import { Aired } from "./aired";
import { Lines } from "./lines";
import { MarkersOut } from "./markers-out";
import { Moments } from "./moments";
import { ClockRow, Part } from "./part";
import { Results } from "./results";
import { Share } from "./share";
import { ShowFiles } from "./show-files";
import { ShowName } from "./show-name";
import { ShowTape, type Span } from "./show-tape";

// Prizes are told by the games they were won in, so these come after the page.
const HandOvers = dynamic(() => import("../../hand-overs").then((m) => m.HandOvers), { ssr: false });

/** A show that is over: its name and numbers, its tape, and what was said, found and won in it. */
export function PastShowPage({ view, drawn }: Readonly<{ view: ReviewView; drawn: ReviewView["rounds"] }>) {
  const { show, games } = view;
  const whole: Span = { fromMs: show.fromMs, toMs: Math.max(show.toMs, show.fromMs + 1_000) };
  const [span, setSpan] = useState<Span>(whole);
  const [moments, setMoments] = useState<readonly ShownMoment[] | null>(null);
  const path = `/review/shows/${show.id}`;
  const look = useCallback(async (): Promise<void> => {
    const said = await call<readonly ShownMoment[]>("GET", `${path}/moments`);
    if (said.ok) setMoments(said.value);
    else tellTrouble(said.words);
  }, [path]);
  useEffect(() => void look(), [look]);
  // A mark on the tape leads to what was said around it.
  useEffect(() => {
    const find = (event: Event): void => {
      const mark = event instanceof CustomEvent ? view.marks.find((m) => m.seq === event.detail) : undefined;
      if (mark !== undefined) setSpan({ fromMs: Math.max(show.fromMs, mark.atMs - 30_000), toMs: Math.min(show.toMs, mark.atMs + 60_000) });
    };
    document.addEventListener("izzam:talk", find);
    return () => document.removeEventListener("izzam:talk", find);
  }, [view.marks, show]);
  const act = async (body: object): Promise<boolean> => {
    const said = await call<null>("POST", path, body);
    if (!said.ok) tellTrouble(said.words);
    await look();
    return said.ok;
  };
  return (
    <Box maxW="1280px" mx="auto" px="5" pt="4" pb="12">
      <Flex align="baseline" gap="4" wrap="wrap">
        <ShowName show={show} />
        <Text color="inkSoft">
          {new Date(show.fromMs).toLocaleString("en-GB", { dateStyle: "full", timeStyle: "short" })}, {clockOf(show.toMs - show.fromMs)}
        </Text>
        <Box flex="1" />
        <Step to={view.before} label="The show before" />
        <Step to={view.after} label="The show after" />
      </Flex>
      <Numbers view={view} />
      <ShowTape view={view} moments={moments ?? []} whole={whole} span={span} onSpan={setSpan} />
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.25fr) minmax(0,1fr)" }} gap="6" mt="4">
        <Box minW="0">
          <Lines path={path} span={span} whole={whole} games={games} startMs={show.fromMs} />
          <Part title="Rounds and results">
            <Results results={drawn} startMs={show.fromMs} />
          </Part>
          <Part title="Spoken and shown">
            <Aired aired={view.aired} startMs={show.fromMs} />
          </Part>
          <Part title="Sold and given back">
            <Sold sold={view.sold} points={view.points} />
          </Part>
        </Box>
        <Box minW="0">
          <Moments moments={moments} show={show} span={span} whole={whole} onAct={act} onSpan={setSpan} />
          <MarkersOut show={show} kept={(moments ?? []).filter((m) => m.state === "kept").length} onAct={act} />
          <HandOvers between={[show.fromMs, show.toMs + 60_000]} />
          {view.faults.length > 0 && (
            <Part title="What went wrong">
              <Faults faults={view.faults} startMs={show.fromMs} onLook={(fromMs, toMs) => setSpan({ fromMs, toMs })} whole={whole} />
            </Part>
          )}
          <ShowFiles id={show.id} />
          <Share id={show.id} shared={show.shared} />
          <Part title="Who came">
            <Came came={view.came} />
          </Part>
        </Box>
      </Grid>
    </Box>
  );
}

const Step = ({ to, label }: Readonly<{ to: number | null; label: string }>) =>
  to === null ? null : (
    <Link href={`/review/shows/${to}`} aria-label={label} title={label}>
      {label.endsWith("before") ? <ChevronLeft size={20} aria-hidden="true" /> : <ChevronRight size={20} aria-hidden="true" />}
    </Link>
  );

/** What mattered, in one look: only what there was any of. */
function Numbers({ view: { numbers: n, points, home, came } }: Readonly<{ view: ReviewView }>) {
  const all: readonly (readonly [figure: string, words: string])[] = [
    [count(n.messages), `messages from ${counted(n.people, "viewer")}`],
    [count(n.busiest), "in the busiest minute"],
    [n.follows === 0 ? "" : count(n.follows), n.follows === 1 ? "follow" : "follows"],
    [n.memberships === 0 ? "" : count(n.memberships), n.memberships === 1 ? "membership" : "memberships"],
    [n.gifts === 0 ? "" : count(n.gifts), n.gifts === 1 ? "gift of memberships" : "gifts of memberships"],
    [n.tips === 0 ? "" : moneyInWords(n.tipped, home), `in ${counted(n.tips, "tip")}`],
    [n.raids === 0 ? "" : count(n.raiders), `came with ${counted(n.raids, "raid")}`],
    [n.made === 0 ? "" : `+${count(n.made)}`, `${points} made`],
    [n.spent === 0 ? "" : `−${count(n.spent)}`, `${points} spent`],
    [n.sales === 0 ? "" : count(n.sales), `sold${n.refunds === 0 ? "" : `, ${count(n.refunds)} refunded`}`],
    [came.fresh.count === 0 ? "" : count(came.fresh.count), "here for the first time"],
  ];
  return (
    <Flex as="dl" gap="6" rowGap="2" wrap="wrap" mt="3" mb="3" data-testid="numbers">
      {all
        .filter(([figure]) => figure !== "")
        .map(([figure, words]) => (
          <Flex key={words} direction="column-reverse">
            <Text as="dt" fontSize="14.5px" color="inkSoft" lineHeight="1.2">
              {words}
            </Text>
            <Text as="dd" fontFamily="mono" fontSize="20px" fontWeight="700" lineHeight="1.2">
              {figure}
            </Text>
          </Flex>
        ))}
    </Flex>
  );
}

/** What was bought, most first, and what of it was given back. */
function Sold({ sold, points }: Readonly<{ sold: ReviewView["sold"]; points: string }>) {
  if (sold.length === 0) return <Text color="inkSoft">Nothing was sold in this show.</Text>;
  return (
    <Box as="ul" aria-label="Sold in this show">
      {sold.map((s) => (
        <Flex as="li" key={s.reward} listStyleType="none" gap="3" py="1" align="baseline" borderBottomWidth="1px" borderColor="line">
          <Text flex="1" minW="0" truncate>
            <b>{s.reward}</b>
            {s.refunded > 0 && <> · {count(s.refunded)} given back</>}
          </Text>
          <Text color="inkSoft" fontSize="15px">
            {counted(s.count, "time")}
          </Text>
          <Text fontFamily="mono" fontSize="15px" minW="84px" textAlign="right">
            {count(s.points)} {points}
          </Text>
        </Flex>
      ))}
    </Box>
  );
}

/** Faults with what they meant for viewers; each leads to its stretch of the tape. */
function Faults({
  faults,
  startMs,
  whole,
  onLook,
}: Readonly<{ faults: ReviewView["faults"]; startMs: number; whole: Span; onLook: (fromMs: number, toMs: number) => void }>) {
  return (
    <Box as="ul" aria-label="Faults of this show">
      {faults.map((f) => (
        <ClockRow
          key={f.id}
          afterMs={f.fromMs - startMs}
          end={
            <Button
              size="xs"
              variant="outline"
              aria-label={`Look at ${f.name} on the tape`}
              onClick={() => onLook(Math.max(whole.fromMs, f.fromMs - 60_000), Math.min(whole.toMs, f.toMs + 60_000))}
            >
              Look
            </Button>
          }
        >
          <Text>
            <b>{f.name}</b>: {f.says} It lasted {clockOf(f.toMs - f.fromMs)}.
          </Text>
          <Text fontSize="15px" color="inkSoft">
            {f.means}
          </Text>
        </ClockRow>
      ))}
    </Box>
  );
}
