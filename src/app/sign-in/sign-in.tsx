"use client";
import { Box, Button, Field, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { type FormEvent, useState } from "react";
import { Stub } from "../../ui/stub";
import { call } from "../_frame/call";
import { Wordmark } from "../_frame/top-bar";
import { Trouble } from "../_frame/trouble";

/** Name and password; in demo mode, the two demo operators in one click. */
export function SignIn({ demo, ended, practice }: Readonly<{ demo: boolean; ended: boolean; practice: string }>) {
  const [trouble, setTrouble] = useState("");
  const [busy, setBusy] = useState(false);
  const enter = async (path: string, body: unknown): Promise<void> => {
    setBusy(true);
    setTrouble("");
    const done = await call("POST", path, body);
    if (done.ok) return location.assign("/prepare");
    setBusy(false);
    setTrouble(done.words);
  };
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    void enter("/sign-in", { login: form.get("login"), password: form.get("password") });
  };
  return (
    <Flex minH="100vh" align="center" justify="center" p="6">
      <Box as="main" width="100%" maxW="560px">
        <Wordmark />
        <Text mt="2" mb="6" color="inkSoft">
          Viewer-driven games on the broadcast picture.
        </Text>
        {ended && (
          <Text mb="4" bg="note" p="3" borderRadius="8px">
            You were signed out. Sign in again to go on.
          </Text>
        )}
        {demo && (
          <Stack mb="7" gap="4">
            <Stub
              end={
                <Button
                  colorPalette="ochre"
                  fontWeight="700"
                  minW="176px"
                  loading={busy}
                  onClick={() => void enter("/demo-sign-in", { role: "owner" })}
                >
                  Enter as owner
                </Button>
              }
            >
              <Text fontWeight="700">kilnkeeper, the streamer</Text>
              <Text color="inkSoft">Owner of Saltmarsh Kiln: may do everything.</Text>
            </Stub>
            <Stub
              end={
                <Button
                  variant="outline"
                  colorPalette="plain"
                  fontWeight="700"
                  minW="176px"
                  loading={busy}
                  onClick={() => void enter("/demo-sign-in", { role: "moderator" })}
                >
                  Enter as moderator
                </Button>
              }
            >
              <Text fontWeight="700">spongebearer, a moderator</Text>
              <Text color="inkSoft">Runs the games; links and connections stay with the owner.</Text>
            </Stub>
          </Stack>
        )}
        <form onSubmit={submit}>
          <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="20px" mb="4">
            {demo ? "Or sign in with a password" : "Sign in"}
          </Text>
          <Stack gap="4">
            <Field.Root required>
              <Field.Label>Name</Field.Label>
              <Input name="login" autoComplete="username" autoFocus={!demo} />
            </Field.Root>
            <Field.Root required>
              <Field.Label>Password</Field.Label>
              <Input name="password" type="password" autoComplete="current-password" />
            </Field.Root>
            <Trouble words={trouble} />
            <Flex align="center" gap="4">
              <Button
                type="submit"
                colorPalette={demo ? "plain" : "ochre"}
                variant={demo ? "outline" : "solid"}
                fontWeight="700"
                loading={busy}
              >
                Sign in
              </Button>
              {practice !== "" && (
                <Text fontSize="15px" color="inkSoft">
                  To chat as a viewer, open the{" "}
                  <a href={practice} target="_blank" rel="noreferrer">
                    practice rig
                  </a>
                  .
                </Text>
              )}
            </Flex>
          </Stack>
        </form>
      </Box>
    </Flex>
  );
}
