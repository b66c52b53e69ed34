import { monitorEventLoopDelay } from "node:perf_hooks";

const resolution = 20;
const everyMs = 5_000;

/** How late this process is with what is due: the 99th percentile of the last five seconds, in milliseconds. */
export class Lag {
  private readonly delay = monitorEventLoopDelay({ resolution });
  private timer: NodeJS.Timeout | undefined;
  ms = 0;

  start(): void {
    this.delay.enable();
    this.timer = setInterval(() => {
      this.ms = this.delay.percentile(99) / 1e6 - resolution;
      this.delay.reset();
    }, everyMs);
  }
  stop(): void {
    clearInterval(this.timer);
    this.delay.disable();
  }
}
