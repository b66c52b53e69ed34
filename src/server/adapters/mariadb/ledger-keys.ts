import type { Knex } from "knex";

export type KeyOf = (id: string) => number;

export type Trx = Knex.Transaction;

export const dayMs = 86_400_000;

export const mostGroups = 12;
