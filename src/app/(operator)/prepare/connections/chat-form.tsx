"use client";
import { Box, Button, chakra, Collapsible, Field, Flex, Grid, Input, Stack, Switch, Text } from "@chakra-ui/react";
import { ChevronDown } from "lucide-react";
import { type FormEvent, useState } from "react";
import { defaultDialect, type Dialect } from "../../../../core/chat/dialect";
import type { ChatSettings } from "../../../../server/composition/web";
import { tell } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { ChatLine } from "../../../_frame/chat-line";
import { TagFields } from "./tag-fields";
import { Trouble } from "../../../_frame/trouble";

type Login = ChatSettings["login"];
const empty: ChatSettings = {
  host: "",
  port: 6697,
  tls: true,
  tlsUnverified: false,
  nick: "",
  login: "pass",
  channel: "#",
  emotePictures: "",
  profiles: "",
  mostPer30s: 20,
  dialect: defaultDialect,
  practice: false,
};

export function ChatForm({
  enabled,
  settings,
  hasSecret,
  owner,
  practice,
}: Readonly<{ enabled: boolean; settings: ChatSettings | null; hasSecret: boolean; owner: boolean; practice: string }>) {
  const start = settings ?? empty;
  const [on, setOn] = useState(enabled);
  const [tls, setTls] = useState(start.tls);
  const [unverified, setUnverified] = useState(start.tlsUnverified);
  const [login, setLogin] = useState<Login>(start.login);
  const [dialect, setDialect] = useState<Dialect>(start.dialect);
  const [trouble, setTrouble] = useState("");
  const [busy, setBusy] = useState(false);
  const [kept, setKept] = useState(hasSecret);
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string): string => String(form.get(name) ?? "");
    const typed = text("password");
    const host = text("host").trim();
    const port = Number(text("port"));
    setBusy(true);
    setTrouble("");
    const done = await call("PUT", "/chat", {
      enabled: on,
      password: login === "none" ? "" : typed === "" ? null : typed,
      settings: {
        host,
        port,
        tls,
        tlsUnverified: unverified,
        nick: text("nick"),
        login,
        channel: text("channel"),
        emotePictures: text("emotePictures"),
        profiles: text("profiles").trim(),
        mostPer30s: Number(text("mostPer30s")),
        dialect,
        // Once the address is another, it is no longer the rig's to keep fresh.
        practice: start.practice && host === start.host && port === start.port,
      } satisfies ChatSettings,
    });
    setBusy(false);
    if (!done.ok) return setTrouble(done.words);
    if (login === "none") setKept(false);
    else if (typed !== "") setKept(true);
    tell("Saved. Izzam connects anew with these settings.");
  };
  return (
    <Stack gap="5">
      <ChatLine practice={practice} />
      {!owner && (
        <Text bg="note" borderRadius="8px" px="4" py="3">
          Only the owner may change the connection; you see how it stands.
        </Text>
      )}
      <form onSubmit={(e) => void submit(e)}>
        <chakra.fieldset disabled={!owner} border="none" p="0" m="0">
          <Flex align="center" gap="3" mb="4">
            <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="20px" flex="1">
              Chat
            </Text>
            <Toggle label="Connect" on={on} onSet={setOn} />
          </Flex>
          <Grid templateColumns="repeat(12, 1fr)" columnGap="4" rowGap="4">
            <Text1 span={6} name="host" label="Server" value={start.host} hint="Its name or address, without a scheme." />
            <Text1 span={2} name="port" label="Port" value={String(start.port)} type="number" />
            <Flex gridColumn="span 4" direction="column" justify="center" gap="2" pt="5">
              <Toggle label="Encrypted (TLS)" on={tls} onSet={setTls} />
              {tls && <Toggle label="Accept an unknown certificate" on={unverified} onSet={setUnverified} />}
            </Flex>
            <Text1 span={4} name="channel" label="Chat channel" value={start.channel} hint="With its # in front." />
            <Text1 span={4} name="nick" label="Izzam chats as" value={start.nick} />
            <Text1
              span={4}
              name="mostPer30s"
              label="Says at most, in 30 s"
              value={String(start.mostPer30s)}
              type="number"
              hint="Chat servers disconnect whoever says more than they allow."
            />
            <Field.Root gridColumn="span 4">
              <Field.Label>Signs in</Field.Label>
              <chakra.select
                aria-label="Signs in"
                value={login}
                onChange={(e) => setLogin(e.currentTarget.value as Login)}
                width="100%"
                minH="40px"
                px="3"
                borderWidth="1px"
                borderColor="line"
                borderRadius="8px"
                bg="ground"
              >
                <option value="none">without a password</option>
                <option value="pass">with a server password (PASS)</option>
                <option value="sasl">with name and password (SASL)</option>
              </chakra.select>
            </Field.Root>
            {login !== "none" && (
              <Text1
                span={8}
                name="password"
                label="Password"
                value=""
                type="password"
                hint={kept ? "One is kept, encrypted. Leave this empty to go on with it." : "It is kept encrypted and never shown again."}
                required={false}
              />
            )}
            <Text1
              span={12}
              name="emotePictures"
              label="Pictures of the platform’s own emotes"
              value={start.emotePictures}
              hint="An address with {id} where the emote’s id goes. Leave it empty if the platform has none."
              required={false}
            />
            <Text1
              span={12}
              name="profiles"
              label="Where people’s pictures are found"
              value={start.profiles}
              hint="The platform’s host, such as platform.example: it is asked by WebFinger, by Izzam alone. Leave it empty for initials."
              required={false}
            />
          </Grid>
          <Collapsible.Root mt="5">
            <Collapsible.Trigger asChild>
              <Button variant="ghost" size="sm" px="0" color="slateText">
                What the server’s tags mean <ChevronDown size={15} aria-hidden="true" />
              </Button>
            </Collapsible.Trigger>
            <Collapsible.Content>
              <TagFields dialect={dialect} onChange={setDialect} />
            </Collapsible.Content>
          </Collapsible.Root>
          <Trouble words={trouble} mt="4" />
          <Box mt="5">
            <Button type="submit" colorPalette="ochre" fontWeight="700" loading={busy} disabled={!owner}>
              Save and connect
            </Button>
          </Box>
        </chakra.fieldset>
      </form>
    </Stack>
  );
}

function Text1({
  span,
  name,
  label,
  value,
  hint,
  type = "text",
  required = true,
}: Readonly<{ span: number; name: string; label: string; value: string; hint?: string; type?: string; required?: boolean }>) {
  return (
    <Field.Root gridColumn={`span ${span}`} required={required}>
      <Field.Label>{label}</Field.Label>
      <Input name={name} defaultValue={value} type={type} autoComplete={type === "password" ? "new-password" : "off"} />
      {hint !== undefined && <Field.HelperText fontSize="14px">{hint}</Field.HelperText>}
    </Field.Root>
  );
}

function Toggle({ label, on, onSet }: Readonly<{ label: string; on: boolean; onSet: (on: boolean) => void }>) {
  return (
    <Switch.Root checked={on} onCheckedChange={(e) => onSet(e.checked)} colorPalette="ochre">
      <Switch.HiddenInput />
      <Switch.Control>
        <Switch.Thumb />
      </Switch.Control>
      <Switch.Label>{label}</Switch.Label>
    </Switch.Root>
  );
}
