import { useEffect, useState } from "react";

/** Loads a part by its name when it is first asked for, and once; null for a name that has none. */
export function partsBy<T>(parts: ReadonlyMap<string, () => Promise<T>>): (name: string) => Promise<T | null> {
  const asked = new Map<string, Promise<T | null>>();
  return (name) => {
    const known = asked.get(name);
    if (known !== undefined) return known;
    // A part that could not be loaded is asked for again the next time: the page may have been without a network.
    const coming = (parts.get(name)?.() ?? Promise.resolve(null)).catch((error: unknown) => {
      asked.delete(name);
      throw error;
    });
    asked.set(name, coming);
    return coming;
  };
}

/**
 * The same for a component: undefined while it is on its way, so that the rest of the page works meanwhile; null for a name that
 * has none. It keeps trying every two seconds.
 */
export function usePart<T>(name: string, load: (name: string) => Promise<T | null>): T | null | undefined {
  const [known, setKnown] = useState<Readonly<{ name: string; part: T | null }> | null>(null);
  useEffect(() => {
    let gone = false;
    let timer = 0;
    const ask = (): void =>
      void load(name).then(
        (part) => void (gone || setKnown({ name, part })),
        () => void (gone || (timer = window.setTimeout(ask, 2_000))),
      );
    ask();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [name, load]);
  return known?.name === name ? known.part : undefined;
}
