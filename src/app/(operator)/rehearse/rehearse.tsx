"use client";
import { Box, Button, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { roomNames, roomsInWords } from "../../../core/lab/crowd";
import { type CrowdAsk, paces, type RehearsalAsk } from "../../../core/rehearsal/plan";
import { counted } from "../../../core/words/sentence";
import type { ChatLogRow } from "../../../server/ports/chat-log-store";
import { Blank } from "../../../ui/blank";
import { Stub } from "../../../ui/stub";
import { Tick } from "../../../ui/tick";
import { tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { useLive } from "../../_frame/live";
import { commandAndTell, theShow, useShow } from "../../_frame/show";
import { clockOf } from "../../../core/words/clock";
import { ChatLogs } from "./chat-logs";
import { CheckList } from "./check-list";

export type PastOf = Readonly<{ id: number; name: string; fromMs: number; minutes: number }>;
const lastShows = [1, 5, 10] as const;
export const calledOf = ({ name, fromMs }: PastOf): string =>
  name === ""
    ? `the show of ${new Date(fromMs).toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "long" })}`
    : `“${name}”`;

/** Rehearsal as a place: what is not ready yet, a crowd to choose, and what is being rehearsed. */
export function Rehearse({
  shows,
  chats: first,
  begin,
}: Readonly<{ shows: readonly PastOf[]; chats: readonly ChatLogRow[]; begin: number | null }>) {
  const router = useRouter();
  const show = useShow();
  const rehearsals = useLive((s) => s.standing?.rehearsals) ?? [];
  const [chats, setChats] = useState(first);
  const [crowd, setCrowd] = useState(begin === null ? (shows.length > 0 ? "last.5" : "room.usual") : `show.${begin}`);
  const [minute, setMinute] = useState(0);
  const [hands, setHands] = useState(true);
  const [pace, setPace] = useState<number>(1);
  const [chat, setChat] = useState(false);
  const [overlays, setOverlays] = useState(false);
  const [busy, setBusy] = useState(false);
  const past = crowd.startsWith("show.") ? shows.find((s) => `show.${s.id}` === crowd) : undefined;
  const state = show?.state ?? "off";
  const things = show?.plan.items.length ?? 0;
  const go = async (): Promise<void> => {
    setBusy(true);
    const ask: RehearsalAsk = { crowd: crowdOf(crowd, minute, hands), pace: pace as RehearsalAsk["pace"], chat, overlays };
    const said = await call<{ id: string }>("POST", "/rehearsals", ask);
    if (said.ok) return router.push(`/rehearse/room/${said.value.id}`);
    tellTrouble(said.words);
    setBusy(false);
  };
  const options = [
    ...(shows.length > 0
      ? lastShows.map((n) => ({ value: `last.${n}`, words: n === 1 ? "an evening like the last one" : `an evening like the last ${n}` }))
      : []),
    ...roomNames.map((room) => ({ value: `room.${room}`, words: roomsInWords[room] })),
    ...shows.map((s) => ({ value: `show.${s.id}`, words: `${calledOf(s)}, played again` })),
    ...chats.filter((c) => c.removedMs === null).map((c) => ({ value: `file.${c.id}`, words: `the chat “${c.name}”` })),
    { value: "nobody", words: "nobody at all" },
  ];
  return (
    <Box maxW="1180px" mx="auto" px="5" pt="5" pb="12">
      <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" lineHeight="1.2">
        Rehearsal
      </Text>
      <Text mb="4" color="inkSoft" maxW="76ch">
        The whole channel on copies: the booth with everything as it is, and a crowd that plays along. Nothing of it reaches points, results
        or history, and afterwards everything stands as before.
      </Text>
      <Grid templateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1.25fr) minmax(0, 1fr)" }} gap="6" alignItems="start">
        <Stack gap="6">
          <Stub
            stacks
            data-testid="begin"
            end={
              <Button colorPalette="ochre" fontWeight="700" loading={busy} disabled={state !== "off"} onClick={() => void go()}>
                Begin
              </Button>
            }
          >
            <Text fontSize="19px" lineHeight="1.9">
              {things === 0 ? (
                <>
                  Rehearse with an <Link href="/prepare/show">empty rundown</Link> and{" "}
                </>
              ) : (
                <>
                  Rehearse <Link href="/prepare/show">{`the rundown of ${counted(things, "thing")}`}</Link> with{" "}
                </>
              )}
              <Blank
                blank={{ path: "crowd", label: "The crowd", text: "", field: { kind: "choice", options } }}
                value={crowd}
                onChange={(value) => setCrowd(String(value))}
              />
              {past !== undefined && (
                <>
                  {" "}
                  from minute{" "}
                  <Blank
                    blank={{
                      path: "minute",
                      label: "From which minute",
                      text: "",
                      field: { kind: "whole", min: 0, max: Math.max(0, past.minutes - 1) },
                    }}
                    value={minute}
                    onChange={(value) => setMinute(Number(value))}
                  />
                </>
              )}
              , at{" "}
              <Blank
                blank={{
                  path: "pace",
                  label: "How fast",
                  text: "",
                  field: {
                    kind: "choice",
                    options: paces.map((p) => ({ value: String(p), words: p === 1 ? "its own pace" : `${p} × the pace` })),
                  },
                }}
                value={String(pace)}
                onChange={(value) => setPace(Number(value))}
              />
              .
            </Text>
            <Stack gap="1.5" mt="3">
              {past !== undefined && <Tick label="Press what was pressed in the booth then" value={hands} onSet={setHands} />}
              <Tick label="Overlay pages that are open show it" value={overlays} onSet={setOverlays} />
              <Tick label="Chat hears what Izzam says in it" value={chat} onSet={setChat} />
            </Stack>
            {state === "on" && (
              <Text mt="3" color="ochreText" fontWeight="600">
                The show is on. A rehearsal can begin when it has ended.
              </Text>
            )}
            {state === "rehearsing" && (
              <Text mt="3" color="ochreText" fontWeight="600">
                A rehearsal in the open runs; end it at the top first.
              </Text>
            )}
          </Stub>
          {rehearsals.length > 0 && (
            <Box>
              <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="19px" mb="1">
                Rehearsals of today
              </Text>
              <Stack as="ul" gap="0" aria-label="Rehearsals of today">
                {[...rehearsals].reverse().map((r) => (
                  <Flex as="li" key={r.id} listStyleType="none" borderBottomWidth="1px" borderColor="line" py="2" gap="4" align="baseline">
                    <Box flex="1" minW="0">
                      <Link href={`/rehearse/room/${r.id}`}>
                        {r.by}, with {r.crowd}
                      </Link>
                    </Box>
                    <Text fontFamily="mono" fontSize="15px">
                      {clockOf(r.nowMs - r.fromMs)}
                    </Text>
                    <Text color={r.state === "over" ? "inkSoft" : "ochreText"} fontWeight="600" minW="92px" textAlign="right">
                      {{ runs: "runs", jumps: "jumps ahead", paused: "stands still", over: "report" }[r.state]}
                    </Text>
                  </Flex>
                ))}
              </Stack>
            </Box>
          )}
          <Text color="inkSoft" fontSize="15px">
            You would rather have your own chat play along?{" "}
            <Button
              variant="plain"
              p="0"
              h="auto"
              minW="0"
              fontSize="15px"
              fontWeight="600"
              textDecoration="underline"
              disabled={state !== "off"}
              onClick={() => void commandAndTell(theShow, { do: "show", what: "rehearse" }).then((ok) => ok && router.push("/run"))}
            >
              Rehearse in the open
            </Button>
            : with the overlays and the people that are there. Izzam says nothing in chat, points stay as they are, and afterwards every
            game stands as before.
          </Text>
        </Stack>
        <Stack gap="7">
          <CheckList />
          <ChatLogs chats={chats} onChats={setChats} />
        </Stack>
      </Grid>
    </Box>
  );
}

function crowdOf(value: string, minute: number, hands: boolean): CrowdAsk {
  const [from = "", of = ""] = value.split(".");
  const room = roomNames.find((r) => r === of);
  if (from === "room" && room !== undefined) return { from: "room", room };
  if (from === "show") return { from: "show", show: Number(of), minute, hands };
  if (from === "file") return { from: "file", file: of };
  if (from === "last") return { from: "last", shows: Number(of) || 5 };
  return { from: "nobody" };
}
