"use client";
import { counted } from "../../../core/words/sentence";
import { Box, Button, Field, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { type FormEvent, type ReactNode, useState } from "react";
import type { OpenSession, Operator } from "../../../server/ports/operator-store";
import { tell, tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { CopyField } from "../../_frame/copy-field";
import { When } from "../../../ui/when";
import { Trouble } from "../../_frame/trouble";

type Here = Omit<OpenSession, "tokenHash"> & Readonly<{ here: boolean }>;
type Invite = Readonly<{ by: string; sinceMs: number; untilMs: number }>;

const Part = ({ title, about, children }: Readonly<{ title: string; about: string; children: ReactNode }>) => (
  <Box as="section" mt="8" aria-label={title}>
    <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="20px">
      {title}
    </Text>
    <Text color="inkSoft" mb="3" maxW="70ch">
      {about}
    </Text>
    {children}
  </Box>
);
const Line = ({ children }: Readonly<{ children: ReactNode }>) => (
  <Flex role="listitem" align="center" gap="3" py="2" borderBottomWidth="1px" borderColor="line" wrap="wrap">
    {children}
  </Flex>
);

/** One's own password and sessions; for the owner, the channel's name and who works on it. */
export function AccountView({
  me,
  login,
  publicName,
  demo,
  owner,
  channel,
  sessions,
  operators,
  invites,
}: Readonly<{
  me: string;
  login: string;
  publicName: string;
  demo: boolean;
  owner: boolean;
  channel: string;
  sessions: readonly Here[];
  operators: readonly Operator[];
  invites: readonly Invite[];
}>) {
  const router = useRouter();
  const [trouble, setTrouble] = useState("");
  const [link, setLink] = useState("");
  const [asked, setAsked] = useState<Operator | null>(null);
  const act = async (method: "POST" | "PUT" | "PATCH" | "DELETE", path: string, body: unknown, said: string): Promise<void> => {
    const done = await call(method, path, body);
    if (!done.ok) return tellTrouble(done.words);
    tell(said);
    router.refresh();
  };
  const changePassword = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const form = event.currentTarget;
    const given = new FormData(form);
    setTrouble("");
    const done = await call("POST", "/account/password", { before: given.get("before"), after: given.get("after") });
    if (!done.ok) return setTrouble(done.words);
    form.reset();
    tell("Your password is changed. Everywhere else you are signed out.");
    router.refresh();
  };
  const choosePublicName = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const name = String(new FormData(event.currentTarget).get("name") ?? "").trim();
    await act("PUT", "/account/public-name", { name }, name === "" ? "Viewers read “the house”." : `Viewers read “${name}”.`);
  };
  const invite = async (): Promise<void> => {
    const done = await call<{ token: string }>("POST", "/operators");
    if (!done.ok) return tellTrouble(done.words);
    const address = `${location.origin}/join#${done.value.token}`;
    try {
      await navigator.clipboard.writeText(address);
      tell("Invitation copied, without being shown. It works once, for a week.");
    } catch {
      setLink(address);
    }
    router.refresh();
  };
  return (
    <Box maxW="820px" mx="auto" px="5" py="6" pb="16">
      <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="26px">
        Account
      </Text>
      <Text color="inkSoft">
        {login}, {owner ? "owner" : "moderator"} of {channel}
      </Text>

      <Part
        title="Password"
        about={
          demo
            ? "This is an account of the demo: everybody knows its password, so it works on this computer only. With a password of your own it works everywhere."
            : "After a change you stay signed in here, and are signed out everywhere else."
        }
      >
        <form onSubmit={(e) => void changePassword(e)}>
          <Flex gap="4" wrap="wrap" align="flex-end">
            <Field.Root required maxW="260px">
              <Field.Label>Current password</Field.Label>
              <Input name="before" type="password" autoComplete="current-password" />
            </Field.Root>
            <Field.Root required maxW="260px">
              <Field.Label>New password, at least 10 characters</Field.Label>
              <Input name="after" type="password" autoComplete="new-password" minLength={10} />
            </Field.Root>
            <Button type="submit" variant="outline">
              Change it
            </Button>
          </Flex>
          <Trouble words={trouble} mt="2" />
        </form>
      </Part>

      <Part
        title="Your public name"
        about="Viewers read it where you act, in chat and on the picture. They never read the name that you sign in by. Empty: they read “the house”."
      >
        <form onSubmit={(e) => void choosePublicName(e)}>
          <Flex gap="4" wrap="wrap" align="flex-end">
            <Field.Root maxW="300px">
              <Field.Label>Public name</Field.Label>
              <Input key={publicName} name="name" defaultValue={publicName} placeholder="the house" maxLength={40} autoComplete="off" />
            </Field.Root>
            <Button type="submit" variant="outline">
              Keep it
            </Button>
          </Flex>
        </form>
      </Part>

      <Part title="Where you are signed in" about="End what you do not know, or do not use any more: its pages are closed at once.">
        <Box role="list" aria-label="Your sessions">
          {sessions.map((s) => (
            <Line key={s.id}>
              <Text flex="1">
                <b>{s.label === "" ? "A browser" : s.label}</b>
                {s.kind === "phone" ? ", a paired phone" : ""}
                {s.sinceMs > 0 && (
                  <Text as="span" color="inkSoft">
                    , <When atMs={s.sinceMs} />
                  </Text>
                )}
              </Text>
              {s.here ? (
                <Text color="mossText" fontWeight="600">
                  this page
                </Text>
              ) : (
                <Button
                  size="sm"
                  variant="outline"
                  color="brickText"
                  onClick={() => void act("DELETE", "/account/sessions", { id: s.id }, "The session has ended.")}
                >
                  End
                </Button>
              )}
            </Line>
          ))}
        </Box>
        {sessions.length > 2 && (
          <Button
            mt="3"
            size="sm"
            variant="outline"
            onClick={() => void act("DELETE", "/account/sessions", { id: "" }, "All other sessions have ended.")}
          >
            End all others
          </Button>
        )}
      </Part>

      {owner && (
        <Part title="The channel’s name" about="Viewers read it on the viewer page and in replies. Links and addresses stay as they are.">
          <form
            onSubmit={(e) => {
              e.preventDefault();
              const name = String(new FormData(e.currentTarget).get("name") ?? "");
              void act("PATCH", "/channel", { name }, `The channel is called ${name.trim()} now.`);
            }}
          >
            <Flex gap="3" align="flex-end">
              <Input
                aria-label="Channel name"
                name="name"
                required
                defaultValue={channel}
                key={channel}
                maxLength={80}
                autoComplete="off"
                maxW="360px"
              />
              <Button type="submit" variant="outline">
                Rename
              </Button>
            </Flex>
          </form>
        </Part>
      )}

      <Part
        title="Who works on this channel"
        about={
          owner
            ? "A moderator sets up games and runs them; links, connections and this list stay with you. An invitation is a link that works once."
            : "The owner invites and removes people."
        }
      >
        <Box role="list" aria-label="Operators">
          {operators.map((o) => (
            <Line key={o.id}>
              <Text flex="1">
                <b>{o.login}</b>, {o.role}
                {o.demo ? " (demo)" : ""}
                <Text as="span" color="inkSoft">
                  {o.sessions === 0 ? ", signed in nowhere" : `, signed in at ${counted(o.sessions, "place")}`}
                </Text>
              </Text>
              {owner && o.id !== me && asked?.id !== o.id && (
                <Button size="sm" variant="ghost" color="brickText" onClick={() => setAsked(o)}>
                  Remove
                </Button>
              )}
              {asked?.id === o.id && (
                <Flex gap="2" align="center" role="group" aria-label={`Remove ${o.login}?`} wrap="wrap">
                  <Text fontSize="15px">Signed out at once. A new invitation lets them back.</Text>
                  <Button
                    size="sm"
                    colorPalette="brick"
                    autoFocus
                    onClick={() =>
                      void act("DELETE", `/operators/${o.id}`, {}, `${o.login} is no operator any more.`).then(() => setAsked(null))
                    }
                  >
                    Remove {o.login}
                  </Button>
                  <Button size="sm" variant="outline" onClick={() => setAsked(null)}>
                    Keep
                  </Button>
                </Flex>
              )}
            </Line>
          ))}
        </Box>
        {owner && (
          <Stack mt="4" gap="2" align="flex-start">
            <Button colorPalette="ochre" fontWeight="700" onClick={() => void invite()}>
              Invite a moderator
            </Button>
            {link !== "" && <CopyField label="Invitation, hidden" value={link} onDone={() => setLink("")} />}
            {invites.length > 0 && (
              <Flex gap="3" align="center" wrap="wrap">
                <Text color="inkSoft">
                  {invites.length === 1 ? "One invitation was" : `${invites.length} invitations were`} not used yet; the last ends{" "}
                  <When atMs={Math.max(...invites.map((i) => i.untilMs))} />.
                </Text>
                <Button
                  size="sm"
                  variant="outline"
                  onClick={() => void act("DELETE", "/operators", {}, "No invitation can be used any more.")}
                >
                  End {invites.length === 1 ? "it" : "them"}
                </Button>
              </Flex>
            )}
          </Stack>
        )}
      </Part>
    </Box>
  );
}
