"use client";
import { NumberField } from "./number-field";

/** For how long something can't be had or done again, in seconds; kept in milliseconds. */
export const CooldownField = ({
  label = "Cooldown",
  ms,
  mostMs,
  onSet,
}: Readonly<{ label?: string; ms: number; mostMs: number; onSet: (ms: number) => void }>) => (
  <NumberField label={label} value={ms} min={0} max={mostMs} scale={1000} unit="s" onSet={onSet} />
);
