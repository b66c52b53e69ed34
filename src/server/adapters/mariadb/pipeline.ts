import type { Knex } from "knex";

/**
 * The statements of one transaction, handed over one behind the other without waiting for each answer: while the
 * database works on one, the next is being made. What follows one that failed is never sent (`client.ts`). Whatever fails,
 * all have been answered before `done` throws, so that the transaction can be rolled back.
 */
export class Pipeline {
  private readonly sent: Promise<unknown>[] = [];

  constructor(private readonly trx: Knex.Transaction) {}

  /** `check` looks at the answer, and throws when it is not as it must be. */
  raw(sql: string, bindings: readonly Knex.RawBinding[] = [], check?: (answer: unknown) => void): void {
    this.send(this.trx.raw(sql, bindings as Knex.RawBinding[]), check);
  }

  /** A built query; it begins here. */
  send(query: PromiseLike<unknown>, check?: (answer: unknown) => void): void {
    const answered = Promise.resolve(query.then((answer) => check?.(answer)));
    // Told by `done`; until then nobody else listens.
    answered.catch(() => undefined);
    this.sent.push(answered);
  }

  get table(): Knex.Transaction {
    return this.trx;
  }

  async done(): Promise<void> {
    const all = await Promise.allSettled(this.sent);
    for (const one of all) if (one.status === "rejected") throw one.reason as Error;
  }
}
