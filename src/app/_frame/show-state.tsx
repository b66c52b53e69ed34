"use client";
import { Box, Button, chakra, Menu, Portal, Text } from "@chakra-ui/react";
import { ChevronDown } from "lucide-react";
import { tell } from "../../ui/toaster";
import { useSure } from "../../ui/sure";
import { clockOf, commandAndTell, theShow, useNow, useShow } from "./show";

const Clock = ({ sinceMs }: { sinceMs: number }) => {
  const now = useNow(500);
  return (
    <chakra.span fontFamily="mono" fontVariantNumeric="tabular-nums">
      {now === 0 ? "" : clockOf(now - sinceMs)}
    </chakra.span>
  );
};

/** Whether a show is on, since when, and what can be done about it. */
export function ShowState() {
  const show = useShow();
  const state = show?.state ?? "off";
  const words = { off: "Off air", rehearsing: "Rehearsing", on: "On air" }[state];
  const go = async (what: "on-air" | "rehearse" | "end"): Promise<void> => {
    if (!(await commandAndTell(theShow, { do: "show", what }))) return;
    if (what === "rehearse") tell("Rehearsing. Chat hears nothing, and when it ends every game stands as it did before.");
    else if (what === "on-air") tell("On air. What counts per show begins now.");
    else tell(state === "rehearsing" ? "The rehearsal ended. Every game stands as it did before." : "The show ended.");
  };
  // As on the phone: what ends a show is asked twice.
  const ending = useSure(state === "rehearsing" ? "End the rehearsal" : "End the show", () => void go("end"));
  if (show === null) return null;
  return (
    <Menu.Root positioning={{ placement: "bottom-end" }} onOpenChange={ending.leave}>
      <Menu.Trigger asChild>
        <Button
          size="sm"
          variant="ghost"
          px="2"
          gap="1.5"
          fontWeight="700"
          color={state === "on" ? "brickText" : state === "rehearsing" ? "ochreText" : "inkSoft"}
          data-show={state}
          aria-label={`The show: ${words}`}
        >
          {state !== "off" && <Box boxSize="9px" borderRadius="full" bg="currentColor" aria-hidden="true" />}
          {words}
          {show.show !== null && <Clock sinceMs={show.show.sinceMs} />}
          <ChevronDown size={15} aria-hidden="true" />
        </Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content minW="300px">
            {state !== "on" && (
              <Menu.Item value="on" onClick={() => void go("on-air")}>
                <Box>
                  <Text fontWeight="700">Go on air</Text>
                  <Text fontSize="14.5px" color="inkSoft">
                    The clock starts; what counts per show begins anew.
                  </Text>
                </Box>
              </Menu.Item>
            )}
            {state === "off" && (
              <Menu.Item value="rehearse" onClick={() => void go("rehearse")}>
                <Box>
                  <Text fontWeight="700">Rehearse</Text>
                  <Text fontSize="14.5px" color="inkSoft">
                    Everything runs, chat hears nothing, and afterwards every game stands as before.
                  </Text>
                </Box>
              </Menu.Item>
            )}
            {state !== "off" && (
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
