"use client";
import { Button, chakra, Field, Flex, Grid, Input, Text } from "@chakra-ui/react";
import { type FormEvent, useState } from "react";
import type { StudioConnection } from "../../../../server/composition/web";
import { HealthLine } from "../../../_frame/health-line";
import { call } from "../../../_frame/call";
import { Trouble } from "../../../_frame/trouble";
import { tell } from "../../../../ui/toaster";
import { Tick } from "../../../../ui/tick";

/** Where the studio is found: broadcast software with a bridge that speaks the published protocol. */
export function StudioForm({
  enabled,
  settings,
  hasSecret,
  owner,
  practice,
}: Readonly<{ enabled: boolean; settings: StudioConnection | null; hasSecret: boolean; owner: boolean; practice: string }>) {
  const [on, setOn] = useState(enabled);
  const [address, setAddress] = useState(settings?.practice === true ? "" : (settings?.address ?? ""));
  const [rig, setRig] = useState(settings?.practice ?? false);
  const [kept, setKept] = useState(hasSecret);
  const [trouble, setTrouble] = useState("");
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const secret = String(new FormData(event.currentTarget).get("secret") ?? "");
    setBusy(true);
    setTrouble("");
    const at: StudioConnection = { address: rig ? practice.replace(/^http/, "ws") : address.trim(), practice: rig };
    const done = await call("PUT", "/studio", { enabled: on, settings: at, secret: secret === "" ? null : secret });
    setBusy(false);
    if (!done.ok) return setTrouble(done.words);
    if (secret !== "") setKept(true);
    tell("Saved. Izzam connects to the studio with these settings.");
  };
  return (
    <chakra.form onSubmit={(e) => void submit(e)} mt="8" mb="6" aria-label="Studio">
      <chakra.fieldset disabled={!owner} border="none" p="0" m="0">
        <Flex align="center" gap="3" mb="1">
          <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="20px" flex="1">
            Studio
          </Text>
          <Tick label="Connect" value={on} onSet={setOn} />
        </Flex>
        <Text color="inkSoft" mb="3">
          Broadcast software whose scenes follow what happens, through a bridge that speaks JSON-RPC over WebSocket. What it must answer is
          published as <a href="/schemas/izzam-studio-1.json">OpenRPC</a>.
        </Text>
        <HealthLine id="studio" />
        {practice !== "" && (
          <Tick label="The practice rig’s studio: scenes to try, nothing of yours is switched" value={rig} onSet={setRig} />
        )}
        {!rig && (
          <Grid templateColumns={{ base: "1fr", md: "2fr 1fr" }} gap="4" mt="3">
            <Field.Root required>
              <Field.Label>Address</Field.Label>
              <Input
                value={address}
                maxLength={300}
                placeholder="ws://127.0.0.1:4600/"
                onChange={(e) => setAddress(e.currentTarget.value)}
              />
              <Field.HelperText>It begins with ws:// or wss://.</Field.HelperText>
            </Field.Root>
            <Field.Root>
              <Field.Label>Secret</Field.Label>
              <Input name="secret" type="password" autoComplete="off" maxLength={400} />
              <Field.HelperText>
                {kept ? "One is kept, encrypted. Leave this empty to go on with it." : "Empty where the bridge asks for none."}
              </Field.HelperText>
            </Field.Root>
          </Grid>
        )}
        <Trouble words={trouble} mt="3" />
        <Button type="submit" display="flex" mt="4" colorPalette="ochre" fontWeight="700" loading={busy}>
          Save the studio
        </Button>
      </chakra.fieldset>
    </chakra.form>
  );
}
