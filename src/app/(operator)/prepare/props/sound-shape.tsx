"use client";
import { Box, Text } from "@chakra-ui/react";
import { useState } from "react";
import { soundDefaults, soundFactsSchema, type SoundSettings, soundSettingsSchema } from "../../../../core/props/settings";
import { seconds } from "../../../../core/words/sentence";
import type { PropWithUses } from "../../../../server/web/props";
import { NumberField } from "../../../../ui/number-field";
import { PlayButton } from "./play-button";
import { ShapeFoot } from "./shape-foot";

/** The heights of a sound over its time; what is trimmed away is faint. */
export function Waveform({
  peaks,
  from = 0,
  to = 1,
  height = 84,
}: Readonly<{ peaks: readonly number[]; from?: number; to?: number; height?: number }>) {
  const most = Math.max(1, ...peaks);
  return (
    <Box asChild width="100%" height={`${height}px`} color="ochreText">
      <svg viewBox={`0 0 ${Math.max(1, peaks.length)} 100`} preserveAspectRatio="none" role="img" aria-label="Waveform">
        {peaks.map((p, i) => {
          const h = Math.max(2, (p / most) * 96);
          const inside = i / peaks.length >= from && i / peaks.length <= to;
          return <rect key={i} x={i} y={50 - h / 2} width={0.7} height={h} fill="currentColor" opacity={inside ? 1 : 0.25} />;
        })}
      </svg>
    </Box>
  );
}

/** Trim a sound and set its volume; always from the untouched source. */
export function SoundShape({ prop, onSet }: Readonly<{ prop: PropWithUses; onSet: (settings: SoundSettings) => Promise<boolean> }>) {
  const kept = soundSettingsSchema.safeParse(prop.settings);
  const facts = soundFactsSchema.safeParse(prop.facts);
  const before = kept.success ? kept.data : soundDefaults;
  const [s, setS] = useState(before);
  if (!facts.success) return null;
  const { peaks, sourceMs, lufs, gainDb, ms } = facts.data;
  const end = s.endMs === 0 ? sourceMs : s.endMs;
  const problem = soundSettingsSchema.safeParse(s);
  return (
    <Box>
      <Box bg="raised" borderRadius="8px" p="3" mb="3">
        <Waveform peaks={peaks} from={s.startMs / sourceMs} to={end / sourceMs} height={110} />
      </Box>
      <Text fontSize="15px" color="inkSoft" mb="2">
        {seconds(ms)} of {seconds(sourceMs)}.{" "}
        {lufs === null
          ? "Too short to measure; kept as loud as it is."
          : `It came at ${lufs.toFixed(1)} LUFS and is ${gainDb >= 0 ? "raised" : "lowered"} by ${Math.abs(gainDb).toFixed(1)} dB to the level of all others.`}
      </Text>
      <Box fontSize="15px" lineHeight="2.2" mb="3">
        From{" "}
        <NumberField
          label="Start"
          value={s.startMs}
          min={0}
          max={Math.max(0, sourceMs - 50)}
          scale={1000}
          unit="s"
          onSet={(startMs) => setS({ ...s, startMs })}
        />{" "}
        to{" "}
        <NumberField
          label="End"
          value={end}
          min={50}
          max={sourceMs}
          scale={1000}
          unit="s"
          onSet={(endMs) => setS({ ...s, endMs: endMs >= sourceMs ? 0 : endMs })}
        />
        , at <NumberField label="Volume" value={s.volume} min={0} max={100} unit="% volume" onSet={(volume) => setS({ ...s, volume })} />
      </Box>
      <ShapeFoot now={s} before={before} problem={problem.error?.issues[0]?.message} onSet={onSet}>
        <PlayButton prop={prop} />
      </ShapeFoot>
    </Box>
  );
}
