/**
 * Work of which one at most is under way. Whoever asks meanwhile gets the next run, which begins when this one is over and sees all
 * that was changed until then; however many ask, that is one run.
 */
export function oneAtATime<T>(work: () => Promise<T>): Readonly<{ run: () => Promise<T>; idle: () => Promise<void> }> {
  let running: Promise<T> | null = null;
  let next: Promise<T> | null = null;
  const begin = (): Promise<T> => {
    const mine: Promise<T> = work().finally(() => {
      if (running === mine) running = null;
    });
    running = mine;
    return mine;
  };
  const run = (): Promise<T> => {
    if (running === null) return begin();
    next ??= running
      .catch(() => undefined)
      .then(() => {
        next = null;
        return begin();
      });
    return next;
  };
  return {
    run,
    /** Until nothing is under way, and nothing waits to be. */
    idle: async () => {
      for (let last = next ?? running; last !== null; last = next ?? running) await last.catch(() => undefined);
    },
  };
}
