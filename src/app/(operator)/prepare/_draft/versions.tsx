"use client";
import { Button, Flex, Popover, Portal, Text } from "@chakra-ui/react";
import { useState } from "react";
import { tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { When } from "../../../../ui/when";

type Version = Readonly<{ version: number; by: string; atMs: number }>;

/** What was published before; any of it can be made the draft again. */
export function Versions({
  id,
  version,
  onBring,
}: Readonly<{ id: string; version: number; onBring: (settings: unknown, version: number) => void }>) {
  const [list, setList] = useState<readonly Version[] | null>(null);
  const [open, setOpen] = useState(false);
  const show = async (on: boolean): Promise<void> => {
    setOpen(on);
    if (!on) return;
    const got = await call<{ versions: Version[] }>("POST", `/games/${id}/versions`);
    if (got.ok) setList(got.value.versions);
    else tellTrouble(got.words);
  };
  const bring = async (n: number): Promise<void> => {
    const got = await call<{ settings: unknown }>("POST", `/games/${id}/versions`, { version: n });
    if (!got.ok) return tellTrouble(got.words);
    setOpen(false);
    onBring(got.value.settings, n);
  };
  return (
    <Popover.Root open={open} onOpenChange={(e) => void show(e.open)} positioning={{ placement: "bottom-end" }}>
      <Popover.Trigger asChild>
        <Button size="sm" variant="outline">
          Versions
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="400px" p="2" maxH="420px" overflowY="auto" aria-label="Versions">
            {list !== null && list.length === 0 && <Text p="3">Nothing was published yet. Each publishing keeps a version here.</Text>}
            {list?.map((v) => (
              <Flex
                key={v.version}
                p="2.5"
                gap="3"
                align="center"
                borderBottomWidth="1px"
                borderColor="line"
                _last={{ borderBottomWidth: 0 }}
              >
                <Text flex="1">
                  <b>Version {v.version}</b>
                  {v.version === version ? ", on air now" : ""}
                  <br />
                  <Text as="span" color="inkSoft" fontSize="15px">
                    {v.by}, <When atMs={v.atMs} />
                  </Text>
                </Text>
                <Button size="xs" variant="outline" onClick={() => void bring(v.version)}>
                  Bring back
                </Button>
              </Flex>
            ))}
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
