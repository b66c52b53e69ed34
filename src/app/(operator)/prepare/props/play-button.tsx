"use client";
import { Button } from "@chakra-ui/react";
import { Play, Square } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { soundSettingsSchema } from "../../../../core/props/settings";
import type { PropWithUses } from "../../../../server/web/props";

/** Plays a sound here, for the operator only. */
export function PlayButton({ prop }: { prop: PropWithUses }) {
  const [playing, setPlaying] = useState(false);
  const audio = useRef<HTMLAudioElement | null>(null);
  useEffect(() => () => audio.current?.pause(), []);
  const flip = (): void => {
    if (playing) {
      audio.current?.pause();
      return setPlaying(false);
    }
    const made = new Audio(prop.url);
    const settings = soundSettingsSchema.safeParse(prop.settings);
    made.volume = settings.success ? settings.data.volume / 100 : 0.8;
    made.onended = () => setPlaying(false);
    audio.current = made;
    void made.play().then(
      () => setPlaying(true),
      () => setPlaying(false),
    );
  };
  return (
    <Button size="xs" variant="outline" px="1.5" aria-label={`${playing ? "Stop" : "Play"} ${prop.name}`} onClick={flip}>
      {playing ? <Square size={14} /> : <Play size={14} />}
    </Button>
  );
}
