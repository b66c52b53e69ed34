type Deps<D> = Readonly<{ deps: D; pool: Readonly<{ destroy: () => Promise<unknown> }> }>;
type Works = Readonly<{ start: () => void; stop: () => Promise<void> }>;

/** A process that only works: it ends on SIGTERM, SIGINT, or when what started it is gone. */
export function runWorker<D>({ deps, pool }: Deps<D>, make: (deps: D) => Works): void {
  const worker = make(deps);
  let stopping = false;
  const stop = async (): Promise<void> => {
    if (stopping) return;
    stopping = true;
    // Whatever hangs, a stop is a stop.
    setTimeout(() => process.exit(0), 3_000).unref();
    await worker.stop();
    await pool.destroy();
    process.exit(0);
  };
  process.on("SIGTERM", () => void stop());
  process.on("SIGINT", () => void stop());
  process.on("disconnect", () => void stop());
  worker.start();
  process.send?.({ ready: true });
}
