/** So often in a row one may fail before it is left out. */
const mostFaults = 3;

/**
 * One scene's mistake must not stop the picture: what it throws is told once, and what fails again and again is left out
 * until the stage is set anew. The others go on.
 */
export class Guard<K extends object> {
  private readonly faults = new WeakMap<K, number>();
  constructor(private readonly tell: (error: unknown) => void = (error) => console.error(error)) {}

  /** What `work` gives, or `otherwise` where it fails or is left out. */
  run<T>(of: K, work: () => T, otherwise: T): T {
    const faults = this.faults.get(of) ?? 0;
    if (faults >= mostFaults) return otherwise;
    try {
      const done = work();
      if (faults > 0) this.faults.delete(of);
      return done;
    } catch (error) {
      this.faults.set(of, faults + 1);
      if (faults === 0) this.tell(error);
      return otherwise;
    }
  }
  /** It is tried again. */
  forgive(of: K): void {
    this.faults.delete(of);
  }
}
