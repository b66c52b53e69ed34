import { randomUUID } from "node:crypto";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { ToneCame } from "../../core/wire/messages";

/** A page that takes longer hangs, or its connection is dead. */
const answerMs = 4_000;

/** Test tones on their way: each ends with the page's answer, or with `page/silent`. */
export class Tones {
  private readonly asked = new Map<string, Readonly<{ page: string; done: (came: Result<ToneCame>) => void }>>();

  constructor(
    private readonly ask: (page: string, id: string) => void,
    private readonly waitMs = answerMs,
  ) {}

  play(page: string): Promise<Result<ToneCame>> {
    return new Promise((resolve) => {
      const id = randomUUID();
      const timer = setTimeout(() => done(refused("page/silent")), this.waitMs);
      const done = (came: Result<ToneCame>): void => {
        clearTimeout(timer);
        this.asked.delete(id);
        resolve(came);
      };
      this.asked.set(id, { page, done });
      this.ask(page, id);
    });
  }

  /** A page's answer; one that nobody asked for, or that comes from another page or too late, is passed over. */
  came(page: string, id: string, came: ToneCame): void {
    const asked = this.asked.get(id);
    if (asked?.page === page) asked.done(ok(came));
  }
}
