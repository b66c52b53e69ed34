"use client";

import { Button, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { OpenPage, ToneCame } from "../../../../core/wire/messages";
import { count } from "../../../../core/words/sentence";
import { tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";

const cameInWords: Readonly<Record<ToneCame, string>> = {
  heard: "The tone came out of this page.",
  silent: "The page played the tone, and nothing came out.",
  blocked: "Its browser blocks sound. Allow sound for this page in the browser, or click the page once.",
};

/** One open page of an overlay: its size, whether it plays the sound, and a button to test that. */
export function OpenPageLine({ page: p, sounds }: Readonly<{ page: OpenPage; sounds: boolean }>) {
  const [tone, setTone] = useState<ToneCame | "asked" | null>(null);
  const test = async (): Promise<void> => {
    setTone("asked");
    const done = await call<{ came: ToneCame }>("POST", "/voice/test", { page: p.id });
    setTone(done.ok ? done.value.came : null);
    if (!done.ok) tellTrouble(done.words);
  };
  return (
    <Text color="mossText" fontWeight="600">
      Open at {count(p.width)} × {count(p.height)}
      {p.hidden ? ", hidden" : ""}
      {p.voice
        ? ", makes the sound"
        : p.sound === "blocked"
          ? ", its browser blocks sound"
          : p.asked
            ? ", chosen for sound, not confirmed yet"
            : ""}
      {p.framesPerSecond > 0 && p.live > 0 ? `, ${Math.round(p.framesPerSecond)} frames a second` : ""}
      {!p.asked && p.sound === "ready" && sounds && (
        <Button
          size="xs"
          variant="ghost"
          color="slateText"
          onClick={() => void call("POST", "/voice", { page: p.id }).then((done) => done.ok || tellTrouble(done.words))}
        >
          Let this one make the sound
        </Button>
      )}
      {sounds && (
        <Button
          size="xs"
          variant="ghost"
          color="slateText"
          loading={tone === "asked"}
          title="A soft tone, half a second long. Viewers hear it too while you are live."
          onClick={() => void test()}
        >
          Play a test tone
        </Button>
      )}
      {tone !== null && tone !== "asked" && (
        <Text as="span" role="status" color={tone === "heard" ? "mossText" : "brickText"}>
          {cameInWords[tone]}
        </Text>
      )}
    </Text>
  );
}
