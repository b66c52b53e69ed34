"use client";
import { Button, chakra, Flex, Input, Popover, Portal, Stack } from "@chakra-ui/react";
import { useId, useState } from "react";
import type { GivenAsk } from "../../../../../core/rehearsal/plan";
import { Pick } from "../../../../../ui/pick";
import { tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";

const kinds = [
  { value: "message", words: "says", amount: "", text: "What they write" },
  { value: "follow", words: "follows", amount: "", text: "" },
  { value: "tip", words: "tips", amount: "Cents", text: "With these words" },
  { value: "membership", words: "is a member", amount: "Months", text: "With these words" },
  { value: "gift", words: "gives memberships", amount: "How many", text: "" },
  { value: "reaction", words: "sends paid reactions", amount: "Worth", text: "" },
  { value: "raid", words: "raids", amount: "Viewers", text: "" },
  { value: "host", words: "hosts", amount: "Viewers", text: "" },
] as const;
type Kind = (typeof kinds)[number]["value"];

/** One signal by hand, as any viewer. It stays open: one tries a thing again and again. */
export function GiveSignal({ id }: Readonly<{ id: string }>) {
  const [kind, setKind] = useState<Kind>("message");
  const [as, setAs] = useState("somebody_new");
  const [text, setText] = useState("");
  const [amount, setAmount] = useState("500");
  const [busy, setBusy] = useState(false);
  const field = useId();
  const chosen = kinds.find((k) => k.value === kind) ?? kinds[0];
  const give = async (): Promise<void> => {
    setBusy(true);
    const given: GivenAsk = {
      kind,
      as,
      text: chosen.text === "" ? "" : text,
      amount: chosen.amount === "" ? 1 : Math.round(Number(amount)) || 1,
    };
    const done = await call("POST", `/rehearsals/${id}`, { give: given });
    if (!done.ok) tellTrouble(done.words);
    setBusy(false);
  };
  return (
    <Popover.Root positioning={{ placement: "bottom-end" }} lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <Button size="sm" variant="outline" whiteSpace="nowrap">
          Fire a signal
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="340px" aria-label="Fire a signal">
            <Popover.Body>
              <form
                onSubmit={(e) => {
                  e.preventDefault();
                  void give();
                }}
              >
                <Stack gap="2.5">
                  <Flex gap="2" align="center">
                    <Input size="sm" aria-label="As whom" value={as} maxLength={60} onChange={(e) => setAs(e.target.value)} flex="1" />
                    <Pick label="What they do" value={kind} options={kinds} onSet={(value) => setKind(value as Kind)} />
                  </Flex>
                  {chosen.amount !== "" && (
                    <Flex gap="2" align="center">
                      <chakra.label htmlFor={`${field}n`} fontSize="15px" minW="78px">
                        {chosen.amount}
                      </chakra.label>
                      <Input
                        id={`${field}n`}
                        size="sm"
                        type="number"
                        min={1}
                        max={1_000_000}
                        value={amount}
                        onChange={(e) => setAmount(e.target.value)}
                      />
                    </Flex>
                  )}
                  {chosen.text !== "" && (
                    <Input
                      size="sm"
                      placeholder={chosen.text}
                      aria-label={chosen.text}
                      value={text}
                      maxLength={500}
                      onChange={(e) => setText(e.target.value)}
                    />
                  )}
                  <Button type="submit" size="sm" colorPalette="ochre" fontWeight="700" loading={busy}>
                    Fire it
                  </Button>
                </Stack>
              </form>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
