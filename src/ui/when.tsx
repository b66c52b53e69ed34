"use client";
import { useEffect, useState } from "react";

const agoInWords = (ms: number): string | null => {
  if (ms < -5_000) return null;
  const min = Math.max(0, Math.floor(ms / 60_000));
  if (min < 1) return "just now";
  if (min < 60) return `${min} min ago`;
  const hours = Math.floor(min / 60);
  return hours < 24 ? `${hours} h ago` : null;
};

/** A time: relative while it is fresh, absolute on hover and later. Told in the browser's own time zone. */
export function When({ atMs }: { atMs: number }) {
  const [now, setNow] = useState<number | null>(null);
  useEffect(() => {
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), 20_000);
    return () => clearInterval(timer);
  }, []);
  if (now === null) return null;
  const at = new Date(atMs);
  const whole = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" }).format(at);
  return (
    <time dateTime={at.toISOString()} title={whole}>
      {agoInWords(now - atMs) ?? whole}
    </time>
  );
}
