"use client";
import { Button, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { frameRates } from "../../../../../core/review/timecode";
import { counted } from "../../../../../core/words/sentence";
import type { ReviewedShow } from "../../../../../server/ports/review-store";
import { NumberField } from "../../../../../ui/number-field";
import { Pick } from "../../../../../ui/pick";
import { Part } from "./part";

const files = [
  ["vtt", "Chapters (WebVTT)"],
  ["csv", "Table (CSV)"],
  ["edl", "Decision list (CMX 3600)"],
  ["json", "JSON"],
] as const;

/** Moments as files for editors: on the clock and the counter of a recording. */
export function MarkersOut({
  show,
  kept,
  onAct,
}: Readonly<{ show: ReviewedShow; kept: number; onAct: (body: object) => Promise<boolean> }>) {
  const [rate, setRate] = useState("25");
  const [which, setWhich] = useState("kept");
  const [offsetMs, setOffsetMs] = useState(show.offsetMs);
  const away = offsetMs < 0;
  return (
    <Part title="Markers for editors">
      <Flex as="p" gap="1.5" wrap="wrap" align="baseline" lineHeight="2">
        The recording begins{" "}
        <NumberField
          label="Seconds between the start of the recording and of the show"
          value={Math.abs(offsetMs)}
          min={0}
          max={86_400_000}
          scale={1_000}
          unit="s"
          onSet={(value) => {
            const next = away ? -value : value;
            setOffsetMs(next);
            void onAct({ do: "offset", offsetMs: next });
          }}
        />{" "}
        <Pick
          label="Before or after the show begins"
          value={away ? "after" : "before"}
          options={[
            { value: "before", words: "before the show" },
            { value: "after", words: "after the show began" },
          ]}
          onSet={(value) => {
            const next = value === "after" ? -Math.max(1, Math.abs(offsetMs)) : Math.abs(offsetMs);
            setOffsetMs(next);
            void onAct({ do: "offset", offsetMs: next });
          }}
        />{" "}
        and has{" "}
        <Pick label="Frames a second" value={rate} options={frameRates.map((r) => ({ value: r.id, words: r.words }))} onSet={setRate} />{" "}
        frames a second. Of the moments,{" "}
        <Pick
          label="Which moments"
          value={which}
          options={[
            { value: "kept", words: "those that were kept" },
            { value: "all", words: "those that were found, too" },
          ]}
          onSet={setWhich}
        />
      </Flex>
      <Text color="inkSoft" fontSize="15px" mb="1.5">
        {kept === 0 && which === "kept"
          ? "None is kept yet: keep some above, and they are in the file."
          : `${counted(kept, "moment")} kept.`}
      </Text>
      <Flex gap="2" wrap="wrap">
        {files.map(([as, words]) => (
          <Button key={as} size="xs" variant="outline" asChild>
            <a href={`/api/review/shows/${show.id}/out?as=${as}&rate=${rate}&which=${which}`} download>
              {words}
            </a>
          </Button>
        ))}
      </Flex>
    </Part>
  );
}
