import { z } from "zod";
import { mostTickets, owedStates } from "./limits";

const viewer = z.string().min(1).max(64);

const name = z.string().trim().min(1).max(80);

const tickets = z.int().min(1).max(mostTickets).default(1);

/** So many come in at once. */
const mostAtOnce = 5_000;

/** What is done to those who are in, and what one of them asks for. */
export const raffleCommands = {
  /** By a viewer, on the viewer page: so many tickets, or the number they name. */
  join: z.object({ guess: z.string().max(20).default("") }),
  /** By id, or by the name they are in under. */
  remove: z.object({ viewer: viewer.optional(), name: z.string().trim().max(80).optional() }),
  clear: z.object({}),
  bar: z.object({ viewer: viewer.optional(), name, on: z.boolean() }),
  /** Without an id, who has an account under that name is meant. */
  add: z.object({
    viewers: z
      .array(z.object({ id: viewer.optional(), name, tickets }))
      .min(1)
      .max(mostAtOnce, `At most ${mostAtOnce} at once.`),
  }),
  "add-present": z.object({ minutes: z.int().min(1).max(240), tickets }),
  "add-top": z.object({ count: z.int().min(1).max(500), tickets }),
  /** A winner has answered elsewhere, or is passed over. */
  claimed: z.object({ index: z.int().min(0) }),
  pass: z.object({ index: z.int().min(0) }),
  prize: z.object({ id: z.string().max(90), state: z.enum(owedStates) }),
};
