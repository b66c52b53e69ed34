"use client";
import { Box, Button, Flex, Popover, Portal, Stack, Text } from "@chakra-ui/react";
import { Check, CircleDashed, Minus, TriangleAlert } from "lucide-react";
import type { HealthItem } from "../../core/wire/messages";
import { useLive } from "./live";

const away: HealthItem = {
  id: "link",
  name: "Izzam",
  state: "bad",
  says: "This page lost its connection to Izzam.",
  means: "What you see here may be old. Overlays go on by themselves.",
  todo: "It reconnects by itself. If it lasts, check that Izzam is running.",
};
const marks = { good: Check, waiting: CircleDashed, bad: TriangleAlert, off: Minus } as const;
const colours = { good: "mossText", waiting: "ochreText", bad: "brickText", off: "inkSoft" } as const;

/** One sign for all connections; it opens into a list that says what each means and what to do. */
export function HealthSign() {
  const { linked, standing } = useLive();
  const items = linked === "no" ? [away] : (standing?.health ?? []);
  const worst = items.some((i) => i.state === "bad")
    ? "bad"
    : items.some((i) => i.state === "off" || i.state === "waiting")
      ? "waiting"
      : "good";
  const bad = items.filter((i) => i.state === "bad");
  const open = items.filter((i) => i.state !== "good");
  const words =
    items.length === 0
      ? "Connecting…"
      : bad.length > 0
        ? `${bad[0]?.name ?? ""} needs a look`
        : open.length > 0
          ? `${open.length} to look at`
          : "All connected";
  const state = items.length === 0 ? "waiting" : worst;
  const Mark = marks[state];
  return (
    <Popover.Root positioning={{ placement: "bottom-end" }} lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <Button variant="ghost" size="sm" color={colours[state]} fontWeight="600" px="2" gap="1.5" data-health={state}>
          <Mark size={17} aria-hidden="true" />
          {words}
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="420px" aria-label="Health">
            <Stack gap="0" p="2">
              {items.length === 0 && (
                <Text p="3" color="inkSoft">
                  Asking how everything stands…
                </Text>
              )}
              {items.map((item) => {
                const Own = marks[item.state];
                return (
                  <Flex
                    key={item.id}
                    gap="3"
                    p="3"
                    borderBottomWidth="1px"
                    borderColor="line"
                    _last={{ borderBottomWidth: 0 }}
                    data-health-item={item.id}
                  >
                    <Box color={colours[item.state]} pt="0.5">
                      <Own size={18} aria-hidden="true" />
                    </Box>
                    <Box fontSize="15px">
                      <Text>
                        <b>{item.name}.</b> {item.says}
                      </Text>
                      {item.means !== "" && <Text color="inkSoft">{item.means}</Text>}
                      {item.todo !== "" && <Text>{item.todo}</Text>}
                    </Box>
                  </Flex>
                );
              })}
            </Stack>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
