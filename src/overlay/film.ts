import type { Flashing } from "../core/props/video";
import type { SoundBoard } from "./sounds";

/** What a page hears moving pictures by; left out in previews, which stay silent. */
export type FilmSound = Pick<SoundBoard, "film">;
/** One moving picture in a page: plays from a place, can be drawn, and is let go of with all it holds. */
export type Film = Readonly<{
  element: HTMLVideoElement;
  /** 0 to 1; nothing is heard of one that is hidden. */
  loud: (volume: number) => void;
  free: () => void;
}>;
export type FilmMaker = (url: string, at: Readonly<{ fromMs: number; volume: number; loop?: boolean; flashing?: Flashing }>) => Film;

/** So far it may be from where it should be before it is moved there. */
const driftS = 0.4;

/** So many players are kept to be used again: an evening of films must not leave one behind each. */
const mostIdle = 3;

/** Films of this page of which it is known when they flash. */
const flashers = new Map<HTMLVideoElement, Flashing>();
/** So long before a stretch the picture begins to dim: it takes that long. */
const aheadMs = 200;
/**
 * Whether a film of this page flashes now, or is about to, by what was found when it was made. A film moves on by itself while the
 * page stands still, so nothing that looks at the picture can be sure to see it.
 */
export function filmFlashes(): boolean {
  for (const [{ currentTime, paused, isConnected, style }, flashing] of flashers) {
    const atMs = currentTime * 1_000;
    if (isConnected && !paused && style.visibility !== "hidden" && flashing.some(([from, to]) => atMs >= from - aheadMs && atMs <= to))
      return true;
  }
  return false;
}

export const filmMaker = (sound?: FilmSound): FilmMaker => {
  const idle: HTMLVideoElement[] = [];
  return (url, { fromMs, volume, loop = false, flashing = [] }) => {
    const element = idle.pop() ?? document.createElement("video");
    element.playsInline = true;
    element.preload = "auto";
    element.loop = loop;
    element.muted = true;
    element.disableRemotePlayback = true;
    element.removeAttribute("style");
    element.className = "";
    element.src = url;
    const startedMs = performance.now();
    const heard = sound?.film(element, volume) ?? null;
    // A page that came later begins where the others are.
    const toItsPlace = (): void => {
      const at = (fromMs + performance.now() - startedMs) / 1000;
      if (at > driftS && at < element.duration) element.currentTime = at;
    };
    element.addEventListener("loadedmetadata", toItsPlace, { once: true });
    void element.play().catch(() => {
      // The browser lets no page make sound unasked: then it is seen at least.
      if (element.muted || !element.hasAttribute("src")) return;
      element.muted = true;
      void element.play().catch(() => undefined);
    });
    if (flashing.length > 0) flashers.set(element, flashing);
    let freed = false;
    return {
      element,
      loud: (to) => heard?.volume(to),
      free: () => {
        if (freed) return;
        freed = true;
        flashers.delete(element);
        element.pause();
        heard?.free();
        element.removeEventListener("loadedmetadata", toItsPlace);
        // Lets go of what was decoded and of what is still on its way.
        element.removeAttribute("src");
        element.load();
        element.remove();
        if (idle.length < mostIdle) idle.push(element);
      },
    };
  };
};
