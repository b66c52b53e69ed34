"use client";
import { Box, Button, chakra, Menu, Portal, Text } from "@chakra-ui/react";
import { ChevronDown } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { checksInShort } from "../../core/rehearsal/checks-short";
import { tell, tellTrouble } from "../../ui/toaster";
import { useSure } from "../../ui/sure";
import { call } from "./call";
import { endWith } from "./end-show";
import { useLive } from "./live";
import { useRehearsalHere } from "./rehearsal-here";
import { useChecks } from "./use-checks";
import { commandAndTell, theShow, useNow, useShow } from "./show";
import { clockOf } from "../../core/words/clock";

const Clock = ({ sinceMs }: { sinceMs: number }) => {
  const now = useNow(500);
  return (
    <chakra.span fontFamily="mono" fontVariantNumeric="tabular-nums">
      {now === 0 ? "" : clockOf(now - sinceMs)}
    </chakra.span>
  );
};

/** Ends the show, or the rehearsal whose booth this is. Whether it did. */
export async function endShow(rehearsal: string): Promise<boolean> {
  if (rehearsal === "") return commandAndTell(theShow, { do: "show", what: "end" });
  const done = await call("POST", `/rehearsals/${rehearsal}`, { steer: { do: "end" } });
  if (!done.ok) tellTrouble(done.words);
  return done.ok;
}

/** Whether a show is on, since when, and what can be done about it. */
export function ShowState() {
  const show = useShow();
  const rehearsal = useRehearsalHere((r) => r.id);
  const theirs = useLive((s) => s.standing?.rehearsal ?? null);
  const state = rehearsal === "" ? (show?.state ?? "off") : "rehearsing";
  const router = useRouter();
  // What a rehearsal taught is looked at when it is over: there is nothing left to end.
  const isOver = rehearsal !== "" && theirs?.state === "over";
  const words = isOver ? "Rehearsal over" : { off: "Off air", rehearsing: "Rehearsing", on: "On air" }[state];
  const go = async (what: "on-air" | "end"): Promise<void> => {
    if (what === "end" && state === "on") return endWith(async () => void ((await endShow(rehearsal)) && tell("The show ended.")));
    if (!(what === "end" ? await endShow(rehearsal) : await commandAndTell(theShow, { do: "show", what }))) return;
    if (what === "on-air") tell("On air. What counts per show begins now.");
    else tell("The rehearsal ended. Every game stands as it did before.");
  };
  const [open, setOpen] = useState(false);
  // As on the phone: what ends a show is asked twice.
  const ending = useSure(state === "rehearsing" ? "End the rehearsal" : "End the show", () => void go("end"));
  const checks = useChecks(open && state === "off");
  if (show === null) return null;
  const sinceMs = theirs?.fromMs ?? show.show?.sinceMs ?? null;
  const short = checksInShort(checks ?? []);
  return (
    <Menu.Root positioning={{ placement: "bottom-end" }} onOpenChange={(e) => (setOpen(e.open), ending.leave())}>
      <Menu.Trigger asChild>
        <Button
          size="sm"
          variant="ghost"
          px="2"
          gap="1.5"
          fontWeight="700"
          color={state === "on" ? "brickText" : state === "rehearsing" && !isOver ? "ochreText" : "inkSoft"}
          data-show={state}
          aria-label={`The show: ${words}`}
        >
          {state !== "off" && !isOver && <Box boxSize="9px" borderRadius="full" bg="currentColor" aria-hidden="true" />}
          {words}
          {state !== "off" && sinceMs !== null && <Clock sinceMs={sinceMs} />}
          <ChevronDown size={15} aria-hidden="true" />
        </Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content minW="300px">
            {state !== "on" && rehearsal === "" && (
              <Menu.Item value="on" onClick={() => void go("on-air")}>
                <Box>
                  <Text fontWeight="700">Go on air</Text>
                  <Text fontSize="14.5px" color="inkSoft">
                    The clock starts; what counts per show begins anew.
                  </Text>
                  {short !== "" && (
                    <Text
                      fontSize="14.5px"
                      fontWeight="600"
                      color={short.startsWith("Not") ? "brickText" : "ochreText"}
                      data-testid="checks-in-short"
                    >
                      {short}
                    </Text>
                  )}
                </Box>
              </Menu.Item>
            )}
            {(state === "off" || isOver) && (
              <Menu.Item value="rehearse" onClick={() => router.push("/rehearse")}>
                <Box>
                  <Text fontWeight="700">Rehearse</Text>
                  <Text fontSize="14.5px" color="inkSoft">
                    {short === ""
                      ? "Everything runs on copies, with a crowd, and a report at its end."
                      : "With a crowd on copies; what is not ready stands there too."}
                  </Text>
                </Box>
              </Menu.Item>
            )}
            {state !== "off" && !isOver && (
              <Menu.Item value="end" color="brickText" closeOnSelect={ending.sure} onClick={ending.press}>
                <Text fontWeight="700">{ending.words}</Text>
              </Menu.Item>
            )}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
