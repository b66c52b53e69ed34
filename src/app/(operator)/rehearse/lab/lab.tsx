"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { LabAsk } from "../../../../core/lab/ask";
import type { LabView } from "../../../../server/web/lab";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { AnswerCard } from "./answer-card";
import { Composer } from "./composer";
import { useLab } from "./use-lab";

/** The odds lab: a question with its blanks, and below it all that was asked, each with its answer. */
export function Lab({ first, about }: Readonly<{ first: LabView; about: string }>) {
  const { view, trouble, look } = useLab(first);
  const [again, setAgain] = useState<Readonly<{ ask: LabAsk; key: number }> | null>(null);
  const ask = async (asked: LabAsk): Promise<void> => {
    const said = await call<{ id: string }>("POST", "/lab", { ask: asked });
    if (!said.ok) tellTrouble(said.words);
    await look();
  };
  const act = async (id: string, body: Readonly<{ do: string; name?: string }>, done?: string): Promise<void> => {
    const said = await call<null>("POST", `/lab/${id}`, body);
    if (!said.ok) tellTrouble(said.words);
    else if (done !== undefined) tell(done);
    await look();
  };
  const here = view.answers.filter((a) => !a.removed);
  const removed = view.answers.filter((a) => a.removed);
  return (
    <Box maxW="1180px" mx="auto" px="5" pt="5" pb="12">
      <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" lineHeight="1.2">
        Odds lab
      </Text>
      <Text mb="4" color="inkSoft" maxW="76ch">
        Ask what a setting will do before a show finds out. Each question is played through hundreds of evenings by the rules that run on
        air, on copies: nothing of it reaches points, results or chat.
      </Text>
      {view.things.length === 0 ? (
        <Text>Nothing here can be asked about yet. Add a game under Prepare, or sell something for points.</Text>
      ) : (
        <Composer key={again?.key ?? 0} things={view.things} chats={view.chats} about={about} begin={again?.ask ?? null} onAsk={ask} />
      )}
      {trouble !== "" && (
        <Text role="alert" color="brickText" mt="3">
          {trouble}
        </Text>
      )}
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="19px" mt="7" mb="2">
        Asked so far
      </Text>
      {here.length === 0 ? (
        <Text color="inkSoft">Nothing was asked yet. Choose a question above, fill its blanks, and ask.</Text>
      ) : (
        <Stack as="ul" gap="4" aria-label="Asked so far">
          {here.map((answer) => (
            <AnswerCard
              key={answer.id}
              answer={answer}
              points={view.points}
              onAct={(body, done) => act(answer.id, body, done)}
              onCopy={(asked) => {
                setAgain({ ask: asked, key: Date.now() });
                window.scrollTo({ top: 0, behavior: "smooth" });
              }}
            />
          ))}
        </Stack>
      )}
      {removed.length > 0 && (
        <Box mt="7">
          <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="1">
            Removed lately
          </Text>
          <Stack gap="1" as="ul" aria-label="Removed lately">
            {removed.map((a) => (
              <Flex as="li" key={a.id} listStyleType="none" gap="3" align="center">
                <Text flex="1" minW="0" truncate>
                  {a.name === "" ? a.asked : a.name}
                </Text>
                <Button
                  size="xs"
                  variant="outline"
                  aria-label={`Bring back ${a.name === "" ? a.asked : a.name}`}
                  onClick={() => void act(a.id, { do: "restore" }, "It is back.")}
                >
                  Bring back
                </Button>
              </Flex>
            ))}
          </Stack>
        </Box>
      )}
    </Box>
  );
}
