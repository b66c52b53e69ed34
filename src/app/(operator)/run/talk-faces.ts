import { useEffect, type RefObject } from "react";
import { type Initials, initialsOf } from "../../../core/pictures/initials";

const mostKept = 2_000;
const kept = new Map<string, Initials>();
/** As reckoned once for each name: two hundred rows a second are made. */
export function initialsKept(name: string): Initials {
  let known = kept.get(name);
  if (known === undefined) {
    if (kept.size >= mostKept) kept.clear();
    kept.set(name, (known = initialsOf(name)));
  }
  return known;
}

const calmMs = 700;
const againMs = 60_000;
/** Who had no picture lately: not asked for again at each of their lines. */
const without = new Map<string, number>();

/**
 * Puts pictures over the initials of the rows that stand there, once no new row has come for a moment: in a storm nobody
 * could see them, and each would be asked for.
 */
export function useTalkFaces(list: RefObject<HTMLElement | null>, facesUrl: string, rows: unknown): void {
  useEffect(() => {
    if (facesUrl === "") return undefined;
    const timer = setTimeout(() => {
      for (const face of list.current?.querySelectorAll<HTMLElement>(".face") ?? []) {
        const url = facesUrl.replace("{name}", encodeURIComponent(face.dataset["face"] ?? ""));
        const old = face.querySelector("img");
        if (old?.getAttribute("src") === url || (without.get(url) ?? 0) > Date.now()) continue;
        old?.remove();
        const image = document.createElement("img");
        image.alt = "";
        image.src = url;
        image.onerror = () => {
          image.remove();
          if (without.size > mostKept) without.clear();
          without.set(url, Date.now() + againMs);
        };
        face.append(image);
      }
    }, calmMs);
    return () => clearTimeout(timer);
  }, [list, facesUrl, rows]);
}
