import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { ModuleNote } from "./turn-kit";
import { RecentAnswers } from "./recent-answers";

/** So long after one operator did something, another one doing just that is taken for the same request. */
const twinMs = 1_000;
type Answer = Result<readonly ModuleNote[]>;
type Request = Readonly<{
  /** What is asked for, and by whom, so that two who press the same at once are found; empty where that is no matter. */
  what: string;
  by: string;
  /** Whether these notes refuse it; left out where a refusal never follows from its own first try. */
  saidNo?: (notes: readonly ModuleNote[]) => boolean;
}>;
export type AskedDeps = Readonly<{
  now: () => number;
  closed: () => boolean;
  /** What came of ids that were stored before; null where nobody can say now. */
  came: (source: string, ids: readonly string[]) => Promise<ReadonlyMap<string, Readonly<{ notes: readonly ModuleNote[] }>> | null>;
}>;

/**
 * Something asked for with an id: once, however often it is asked for. Who asks again hears what came of it
 * the first time, after a restart too. Two operators who press the same at once want it once: the second
 * hears who was first. One who presses twice, with two ids, wants it twice; what must not be, rules refuse.
 */
export class Asked {
  private readonly answers = new RecentAnswers<Answer>(40_000);
  private last = { what: "", by: "", atMs: -Infinity };

  constructor(private readonly deps: AskedDeps) {}

  once(source: string, id: string, { what, by, saidNo }: Request, work: () => Promise<Answer>): Promise<Answer> {
    if (this.deps.closed()) return Promise.resolve(refused("store/away"));
    return this.answers.once(
      `${source}:${id}`,
      async () => {
        const atMs = this.deps.now();
        const { last } = this;
        if (what !== "" && last.what === what && last.by !== by && atMs - last.atMs < twinMs)
          return refused("command/twin", { by: last.by });
        if (what !== "") this.last = { what, by, atMs };
        const done = await work();
        if (done.ok && saidNo?.(done.value) !== true) return done;
        if (!done.ok && done.refusal.code !== "signal/duplicate") return done;
        // A no may be the second answer to what was done before a restart: "sold out", by this very sale. The first one counts.
        const came = await this.deps.came(source, [id]);
        if (came === null) return refused("store/away");
        return ok(came.get(id)?.notes ?? (done.ok ? done.value : []));
      },
      (answer) => answer.ok || (answer.refusal.code !== "store/away" && answer.refusal.code !== "command/twin"),
    );
  }

  /** The same for what a platform sends: what was not kept may come again. */
  event(id: string, work: () => Promise<Answer>): Promise<Answer> {
    return this.answers.once(`event:${id}`, work, (answer) => answer.ok || answer.refusal.code === "signal/duplicate");
  }
}
