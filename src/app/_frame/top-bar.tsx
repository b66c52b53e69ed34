"use client";
import { Box, Button, chakra, Flex, Menu, Portal, Text } from "@chakra-ui/react";
import { ChevronDown } from "lucide-react";
import Link from "next/link";
import { usePathname, useRouter } from "next/navigation";
import { useMemo } from "react";
import { KeyCap } from "../../ui/key-cap";
import { keyLabel, keyOf, useChosenKeys, useOffer, type Act } from "../../ui/keys";
import { fixedKey } from "./fixed-keys";
import { tellTrouble } from "../../ui/toaster";
import { call } from "./call";
import { HealthSign } from "./health-sign";
import { useLive, useLiveLink } from "./live";
import { commandAndTell, theShow, useShow } from "./show";
import { rehearsalHere, rehearsalOf } from "./rehearsal-here";
import { EndShow, endWith } from "./end-show";
import { endShow, ShowState } from "./show-state";
import { isNight, setSurface, useOwnSurface } from "./surface";

export const phases = [
  { path: "/prepare", name: "Prepare", key: fixedKey("go./prepare") },
  { path: "/rehearse", name: "Rehearse", key: fixedKey("go./rehearse") },
  { path: "/run", name: "Run", key: fixedKey("go./run") },
  { path: "/review", name: "Review", key: fixedKey("go./review") },
] as const;

export const Wordmark = () => (
  <chakra.span fontFamily="heading" fontWeight="800" fontSize="27px" letterSpacing="-0.03em" lineHeight="1" aria-label="Izzam">
    i<chakra.span color="ochreText">zz</chakra.span>am
  </chakra.span>
);

export async function setHush(on: boolean): Promise<void> {
  const done = await call("POST", "/hush", { on, rehearsal: rehearsalHere() });
  if (!done.ok) tellTrouble(done.words);
}

