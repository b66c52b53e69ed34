"use client";
import { usePathname, useRouter } from "next/navigation";
import { useCallback, useEffect, useRef } from "react";
import { isFollowed, showsPast } from "../../core/wire/follows";
import { useChanged } from "./live";
import { useShow } from "./show";

/** So long a few changes may come together before a page is read again. */
const togetherMs = 300;

/**
 * Reads the page again when something that it shows was changed elsewhere: by another person, in another tab, by a show that
 * ended, or while the connection was away. What somebody types stays as it is.
 */
export function Follow() {
  const router = useRouter();
  const page = usePathname();
  const timer = useRef(0);
  const linked = useRef(0);
  const again = useCallback(() => {
    clearTimeout(timer.current);
    timer.current = window.setTimeout(() => router.refresh(), togetherMs);
  }, [router]);
  useEffect(() => () => clearTimeout(timer.current), []);
  useChanged(
    useCallback(
      ({ what, id }) => {
        // The first link tells what the page has just read.
        if (what === "linked") linked.current += 1;
        if (what === "linked" && linked.current > 1) again();
        if ((what === "stored" && isFollowed(page, id)) || (what === "published" && isFollowed(page, "games"))) again();
      },
      [again, page],
    ),
  );
  const state = useShow()?.state;
  const before = useRef(state);
  useEffect(() => {
    const [was, is] = [before.current, state];
    before.current = state;
    if (was !== undefined && is !== undefined && was !== is && showsPast(page)) again();
  }, [state, page, again]);
  return null;
}
