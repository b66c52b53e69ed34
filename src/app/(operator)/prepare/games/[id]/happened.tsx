"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useCallback, useEffect, useState } from "react";
import { hitKindInWords } from "../../../../../core/games/boss-battle/words";
import { count } from "../../../../../core/words/sentence";
import type { RecordRow } from "../../../../../server/ports/event-store";
import { tell, tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";
import { useLive } from "../../../../_frame/live";
import { When } from "../../../../_frame/when";

type Body = Readonly<{
  name?: string;
  by?: string;
  how?: string;
  health?: number;
  amount?: number;
  kind?: string;
  boss?: string;
  after?: number;
}>;

/** What came to pass in a boss battle: who reigned, who struck; and the hands that set it right. */
export function Happened({ id }: { id: string }) {
  const [reigns, setReigns] = useState<readonly RecordRow[]>([]);
  const [hits, setHits] = useState<readonly RecordRow[]>([]);
  const [loaded, setLoaded] = useState(false);
  const view = useLive((s) => s.standing?.games.find((g) => g.id === id)?.view);
  const mark = `${String(view?.["health"])} ${String(view?.["falls"])} ${String(view?.["name"])}`;
  const load = useCallback(async () => {
    const list = async (kind: string): Promise<readonly RecordRow[]> => {
      const said = (await (await fetch(`/api/games/${id}/records?kind=${kind}`)).json().catch(() => null)) as {
        ok: boolean;
        value?: { records: RecordRow[] };
      } | null;
      return said?.value?.records ?? [];
    };
    setReigns(await list("reign"));
    setHits(await list("hit"));
    setLoaded(true);
  }, [id]);
  useEffect(() => {
    const timer = setTimeout(() => void load(), 200);
    return () => clearTimeout(timer);
  }, [load, mark]);
  const hand = async (what: Record<string, unknown>, said: string): Promise<void> => {
    const done = await call("POST", `/games/${id}/hand`, {
      hand: what,
      id: `hand-${crypto.getRandomValues(new Uint32Array(3)).join("-")}`,
    });
    if (done.ok) tell(said);
    else tellTrouble(done.words);
  };
  return (
    <Box>
      {view !== undefined && (
        <Box bg="raised" borderRadius="10px" p="4" mb="5">
          <Text fontWeight="700" fontSize="17px">
            {String(view["name"])} stands at {count(Number(view["health"]))} of {count(Number(view["max"]))}
          </Text>
          <Flex gap="2" mt="2" wrap="wrap">
            <Button
              size="sm"
              variant="outline"
              disabled={view["undoable"] !== true}
              onClick={() => void hand({ do: "undo" }, "The last hit was undone.")}
            >
              Undo the last hit
            </Button>
            <Button size="sm" variant="outline" onClick={() => void hand({ do: "tell-rules" }, "Chat was told the rules.")}>
              Tell the rules in chat
            </Button>
            <Button
              size="sm"
              variant="outline"
              color="brickText"
              onClick={() => void hand({ do: "start-over" }, "Started over. The reign that ended is kept below.")}
            >
              Start over
            </Button>
          </Flex>
        </Box>
      )}
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        Who reigned
      </Text>
      {loaded && reigns.length === 0 && <Text color="inkSoft">No reign has ended yet. When a boss falls, it stands here.</Text>}
      <Stack gap="1.5" role="list" aria-label="Reigns" maxH="300px" overflowY="auto" tabIndex={reigns.length > 4 ? 0 : undefined}>
        {reigns.map((r) => {
          // What the boss's own rules wrote.
          const b = r.body as Body;
          return (
            <Flex key={r.id} role="listitem" gap="3" bg="raised" borderRadius="8px" px="3" py="1.5" fontSize="15.5px" wrap="wrap">
              <Text fontWeight="700">{b.name}</Text>
              <Text flex="1" color="inkSoft">
                {b.how === "start-over"
                  ? `ended by ${b.by ?? ""}, who started over`
                  : `felled by ${b.by ?? ""}, with ${hitKindInWords(b.how ?? "")}`}
                , had {count(b.health ?? 0)} health
              </Text>
              <Text color="inkSoft">
                <When atMs={r.toMs} />
              </Text>
            </Flex>
          );
        })}
      </Stack>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mt="5" mb="2">
        The last hits
      </Text>
      {loaded && hits.length === 0 && <Text color="inkSoft">Nobody has struck yet.</Text>}
      <Stack gap="1" role="list" aria-label="Hits" maxH="300px" overflowY="auto" tabIndex={hits.length > 6 ? 0 : undefined}>
        {hits.slice(0, 40).map((r) => {
          const b = r.body as Body;
          return (
            <Flex key={r.id} role="listitem" gap="3" fontSize="15.5px" borderBottomWidth="1px" borderColor="line" py="1">
              <Text fontFamily="mono" width="90px" textAlign="right">
                −{count(b.amount ?? 0)}
              </Text>
              <Text flex="1">
                {r.viewer?.name ?? b.by}, with {hitKindInWords(b.kind ?? "")}, to {b.boss}: {count(b.after ?? 0)} left
              </Text>
              <Text color="inkSoft">
                <When atMs={r.toMs} />
              </Text>
            </Flex>
          );
        })}
      </Stack>
    </Box>
  );
}