export function TopBar({ channel, login, role }: Readonly<{ channel: string; login: string; role: "owner" | "moderator" }>) {
  const router = useRouter();
  const path = usePathname();
  const rehearsal = rehearsalOf(path);
  useLiveLink("/sign-in?ended=1", rehearsal);
  useOwnSurface();
  const hushed = useLive((s) => s.standing?.hushed ?? false);
  const shown = useShow()?.state ?? "off";
  // On its copies a rehearsal is on air; here it is none.
  const state = rehearsal === "" ? shown : "rehearsing";
  const chosen = useChosenKeys((s) => s.keys);
  const acts = useMemo(
    (): Act[] => [
      {
        id: "hush",
        label: hushed ? "Release the hush" : "Hush: empty and silence every overlay",
        words: "hush release mute silence quiet panic",
        grave: true,
        group: "Everywhere",
        key: fixedKey("hush"),
        run: () => void setHush(!hushed),
      },
      ...phases.map((p): Act => ({
        id: `go.${p.path}`,
        label: `Go to ${p.name}`,
        group: "Elsewhere",
        key: p.key,
        run: () => router.push(p.path),
      })),
      ...(state === "on" || rehearsal !== ""
        ? []
        : [
            {
              id: "show.on",
              label: "Go on air",
              group: "The show",
              run: () => void commandAndTell(theShow, { do: "show", what: "on-air" }),
            },
          ]),
      ...(state === "off"
        ? [
            {
              id: "show.rehearse",
              label: "Rehearse in the open, with the chat that is there",
              words: "rehearsal",
              group: "The show",
              run: () => void commandAndTell(theShow, { do: "show", what: "rehearse" }),
            },
          ]
        : [
            {
              id: "show.end",
              label: state === "rehearsing" ? "End the rehearsal" : "End the show",
              words: "end",
              grave: true,
              group: "The show",
              run: () => void (state === "on" ? endWith(() => endShow(rehearsal)) : endShow(rehearsal)),
            },
          ]),
      { id: "surface", label: "Light or dark screen", group: "Everywhere", key: fixedKey("surface"), run: () => setSurface(!isNight()) },
    ],
    [hushed, router, state, rehearsal],
  );
  useOffer("frame", acts);
  const hushAct = acts[0];
  const hushKey = hushAct === undefined ? null : keyOf(hushAct, chosen);
  const signOut = async (): Promise<void> => {
    await call("POST", "/sign-out");
    location.assign("/sign-in");
  };
  return (
    <Box as="header" position="sticky" top="0" zIndex="20" bg="ground">
      {state === "on" && <Box height="4px" bg="brick.solid" aria-hidden="true" />}
      <EndShow />
      <Flex
        minH="56px"
        wrap={{ base: "wrap", lg: "nowrap" }}
        align="center"
        px={{ base: "3", lg: "5" }}
        borderBottomWidth="1px"
        borderColor="line"
        columnGap={{ base: "2", lg: "4" }}
      >
        <chakra.a href="/prepare" color="ink" textDecoration="none">
          <Wordmark />
        </chakra.a>
        <Text color="inkSoft" truncate maxW="180px" display={{ base: "none", lg: "block" }}>
          {channel}
        </Text>
        <Flex
          as="nav"
          aria-label="Phases"
          gap="1"
          ml={{ base: "0", lg: "4" }}
          align="stretch"
          height={{ base: "52px", lg: "56px" }}
          order={{ base: 1, lg: 0 }}
          width={{ base: "100%", lg: "auto" }}
        >
          {phases.map((p) => {
            const here = path.startsWith(p.path);
            return (
              <Link key={p.path} href={p.path} aria-current={here ? "page" : undefined} style={{ textDecoration: "none", display: "flex" }}>
                <Flex
                  align="center"
                  px="3.5"
                  my="2"
                  borderRadius="8px"
                  fontWeight={here ? 700 : 500}
                  color={here ? "ink" : "inkSoft"}
                  bg={here ? "raised" : "transparent"}
                  borderBottomWidth="3px"
                  borderColor={here ? "ochre.solid" : "transparent"}
                  _hover={{ color: "ink" }}
                >
                  {p.name}
                </Flex>
              </Link>
            );
          })}
        </Flex>
        <Box flex="1" />
        <ShowState />
        <HealthSign />
        <Button
          size="sm"
          variant={hushed ? "solid" : "outline"}
          colorPalette={hushed ? "brick" : "plain"}
          fontWeight="700"
          aria-pressed={hushed}
          aria-keyshortcuts={hushKey ?? undefined}
          title={hushed ? "Let the overlays show and sound again" : "Empties and silences every overlay at once; games go on counting"}
          onClick={() => void setHush(!hushed)}
        >
          Hush
          <chakra.span display={{ base: "none", md: "inline" }} fontWeight="500">
            overlays
          </chakra.span>{" "}
          {hushKey !== null && <KeyCap>{keyLabel(hushKey)}</KeyCap>}
        </Button>
        <Menu.Root positioning={{ placement: "bottom-end" }}>
          <Menu.Trigger asChild>
            <Button size="sm" variant="ghost" px="2" fontWeight="600" aria-label={`Account: ${login}, ${role}`}>
              {login} <ChevronDown size={15} aria-hidden="true" />
            </Button>
          </Menu.Trigger>
          <Portal>
            <Menu.Positioner>
              <Menu.Content minW="220px">
                <Text px="2" py="1.5" color="inkSoft" fontSize="15px">
                  Signed in as {role}
                </Text>
                <Menu.Item value="surface" onClick={() => setSurface(!isNight())}>
                  Light or dark screen
                </Menu.Item>
                <Menu.Item value="account" onClick={() => router.push("/account")}>
                  Account and people
                </Menu.Item>
                <Menu.Item value="keys" onClick={() => document.dispatchEvent(new CustomEvent("izzam:keys"))}>
                  Keys
                </Menu.Item>
                <Menu.Item value="out" onClick={() => void signOut()}>
                  Sign out
                </Menu.Item>
              </Menu.Content>
            </Menu.Positioner>
          </Portal>
        </Menu.Root>
      </Flex>
      {hushed && (
        <Flex bg="brick.solid" color="brick.contrast" px="5" py="2" align="center" gap="4" role="status">
          <Text fontWeight="600" flex="1">
            Hushed: every overlay is empty and silent. Games go on counting.
          </Text>
          <Button
            size="sm"
            variant="outline"
            color="inherit"
            borderColor="currentColor"
            _hover={{ bg: "blackAlpha.300" }}
            onClick={() => void setHush(false)}
          >
            Release
          </Button>
        </Flex>
      )}
    </Box>
  );
}
